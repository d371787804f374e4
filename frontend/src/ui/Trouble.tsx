import { ApiError } from "../api/client";

/** What was stopped goes on from what it had found. */
const GOES_ON = new Set(["stopped", "too-heavy"]);

/** What went wrong, in the server's words; `again` tries once more. */
export function Trouble({ error, again }: { error: unknown; again?: (() => void) | undefined }) {
  if (!error) return null;
  const text = error instanceof Error ? error.message : "Something went wrong. Try again.";
  const faults = error instanceof ApiError ? error.problem.faults : [];
  return (
    <div role="alert" className="bg-wrong-soft text-wrong rounded-md px-3 py-2 text-sm">
      {text}
      {faults.length > 1 && (
        <ul className="mt-1 list-disc pl-5">
          {faults.map((fault) => (
            <li key={fault.path + fault.message}>
              {fault.field}: {fault.message}
            </li>
          ))}
        </ul>
      )}
      {again && (
        <button type="button" className="button-plain mt-2 block" onClick={again}>
          {error instanceof ApiError && GOES_ON.has(error.problem.code) ? "Go on" : "Try again"}
        </button>
      )}
    </div>
  );
}
