import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { CircleCheck, CircleX, FileUp, TriangleAlert } from "lucide-react";
import { lazy, Suspense, useDeferredValue, useEffect, useState } from "react";
import { Link, useNavigate } from "react-router";
import { client, unwrap } from "../api/client";
import type { CheckView, FindingView, LineView } from "../api/schema";
import { applyEdits } from "../bench/edits";
import { Choice } from "../ui/Choice";
import { Trouble } from "../ui/Trouble";

const TextEditor = lazy(() => import("../steps/words/TextEditor"));

const KEPT = "rillstep.check";

const EXAMPLE = `Pattern: Eyepiece pouch
Sizes: One lens, Three lenses

Base
Rnd 1: 6 sc in a magic ring. (6)
Rnd 2: Inc in each st around. (12)
Rnd 3: *Sc in next st, inc; rep from * around. (18)
Rnd 4: *Sc in next 2 sts, inc; rep from * around. (24)
Size Three lenses only:
Rnd 5: *Sc in next 3 sts, inc; rep from * around. (31)
`;

/** A text is checked as it is typed; the answer before stays until the next is here. */
function useCheck(text: string, terms: "US" | "UK") {
  const body = { text, terms };
  return useQuery({
    queryKey: ["check", body],
    queryFn: ({ signal }) => unwrap(client.POST("/api/check", { body, signal })),
    enabled: text.trim() !== "",
    placeholderData: keepPreviousData,
    retry: false,
  });
}

function Mark({ line, worst }: { line: LineView; worst: string | null }) {
  if (worst === "error") return <CircleX size={15} className="text-wrong" aria-label="refuted" />;
  if (line.proved) return <CircleCheck size={15} className="text-sound" aria-label="proved" />;
  return <TriangleAlert size={15} className="text-warn" aria-label="not known" />;
}

function worstOf(findings: readonly FindingView[], line: number): string | null {
  const here = findings.filter((finding) => finding.line === line);
  return here.find((finding) => finding.severity === "error")?.severity ?? here[0]?.severity ?? null;
}

function Lines({
  check,
  chosen,
  onChoose,
}: {
  check: CheckView;
  chosen: number | null;
  onChoose: (line: number) => void;
}) {
  return (
    <table className="numbers text-sm">
      <caption className="sr-only">Lines of the pattern with their totals in each size</caption>
      <thead>
        <tr>
          <th scope="col" className="text-left">
            Line
          </th>
          {check.sizes.map((size) => (
            <th key={size} scope="col" className="max-w-20 truncate px-1" title={size}>
              {size}
            </th>
          ))}
          <td className="w-6" />
        </tr>
      </thead>
      <tbody>
        {check.lines.map((line, index) => (
          <tr key={line.line} className={line.line === chosen ? "bg-mark-soft" : ""}>
            <th scope="row" className="max-w-56">
              <button
                type="button"
                className="block w-full truncate text-left"
                title={check.words[index] ?? ""}
                onClick={() => onChoose(line.line)}
              >
                {check.lines[index - 1]?.section !== line.section && (
                  <span className="text-quiet">{line.section} · </span>
                )}
                <strong className="text-ink font-medium">{line.label}</strong>
              </button>
            </th>
            {line.sts.map((sts, size) => {
              const stated = line.stated[size];
              const off = stated !== null && stated !== undefined && sts !== null && stated !== sts;
              return (
                <td key={size} className={off ? "text-wrong font-semibold" : ""}>
                  {sts ?? "–"}
                  {off && <span className="text-quiet font-normal"> not {stated}</span>}
                </td>
              );
            })}
            <td>
              <Mark line={line} worst={worstOf(check.findings, line.line)} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Findings({
  check,
  onRepair,
  onChoose,
}: {
  check: CheckView;
  onRepair: (finding: FindingView, index: number) => void;
  onChoose: (line: number) => void;
}) {
  const ranked = [...check.findings].sort(
    (a, b) => Number(a.severity !== "error") - Number(b.severity !== "error"),
  );
  return (
    <ul className="space-y-2">
      {ranked.slice(0, 12).map((finding, at) => (
        <li
          key={at}
          className={`sheet p-3 text-sm ${finding.severity === "error" ? "border-l-wrong border-l-3" : ""}`}
        >
          <p>
            <button type="button" className="text-quiet underline" onClick={() => onChoose(finding.line)}>
              line {finding.line}
            </button>{" "}
            {finding.message}
          </p>
          {finding.repairs.length > 0 && (
            <div className="mt-2 flex flex-wrap gap-2">
              {finding.repairs.map((repair, index) => (
                <button
                  key={repair.message}
                  type="button"
                  className={index === 0 ? "button" : "button-plain"}
                  onClick={() => onRepair(finding, index)}
                >
                  {repair.message}
                </button>
              ))}
            </div>
          )}
        </li>
      ))}
      {ranked.length > 12 && (
        <li className="text-quiet text-sm">and {ranked.length - 12} more: repair the first ones first.</li>
      )}
    </ul>
  );
}

function Verdict({ check }: { check: CheckView }) {
  const errors = check.findings.filter((finding) => finding.severity === "error").length;
  const sizes = `${check.sizes.length} ${check.sizes.length === 1 ? "size" : "sizes"}`;
  return (
    <p
      role="status"
      data-testid="verdict"
      className={`flex items-center gap-1.5 font-semibold ${errors ? "text-wrong" : "text-sound"}`}
    >
      {errors ? <TriangleAlert size={17} aria-hidden /> : <CircleCheck size={17} aria-hidden />}
      {check.proved_lines} of {check.total_lines} lines proved in {sizes}
    </p>
  );
}

/** A pattern written elsewhere: pasted or dropped, and proved or refuted line by line. */
export function CheckPage() {
  const [text, setText] = useState(() => localStorage.getItem(KEPT) ?? "");
  const [terms, setTerms] = useState<"US" | "UK">("US");
  const [line, setLine] = useState<number | null>(null);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const check = useCheck(useDeferredValue(text), terms);
  const keep = useMutation({
    mutationFn: () => unwrap(client.POST("/api/designs/from-text", { body: { text, terms } })),
    onSuccess: (design) => {
      localStorage.removeItem(KEPT);
      void queries.invalidateQueries({ queryKey: ["designs"] });
      void navigate(`/designs/${design.id}/words`);
    },
  });
  useEffect(() => {
    document.title = "Check a pattern – Rillstep";
  }, []);
  const change = (next: string) => {
    localStorage.setItem(KEPT, next);
    setText(next);
  };
  const read = async (file: File | undefined) => {
    if (file) change(await file.text());
  };
  // The server sets the terms in a line of their own when the text has none: its lines are then one further down.
  const shift = /^terms:/im.test(text) ? 0 : 1;
  const answer = check.data && text.trim() ? moved(check.data, -shift) : null;
  return (
    <div className="flex h-screen flex-col">
      <header className="border-line bg-sheet flex h-13 items-center gap-4 border-b px-5">
        <Link to="/" className="font-text text-xl font-semibold">
          Rillstep
        </Link>
        <h1 className="text-base">Check a pattern</h1>
        <span className="flex-1" />
        {answer && <Verdict check={answer} />}
      </header>
      <main className="grid min-h-0 flex-1 grid-cols-[1.15fr_1fr]">
        <section className="flex min-h-0 flex-col p-4" aria-label="The text">
          <div className="mb-2 flex flex-wrap items-end gap-3">
            <Choice
              label="It is written in"
              value={terms}
              options={[
                ["US", "US terms"],
                ["UK", "UK terms"],
              ]}
              onChange={setTerms}
            />
            <label className="button-plain cursor-pointer">
              <FileUp size={15} aria-hidden /> Open a text file
              <input
                type="file"
                accept=".txt,.md,text/plain"
                className="sr-only"
                onChange={(event) => void read(event.target.files?.[0])}
              />
            </label>
            {text.trim() === "" && (
              <button type="button" className="button-plain" onClick={() => change(EXAMPLE)}>
                Try an example
              </button>
            )}
            <span className="flex-1" />
            <button
              type="button"
              className="button"
              disabled={!answer || keep.isPending}
              onClick={() => keep.mutate()}
            >
              Keep it as a design
            </button>
          </div>
          <div
            className="min-h-0 flex-1"
            onDragOver={(event) => event.preventDefault()}
            onDrop={(event) => {
              const file = event.dataTransfer.files[0];
              if (!file) return;
              event.preventDefault();
              void read(file);
            }}
          >
            <Suspense fallback={<p className="text-quiet">Opening the editor…</p>}>
              <TextEditor
                text={text}
                findings={answer?.findings ?? []}
                line={line}
                onChange={change}
                onLine={setLine}
              />
            </Suspense>
          </div>
        </section>
        <section
          className="border-line min-h-0 space-y-4 overflow-auto border-l p-4"
          aria-label="The proof"
          // It scrolls by itself, so it can be reached by keyboard.
          // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
          tabIndex={0}
        >
          <Trouble error={check.error ?? keep.error} />
          {!answer && (
            <div className="sheet p-6">
              <h2 className="text-lg">Paste or drop a pattern on the left</h2>
              <p className="text-quiet mt-2 text-sm">
                In ordinary crochet English, in one size or many. It is worked stitch by stitch as you type:
                each line with its total in each size, and what does not come out with a repair that was
                tried. Say its sizes in a line of their own, such as “Sizes: S, M, L”. Nothing is kept unless
                you keep it.
              </p>
            </div>
          )}
          {answer && (
            <>
              <Findings
                check={answer}
                onChoose={setLine}
                onRepair={(finding, index) => {
                  const repair = finding.repairs[index];
                  if (repair) change(applyEdits(text, repair.edits));
                }}
              />
              {answer.lines.length > 0 && <Lines check={answer} chosen={line} onChoose={setLine} />}
            </>
          )}
        </section>
      </main>
    </div>
  );
}

/** The answer with all its line numbers moved: those of the text as it is shown. */
function moved(check: CheckView, by: number): CheckView {
  if (by === 0) return check;
  const move = <T extends { line: number }>(place: T): T => ({ ...place, line: place.line + by });
  return {
    ...check,
    lines: check.lines.map(move),
    findings: check.findings.map((finding) => ({
      ...move(finding),
      related: finding.related.map(move),
      repairs: finding.repairs.map((repair) => ({ ...repair, edits: repair.edits.map(move) })),
    })),
  };
}
