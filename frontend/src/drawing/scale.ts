import type { SizeView, WorkView } from "../api/schema";

/** One frame, in mm, for the bags of all sizes: so they stand to the same scale in their own columns. */
export interface Frame {
  width: number;
  height: number;
  baseHeight: number;
}

const MARGIN_MM = 12;

/** How high a handle's top stands over the opening, with its own thickness. */
export function handleRise(size: SizeView): number {
  const shape = size.shape;
  if (!shape) return 0;
  const over = shape.rounds.filter((round) => round.gap_mm > 0).length;
  return shape.drop_mm + over * (shape.rounds.at(-1)?.height_mm ?? 0);
}

export function frameOf(work: WorkView): Frame {
  const shapes = work.sizes.flatMap((size) => (size.shape ? [{ size, shape: size.shape }] : []));
  const width = Math.max(60, ...shapes.map(({ shape }) => Math.max(shape.width_mm, shape.base_length_mm)));
  const height = Math.max(
    60,
    ...shapes.map(({ size, shape }) => {
      const top = shape.rounds
        .filter((round) => round.gap_mm > 0)
        .reduce((sum, round) => sum + round.height_mm, 0);
      return shape.height_mm - top + handleRise(size);
    }),
  );
  const baseHeight = Math.max(20, ...shapes.map(({ shape }) => shape.base_depth_mm));
  return { width: width + 2 * MARGIN_MM, height: height + 2 * MARGIN_MM, baseHeight: baseHeight + MARGIN_MM };
}

/** The shade of a size: the smallest lightest, the largest darkest. */
export function shadeOf(index: number, count: number): string {
  const share = count > 1 ? Math.round((100 * index) / (count - 1)) : 60;
  return `color-mix(in oklab, var(--bar-from), var(--bar-to) ${share}%)`;
}
