import type { Design, Size, WorkView } from "../../api/schema";

/** A size as a column: of the text (`at` is its index there), or wanted and not in the text yet (`at` is -1). */
export interface Column {
  wish: Size;
  at: number;
}

/** The sizes that the text was last seen to have; they are not current while a newer text is being worked. */
export interface SizesOfText {
  names: readonly string[];
  current: boolean;
}

export function sizesOfText(document: Design, work: WorkView | null): SizesOfText {
  return { names: work?.outline.sizes ?? [], current: work?.text === document.text };
}

/**
 * The sizes in the order in which they are wanted; those that the text has and nobody spoke of come first. A text
 * that is not worked yet adds none: a size that was just renamed would come back under its name before.
 */
export function columnsOf(document: Design, inText: SizesOfText): Column[] {
  const wishes = document.sizes;
  const known = new Set(wishes.map((wish) => wish.name));
  const unspoken =
    inText.current || wishes.length === 0 ? inText.names.filter((name) => !known.has(name)) : [];
  return [...unspoken.map((name) => ({ name, targets_mm: {}, tolerances_mm: {}, locks: {} })), ...wishes].map(
    (wish) => ({ wish, at: inText.names.indexOf(wish.name) }),
  );
}

export function sampleOf(document: Design, inText: SizesOfText): string {
  return document.sample ?? inText.names[0] ?? "";
}

/** The document with one column changed; all columns are written down with it. */
export function withWish(
  document: Design,
  inText: SizesOfText,
  name: string,
  change: (wish: Size) => Size,
): Design {
  const sizes = columnsOf(document, inText).map(({ wish }) => (wish.name === name ? change(wish) : wish));
  return { ...document, sizes };
}

/** The document with a number locked in a size, or free again (null). */
export function withLock(
  document: Design,
  inText: SizesOfText,
  size: string,
  number: string,
  value: number | null,
): Design {
  return withWish(document, inText, size, (wish) => {
    const others = Object.entries(wish.locks).filter(([name]) => name !== number);
    return {
      ...wish,
      locks: Object.fromEntries(value === null ? others : [...others, [number, value] as const]),
    };
  });
}

/** The document with a target set, or taken away (null). */
export function withTarget(
  document: Design,
  inText: SizesOfText,
  size: string,
  measure: string,
  mm: number | null,
): Design {
  return withWish(document, inText, size, (wish) => {
    const others = Object.entries(wish.targets_mm).filter(([name]) => name !== measure);
    return {
      ...wish,
      targets_mm: Object.fromEntries(mm === null ? others : [...others, [measure, mm] as const]),
    };
  });
}

/** The document with several targets of a size set at once. */
export function withTargets(
  document: Design,
  inText: SizesOfText,
  name: string,
  targets: Readonly<Record<string, number>>,
): Design {
  return withWish(document, inText, name, (wish) => ({
    ...wish,
    targets_mm: { ...wish.targets_mm, ...targets },
  }));
}

/** A name that no size has: the one that is asked for, else a usual one. */
export function freshName(names: readonly string[], asked?: string): string {
  const taken = new Set(names.map((name) => name.toLowerCase()));
  const usual = [...(asked ? [asked] : []), "Small", "Medium", "Large", "Extra large"].find(
    (name) => !taken.has(name.toLowerCase()),
  );
  if (usual) return usual;
  for (let number = 2; ; number++) if (!taken.has(`size ${number}`)) return `Size ${number}`;
}
