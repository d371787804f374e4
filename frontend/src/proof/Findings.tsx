import { Teach } from "./Teach";
import { WhatIsIt } from "./WhatIsIt";
import type { EditView, FindingView } from "../api/schema";

interface Props {
  label: string;
  findings: readonly FindingView[];
  /** The text in which words may be taught, and its terms where they are chosen beside it. */
  text: string;
  terms: "US" | "UK" | null;
  onRepair: (edits: readonly EditView[]) => void;
  onLine: (line: number) => void;
}

const MOST = 12;

/** What is wrong, errors first, each with the repairs that were tried. */
export function Findings({ label, findings, text, terms, onRepair, onLine }: Props) {
  if (findings.length === 0) return null;
  const ranked = [...findings].sort(
    (a, b) => Number(a.severity !== "error") - Number(b.severity !== "error"),
  );
  return (
    <ul className="space-y-2" aria-label={label}>
      {ranked.slice(0, MOST).map((finding, at) => (
        <li
          key={at}
          className={`sheet p-3 text-sm ${finding.severity === "error" ? "border-l-wrong border-l-3" : ""}`}
        >
          <p>
            <button type="button" className="text-quiet underline" onClick={() => onLine(finding.line)}>
              line {finding.line}
            </button>{" "}
            {finding.message} <WhatIsIt code={finding.code} />
          </p>
          {(finding.repairs.length > 0 || finding.offer) && (
            <div className="mt-2 flex flex-wrap gap-2">
              {finding.repairs.map((repair, index) => (
                <button
                  key={repair.message}
                  type="button"
                  className={`${index === 0 && finding.severity === "error" ? "button" : "button-plain"} text-left whitespace-normal`}
                  onClick={() => onRepair(repair.edits)}
                >
                  {repair.message}
                </button>
              ))}
              {finding.offer && (
                <Teach
                  key={finding.offer.words}
                  offer={finding.offer}
                  text={text}
                  terms={terms}
                  onEdit={(edit) => onRepair([edit])}
                />
              )}
            </div>
          )}
        </li>
      ))}
      {ranked.length > MOST && (
        <li className="text-quiet text-sm">and {ranked.length - MOST} more: repair the first ones first.</li>
      )}
    </ul>
  );
}
