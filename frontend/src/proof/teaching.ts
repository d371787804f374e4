import { useSyncExternalStore } from "react";

// How many forms are open in which somebody says what words mean: what stands there is not taken away meanwhile.
let forms = 0;
const listeners = new Set<() => void>();

function change(by: number): void {
  forms += by;
  for (const listener of listeners) listener();
}

/** Notes an open form; the answer closes it. */
export function teachingBegins(): () => void {
  change(1);
  return () => change(-1);
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Is somebody just saying what words mean? */
export function useTeaching(): boolean {
  return useSyncExternalStore(subscribe, () => forms > 0);
}
