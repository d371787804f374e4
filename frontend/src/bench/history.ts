import type { Design } from "../api/schema";

/** A document with its past and future. Changes of one field in quick succession are one step. */
export interface History {
  past: readonly Design[];
  present: Design;
  future: readonly Design[];
  /** Which field was changed last, and when. */
  last: { key: string; at: number };
}

const TOGETHER_MS = 900;
const LONGEST = 200;

export function begin(document: Design): History {
  return { past: [], present: document, future: [], last: { key: "", at: 0 } };
}

export function changed(history: History, document: Design, key: string, at: number): History {
  const together = key !== "" && key === history.last.key && at - history.last.at < TOGETHER_MS;
  const past = together ? history.past : [...history.past, history.present].slice(-LONGEST);
  return { past, present: document, future: [], last: { key, at } };
}

export function undone(history: History): History {
  const before = history.past.at(-1);
  if (!before) return history;
  return {
    past: history.past.slice(0, -1),
    present: before,
    future: [history.present, ...history.future],
    last: { key: "", at: 0 },
  };
}

export function redone(history: History): History {
  const [next, ...rest] = history.future;
  if (!next) return history;
  return { past: [...history.past, history.present], present: next, future: rest, last: { key: "", at: 0 } };
}
