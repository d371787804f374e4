interface Props {
  of: { page: number; pages: number; total: number };
  noun: string;
  onTurn: (page: number) => void;
}

/** Which page of a list is shown, and the ways to its neighbours; nothing where there is only one. */
export function Pages({ of: { page, pages, total }, noun, onTurn }: Props) {
  if (pages <= 1) return null;
  return (
    <nav className="mt-3 flex flex-wrap items-center gap-2 text-sm" aria-label={`Pages of ${noun}`}>
      <button type="button" className="button-plain" disabled={page <= 1} onClick={() => onTurn(page - 1)}>
        Newer
      </button>
      <button
        type="button"
        className="button-plain"
        disabled={page >= pages}
        onClick={() => onTurn(page + 1)}
      >
        Older
      </button>
      <span className="text-quiet" role="status">
        page {page} of {pages}, {total} {noun}
      </span>
    </nav>
  );
}
