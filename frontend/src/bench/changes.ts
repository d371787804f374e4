import type { Changes, ChangedLines, Design } from "../api/schema";

/** The lines that differ: what is the same at both ends is left out. */
export function changedLines(before: string, after: string): ChangedLines | null {
  if (before === after) return null;
  const old = before.split("\n");
  const now = after.split("\n");
  const most = Math.min(old.length, now.length);
  let at = 0;
  while (at < most && old[at] === now[at]) at += 1;
  let end = 0;
  while (end < most - at && old[old.length - 1 - end] === now[now.length - 1 - end]) end += 1;
  return { at, removed: old.length - at - end, lines: now.slice(at, now.length - end) };
}

function same(one: unknown, other: unknown): boolean {
  return one === other || JSON.stringify(one) === JSON.stringify(other);
}

/** What of a document is otherwise than at its base: this is sent, and not all of it. */
export function changesSince(base: Design, document: Design): Changes {
  const fields = Object.fromEntries(
    Object.entries(document).filter(
      ([key, value]) => key !== "text" && !same(base[key as keyof Design], value),
    ),
  );
  return { lines: changedLines(base.text, document.text), fields };
}
