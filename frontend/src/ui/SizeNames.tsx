/** What stands over the columns of sizes: their names where all fit, else their numbers, which a legend tells. */
export function headsOf(sizes: readonly string[], fits: number): readonly string[] {
  return sizes.every((name) => name.length <= fits) ? sizes : sizes.map((_, at) => String(at + 1));
}

/** Which number stands for which size; nothing where the names themselves stand there. */
export function SizeLegend({ sizes, fits }: { sizes: readonly string[]; fits: number }) {
  if (headsOf(sizes, fits) === sizes) return null;
  return (
    <p className="text-quiet text-[13px]" aria-label="Sizes by number">
      Sizes:{" "}
      {sizes.map((name, at) => (
        <span key={name} className="mr-2 inline-block">
          <strong className="text-ink">{at + 1}</strong> {name}
        </span>
      ))}
    </p>
  );
}
