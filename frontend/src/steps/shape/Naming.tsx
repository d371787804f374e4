import { useMutation } from "@tanstack/react-query";
import { Link2, PenLine, Pin, Unlink } from "lucide-react";
import { useState, type ReactNode, type SyntheticEvent } from "react";
import { client, unwrap } from "../../api/client";
import type { GradingView, NameChange, NumberView } from "../../api/schema";
import { useOpenDesign, useSelection } from "../../bench/context";
import { Select } from "../../ui/Select";
import { Trouble } from "../../ui/Trouble";

/** Changes a name in the text; what was refused is said. */
export function useNames(done?: () => void) {
  const design = useOpenDesign();
  const { select } = useSelection();
  const make = useMutation({
    mutationFn: (change: Pick<NameChange, "verb"> & Partial<NameChange>) =>
      unwrap(
        client.POST("/api/names", {
          body: {
            document: design.document,
            change: { name: "", other: "", line: 0, column: 0, values: [], ...change },
          },
        }),
      ),
    onSuccess: (answer) => {
      if (answer.problem !== null) return;
      select(null);
      design.change("", () => answer.document);
      done?.();
    },
  });
  return { make, problem: make.data?.problem ?? null, error: make.error };
}

/** A field for a new name, with the button that takes it. */
export function NewName({
  label,
  action,
  busy,
  children,
  onName,
}: {
  label: string;
  action: string;
  busy: boolean;
  children?: ReactNode;
  onName: (name: string, data: FormData) => void;
}) {
  const submit = (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    const data = new FormData(event.currentTarget);
    const name = data.get("name");
    if (typeof name === "string" && name.trim() !== "") onName(name.trim(), data);
  };
  return (
    <form className="mt-2 flex flex-wrap items-end gap-2" onSubmit={submit}>
      {children}
      <label>
        <span className="text-quiet block text-[13px]">{label}</span>
        {/* It was asked for by the button before it. */}
        <input name="name" className="field w-40" maxLength={60} required autoFocus />
      </label>
      <button type="submit" className="button" disabled={busy}>
        {action}
      </button>
    </form>
  );
}

type Open = "rename" | "tie" | "untie" | null;

/** What can be done with the name of a number: another name, plain numbers, one with others, or apart from them. */
export function Naming({ number, grading }: { number: NumberView; grading: GradingView }) {
  const [open, setOpen] = useState<Open>(null);
  const { make, problem, error } = useNames(() => setOpen(null));
  const { name } = number;
  const equal = grading.numbers.filter(
    (other) => other.name !== name && other.values.join() === number.values.join(),
  );
  const toggle = (which: Open) => setOpen(open === which ? null : which);
  return (
    <section aria-label={`The name ${name}`} className="border-line mt-3 border-t pt-2">
      <div className="flex flex-wrap gap-1">
        <button
          type="button"
          className="button-bare"
          aria-expanded={open === "rename"}
          onClick={() => toggle("rename")}
        >
          <PenLine size={14} aria-hidden /> Rename
        </button>
        <button
          type="button"
          className="button-bare"
          title="It is a plain number again, and grading leaves it as it is"
          disabled={make.isPending}
          onClick={() => make.mutate({ verb: "hold", name })}
        >
          <Pin size={14} aria-hidden /> Hold
        </button>
        {equal.length > 0 && (
          <button
            type="button"
            className="button-bare"
            aria-expanded={open === "tie"}
            onClick={() => toggle("tie")}
          >
            <Link2 size={14} aria-hidden /> Tie
          </button>
        )}
        {number.lines.length > 1 && (
          <button
            type="button"
            className="button-bare"
            aria-expanded={open === "untie"}
            onClick={() => toggle("untie")}
          >
            <Unlink size={14} aria-hidden /> Untie
          </button>
        )}
      </div>
      {open === "rename" && (
        <NewName
          label="New name"
          action="Rename"
          busy={make.isPending}
          onName={(other) => make.mutate({ verb: "rename", name, other })}
        />
      )}
      {open === "tie" && (
        <ul className="mt-2 text-sm" aria-label="Numbers that are equal in every size">
          {equal.map((other) => (
            <li key={other.name}>
              <button
                type="button"
                className="button-plain"
                disabled={make.isPending}
                onClick={() => make.mutate({ verb: "tie", name, other: other.name })}
              >
                Move with “{other.name}”
              </button>
            </li>
          ))}
        </ul>
      )}
      {open === "untie" && (
        <NewName
          label="Its own name there"
          action="Untie"
          busy={make.isPending}
          onName={(other, data) =>
            make.mutate({ verb: "untie", name, other, line: Number(data.get("line")) })
          }
        >
          <Select label="In line" name="line">
            {number.lines.map((line) => (
              <option key={line} value={line}>
                {line}
              </option>
            ))}
          </Select>
        </NewName>
      )}
      {problem && (
        <p role="alert" className="text-wrong mt-1 text-sm">
          {problem}
        </p>
      )}
      <Trouble error={error} />
    </section>
  );
}
