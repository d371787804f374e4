/** The shade of a size: the smallest lightest, the largest darkest. */
export function shadeOf(index: number, count: number): string {
  const share = count > 1 ? Math.round((100 * index) / (count - 1)) : 60;
  return `color-mix(in oklab, var(--bar-from), var(--bar-to) ${share}%)`;
}
