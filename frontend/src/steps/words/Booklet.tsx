import { Mark } from "../../proof/Mark";
import type { BookletLineView, BookletView } from "../../api/schema";
import { useSelection } from "../../bench/context";
import { headsOf, SizeLegend } from "../../ui/SizeNames";

// So many letters of a name stand over a column of totals.
const FITS = 5;

function Line({
  line,
  columns,
  selectable,
}: {
  line: BookletLineView;
  columns: number;
  selectable: boolean;
}) {
  const { selection, select } = useSelection();
  if (line.kind === "sizes") return <p className="font-text text-quiet mt-2 px-2 italic">{line.text}</p>;
  const chosen = selectable && selection?.line === line.line;
  const isRow = line.kind === "row";
  const vouched = line.kind === "vouched";
  const asWritten = line.kind === "written" || vouched;
  const words = (
    <>
      {line.label && <strong className="font-sans text-sm">{line.label}: </strong>}
      {line.text}
      {line.totals && (
        <>
          {" "}
          <strong>— {line.totals}</strong>
        </>
      )}
    </>
  );
  return (
    <div
      data-line={line.line}
      className={`flex flex-col gap-x-3 rounded px-2 py-1 sm:flex-row sm:items-start ${chosen ? "bg-mark-soft" : ""} ${line.kind === "check" ? "text-quiet text-sm" : ""} ${line.mark === "kept" ? "text-quiet italic" : ""} ${asWritten ? `${vouched ? "border-warn" : "border-wrong"} border-l-2 border-dashed` : ""}`}
    >
      {(isRow || asWritten) && selectable ? (
        <button
          type="button"
          className="font-text min-w-0 flex-1 text-left"
          onClick={() => select({ line: line.line })}
        >
          {words}
        </button>
      ) : (
        <p className="font-text min-w-0 flex-1">{words}</p>
      )}
      {isRow && (
        <span className="flex shrink-0 items-center justify-end gap-1 self-end text-sm sm:self-auto">
          {line.sts.map((sts, index) => (
            <span key={index} className="tabular text-quiet w-9 text-right">
              {sts ?? "·"}
            </span>
          ))}
          <Mark mark={line.mark} size={16} />
        </span>
      )}
      {asWritten && (
        <span className={`shrink-0 text-sm ${vouched ? "text-warn" : "text-wrong"}`}>
          {vouched ? "as written, vouched for" : "as written, not proved"}
        </span>
      )}
      {!isRow && columns > 0 && line.kind === "check" && <Mark mark={line.mark} size={16} />}
    </div>
  );
}

function List({ title, items }: { title: string; items: readonly string[] }) {
  return (
    <section>
      <h3 className="text-[15px]">{title}</h3>
      <ul className="list-disc pl-5 text-sm">
        {items.map((item) => (
          <li key={item}>{item}</li>
        ))}
      </ul>
    </section>
  );
}

/** The instructions as they are printed; each round with its proved total for each size. */
export function Booklet({ booklet, selectable }: { booklet: BookletView; selectable: boolean }) {
  const heads = headsOf(booklet.sizes, FITS);
  return (
    <article className="sheet p-5" aria-label="Instructions">
      <h2 className="text-2xl">{booklet.title}</h2>
      {booklet.sizes.length > 1 && <SizeLegend sizes={booklet.sizes} fits={FITS} />}
      <div className="mt-3 space-y-4">
        {booklet.sections.map((section, index) => (
          <section key={section.title}>
            <div className="border-line flex items-baseline justify-between gap-2 border-b pb-0.5">
              <h3 className="text-lg">
                {section.title}{" "}
                <span className="text-quiet font-sans text-sm font-normal">{section.worked}</span>
              </h3>
              <p
                className="text-quiet flex shrink-0 items-end gap-1 pr-7 text-[12px]"
                aria-hidden={index > 0}
              >
                {booklet.sizes.map((size, at) => (
                  <span key={size} className="w-9 shrink-0 text-right" title={size}>
                    {booklet.sizes.length === 1 ? "sts" : heads[at]}
                  </span>
                ))}
              </p>
            </div>
            {section.lines.map((line, at) => (
              <Line key={at} line={line} columns={booklet.sizes.length} selectable={selectable} />
            ))}
          </section>
        ))}
        <div className="grid gap-4 md:grid-cols-2">
          <List title="Materials" items={booklet.materials} />
          <div className="space-y-3">
            {booklet.gauge && (
              <section>
                <h3 className="text-[15px]">Gauge</h3>
                <p className="text-sm">{booklet.gauge}</p>
              </section>
            )}
            <section>
              <h3 className="text-[15px]">Abbreviations</h3>
              <p className="text-sm">
                {booklet.abbreviations.map((pair) => (
                  <span key={pair.name} className="mr-3 inline-block">
                    <strong>{pair.name}</strong> {pair.text}
                  </span>
                ))}
              </p>
            </section>
          </div>
        </div>
        {booklet.measures.length > 0 && (
          <section>
            <h3 className="text-[15px]">Finished measurements</h3>
            <table className="numbers text-sm">
              <thead>
                <tr>
                  <td />
                  {booklet.sizes.map((size) => (
                    <th key={size} scope="col">
                      {size}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {booklet.measures.map((row) => (
                  <tr key={row.name}>
                    <th scope="row">{row.name}</th>
                    {row.values.map((value, index) => (
                      <td key={index}>{value}</td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        )}
        <List title="Notes" items={booklet.notes} />
        <List title="Please mind" items={booklet.cautions.map((caution) => caution.text)} />
      </div>
    </article>
  );
}
