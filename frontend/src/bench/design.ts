import type { TextDesign, ToteDesign, WorkView } from "../api/schema";

/** A design by its version: 1 is a tote by fields, 2 a text. */
export type Design = ToteDesign | TextDesign;

/** The sizes that can be read and tested: of a text those that it has, of a tote those of its fields. */
export function sizeNames(document: Design, work: WorkView | null): string[] {
  return document.version === 2 ? (work?.outline.sizes ?? []) : document.sizes.map((size) => size.name);
}
