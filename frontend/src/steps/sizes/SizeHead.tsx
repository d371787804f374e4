import { useMutation } from "@tanstack/react-query";
import { ArrowLeft, ArrowRight, Copy, Trash2 } from "lucide-react";
import { useState, type ReactNode } from "react";
import { client, unwrap } from "../../api/client";
import type { Size } from "../../api/schema";
import { useBench, useOpenDesign } from "../../bench/context";
import { useCraft } from "../../bench/useCraft";
import { Trouble } from "../../ui/Trouble";
import { freshName, sampleOf, sizesOfText, type Column } from "./wishes";

/** A column as it shall be: its wish, and the column that it begins as. */
interface Wanted {
  wish: Size;
  from: Column;
}

function Small({
  label,
  disabled,
  onClick,
  children,
}: {
  label: string;
  disabled: boolean;
  onClick: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      className="button-bare px-1"
      aria-label={label}
      title={label}
      disabled={disabled}
      onClick={onClick}
    >
      {children}
    </button>
  );
}

/** The name of a size, and what can be done with it: where the text has it, it is done in the text. */
export function SizeHead({
  column,
  columns,
  sample,
}: {
  column: Column;
  columns: readonly Column[];
  sample: boolean;
}) {
  const design = useOpenDesign();
  const craft = useCraft();
  const { work } = useBench();
  const { document } = design;
  const inText = sizesOfText(document, work);
  const { name } = column.wish;
  const [typed, setTyped] = useState<string | null>(null);
  const resize = useMutation({
    mutationFn: ({ sizes, sources }: { sizes: string[]; sources: number[] }) =>
      unwrap(client.POST("/api/text/sizes", { body: { text: document.text, sizes, sources } })),
  });
  /** The columns as they shall be; those of the text are changed in it, or nothing is. */
  const put = (wanted: readonly Wanted[], start: string) => {
    const sizes = wanted.map((one) => one.wish);
    const own = wanted.filter((one) => one.from.at >= 0);
    const same =
      own.length === inText.names.length &&
      own.every((one, at) => one.from.at === at && one.wish.name === inText.names[at]);
    if (same) {
      design.change("", (d) => ({ ...d, sizes, sample: start }));
      return;
    }
    resize.mutate(
      { sizes: own.map((one) => one.wish.name), sources: own.map((one) => one.from.at) },
      {
        onSuccess: (answer) => {
          if (answer.problem === null)
            design.change("", (d) => ({ ...d, text: answer.text, sizes, sample: start }));
        },
      },
    );
  };
  const start = sampleOf(document, inText);
  const at = columns.indexOf(column);
  const now: Wanted[] = columns.map((one) => ({ wish: one.wish, from: one }));
  const rename = (to: string) => {
    setTyped(null);
    if (to === name || to === "") return;
    put(
      now.map((one, index) => (index === at ? { ...one, wish: { ...one.wish, name: to } } : one)),
      start === name ? to : start,
    );
  };
  const copy = () => {
    const fresh = freshName(
      columns.map((one) => one.wish.name),
      `${name} copy`,
    );
    put(now.toSpliced(at + 1, 0, { wish: { ...column.wish, name: fresh }, from: column }), start);
  };
  const move = (by: number) => {
    const [one] = now.splice(at, 1);
    if (one) put(now.toSpliced(at + by, 0, one), start);
  };
  const busy = resize.isPending || !inText.current;
  // One that is not graded yet is placed by what it shall measure.
  const fixed = column.at < 0;
  return (
    <div>
      <input
        className="field text-center font-semibold"
        aria-label={`Name of size ${name}`}
        title={name}
        value={typed ?? name}
        readOnly={!inText.current}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => rename((typed ?? name).trim())}
        onKeyDown={(event) => {
          if (event.key === "Enter") event.currentTarget.blur();
          if (event.key === "Escape") setTyped(null);
        }}
      />
      <span className="text-quiet flex min-h-7 flex-wrap items-center justify-center text-[13px] font-normal">
        <Small label={`Move ${name} left`} disabled={busy || fixed || at === 0} onClick={() => move(-1)}>
          <ArrowLeft size={14} aria-hidden />
        </Small>
        <Small
          label={`Copy ${name}`}
          disabled={busy || columns.length >= (craft?.most_sizes ?? 1)}
          onClick={copy}
        >
          <Copy size={14} aria-hidden />
        </Small>
        <Small
          label={`Delete ${name}`}
          disabled={busy || sample}
          onClick={() =>
            put(
              now.filter((one) => one.wish.name !== name),
              start,
            )
          }
        >
          <Trash2 size={14} aria-hidden />
        </Small>
        <Small
          label={`Move ${name} right`}
          disabled={busy || fixed || at === columns.length - 1}
          onClick={() => move(1)}
        >
          <ArrowRight size={14} aria-hidden />
        </Small>
        <span className="block w-full">
          {sample ? (
            "the sample"
          ) : fixed && inText.current ? (
            "not graded yet"
          ) : (
            <button
              type="button"
              className="button-bare py-0 text-[13px]"
              aria-label={`${name}: use as sample`}
              disabled={busy}
              title={`Grade the others from ${name}, as it is in the text`}
              onClick={() => design.change("", (d) => ({ ...d, sample: name }))}
            >
              use as sample
            </button>
          )}
        </span>
      </span>
      {resize.data?.problem && (
        <p role="alert" className="text-wrong text-[13px] font-normal whitespace-normal">
          {resize.data.problem}
        </p>
      )}
      <Trouble error={resize.error} />
    </div>
  );
}
