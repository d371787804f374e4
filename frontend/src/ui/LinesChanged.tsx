import type { LinesChangedView } from "../api/schema";

function Changed({ change }: { change: LinesChangedView }) {
  return (
    <li className="border-line border-t py-1.5">
      {change.before.map((line, index) => (
        <p key={`${index} ${line}`} className="font-text text-quiet line-through">
          <span className="sr-only">Before: </span>
          {line || "(an empty line)"}
        </p>
      ))}
      {change.after.map((line, index) => (
        <p key={`${index} ${line}`} className="font-text">
          <span className="sr-only">After: </span>
          {line || "(an empty line)"}
        </p>
      ))}
    </li>
  );
}

/** Lines of a text that differ: before struck through, and after. */
export function LinesChanged({ label, changes }: { label: string; changes: readonly LinesChangedView[] }) {
  return (
    <ol
      className="max-h-72 overflow-auto text-sm"
      aria-label={label}
      // It scrolls by itself, so it can be reached by keyboard.
      // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
      tabIndex={0}
    >
      {changes.map((change) => (
        <Changed key={change.line} change={change} />
      ))}
    </ol>
  );
}
