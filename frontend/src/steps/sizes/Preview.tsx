import { Check, TriangleAlert } from "lucide-react";
import type { GradedView, NextBestView } from "../../api/schema";
import { Dialog } from "../../ui/Dialog";
import { LinesChanged } from "../../ui/LinesChanged";

/** Graded sizes before they are taken: targets against results, what is not met, and every line that changes. */
export function Preview({
  graded,
  onClose,
  onTake,
  onInstead,
  busy,
}: {
  graded: GradedView | null;
  onClose: () => void;
  onTake: (graded: GradedView) => void;
  /** Other numbers for one size, which are locked then, and graded again. */
  onInstead: (other: NextBestView) => void;
  busy: boolean;
}) {
  if (graded === null) return null;
  if (graded.problem !== null)
    return (
      <Dialog title="This text is not graded yet" open onClose={onClose}>
        <p>{graded.problem}</p>
        <p className="text-quiet mt-2 text-sm">Nothing was changed.</p>
        <button type="button" className="button mt-4" onClick={onClose}>
          Back to the sizes
        </button>
      </Dialog>
    );
  const many = graded.changes.length;
  return (
    <Dialog
      title={`${graded.sizes.length} sizes: ${graded.sizes.join(", ")}`}
      open
      wide
      onClose={onClose}
      footer={
        <div className="flex flex-wrap items-center gap-2">
          {many > 0 ? (
            <>
              <button type="button" className="button" disabled={busy} onClick={() => onTake(graded)}>
                Take these sizes
              </button>
              <button type="button" className="button-plain" onClick={onClose}>
                Leave the text as it is
              </button>
              <span role="status" className="text-quiet text-sm">
                {busy ? "Finding and proving the sizes anew…" : "Taking them can be undone."}
              </span>
            </>
          ) : (
            <button type="button" className="button" onClick={onClose}>
              Back to the sizes
            </button>
          )}
        </div>
      }
    >
      <p className="flex items-center gap-1.5 text-sm">
        {graded.proved ? (
          <>
            <Check size={16} className="text-sound" aria-hidden /> Every line is proved in all of them.
          </>
        ) : (
          <>
            <TriangleAlert size={16} className="text-warn" aria-hidden /> Not everything in them is checked;
            the findings under Words say what.
          </>
        )}
      </p>
      {graded.notes.length > 0 && (
        <ul className="bg-mark-soft mt-3 space-y-1 rounded-md px-3 py-2 text-sm" aria-label="What is not met">
          {graded.notes.map((note) => (
            <li key={note}>{note}</li>
          ))}
        </ul>
      )}
      {graded.next_best.length > 0 && (
        <section aria-label="Next best" className="mt-3 text-sm">
          <h3 className="text-base">Next best</h3>
          <ul>
            {graded.next_best.map((other, index) => (
              <li key={index} className="border-line flex items-center gap-3 border-t py-1">
                <span className="font-medium">{other.size}</span>
                <span className="flex-1">
                  {other.targets
                    .map((target) => `${target.label.toLowerCase()} ${target.result} (${target.difference})`)
                    .join(", ")}
                </span>
                <button
                  type="button"
                  className="button-plain"
                  disabled={busy}
                  onClick={() => onInstead(other)}
                >
                  Take this one
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
      {graded.targets.length > 0 && (
        <table className="numbers mt-3 text-sm">
          <caption className="sr-only">Targets and what they come to</caption>
          <thead>
            <tr>
              <th scope="col" className="text-left">
                Size
              </th>
              <th scope="col" className="text-left">
                Measure
              </th>
              <th scope="col">comes to</th>
              <th scope="col">wanted</th>
              <th scope="col">off by</th>
            </tr>
          </thead>
          <tbody>
            {graded.targets.map((target) => (
              <tr key={`${target.size} ${target.name}`}>
                <th scope="row">{target.size}</th>
                <td className="text-left">
                  {target.piece ? `${target.piece}: ${target.label}` : target.label}
                </td>
                <td className="font-semibold">{target.result}</td>
                <td>{target.target}</td>
                <td className={target.within ? "text-quiet" : "text-wrong font-semibold"}>
                  {target.difference}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <h3 className="mt-4 text-base">
        {many === 0 ? "No line of the text changes" : "What changes in the text"}
      </h3>
      <LinesChanged label="Lines that change" changes={graded.changes} />
      {graded.not_changed.length > 0 && (
        <section className="mt-3 text-sm" aria-label="Not changed: look">
          <h3 className="text-base">Not changed: look</h3>
          <p className="text-quiet">
            Words stay as you typed them. These numbers in them may belong to one that changes.
          </p>
          <ul>
            {graded.not_changed.map((kept) => (
              <li key={`${kept.line} ${kept.number}`} className="border-line border-t py-1">
                Line {kept.line}: <strong>{kept.number}</strong> ({kept.was}) in “{kept.words}”
              </li>
            ))}
          </ul>
        </section>
      )}
    </Dialog>
  );
}
