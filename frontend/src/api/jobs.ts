import { useSyncExternalStore } from "react";

/** Requests that compute something and are not answered yet, by the name under which they can be followed. */
export interface Job {
  name: string;
  begun: number;
}

const HEADER = "X-Job";
// What is answered sooner never came to the server's long work.
const LONG_AFTER_MS = 1200;

let jobs: readonly Job[] = [];
const listeners = new Set<() => void>();

function set(next: readonly Job[]): void {
  jobs = next;
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Gives a request its name; `dropped` is called when whoever asked wants no answer any more. */
export function begin(headers: Headers, signal: AbortSignal | null, dropped: (name: string) => void): void {
  const job = { name: crypto.randomUUID(), begun: Date.now() };
  headers.set(HEADER, job.name);
  set([...jobs, job]);
  signal?.addEventListener("abort", () => {
    const known = jobs.includes(job);
    set(jobs.filter((one) => one !== job));
    // The server knows a name once the long work has begun: what was dropped sooner is stopped then.
    if (known) setTimeout(() => dropped(job.name), LONG_AFTER_MS - (Date.now() - job.begun));
  });
}

export function end(headers: Headers): void {
  const name = headers.get(HEADER);
  if (name !== null) set(jobs.filter((job) => job.name !== name));
}

/** The request that has been waited for the longest, or none. */
export function useOldestJob(): Job | undefined {
  return useSyncExternalStore(subscribe, () => jobs[0]);
}
