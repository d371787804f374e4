import type { WorkView } from "../api/schema";

/** The sizes that can be read and tested: those that the text has. */
export function sizeNames(work: WorkView | null): string[] {
  return work?.outline.sizes ?? [];
}
