import { useQuery } from "@tanstack/react-query";
import { client, unwrap } from "../api/client";
import { described, Outlines } from "../drawing/Outlines";
import { Mark } from "../proof/Mark";

/** What the product does, by its own means: a bag drawn in its sizes, its lines proved, and one refuted. */
export function Example() {
  const { data } = useQuery({
    queryKey: ["example"],
    queryFn: () => unwrap(client.GET("/api/example")),
    staleTime: Infinity,
  });
  if (!data)
    return (
      <p className="text-quiet mt-3">
        Grade a crochet bag into sizes, and have each line worked stitch by stitch.
      </p>
    );
  const shown = data.bag.sizes.flatMap((drawing, index) =>
    drawing ? [{ drawing, index, name: data.sizes[index] ?? "" }] : [],
  );
  return (
    <>
      <p className="text-quiet mt-2">
        You have one bag, as a sample or as a text. It is graded into sizes from its own words:
      </p>
      <div className="mt-4 flex items-end gap-6">
        {shown.map((one) => (
          <figure key={one.index} className="flex-1">
            <div className="h-44">
              <Outlines
                view={data.bag}
                shown={[one]}
                count={shown.length}
                line={null}
                label={described(data.bag, one)}
              />
            </div>
            <figcaption className="mt-1 text-center text-sm">
              <span className="block font-semibold">{one.name}</span>
              <span className="text-quiet">{one.drawing.spans.map((span) => span.text).join(" × ")}</span>
            </figcaption>
          </figure>
        ))}
      </div>
      <p className="text-quiet mt-4">Each line is worked stitch by stitch, in every size:</p>
      <ul className="sheet mt-2 px-3 py-1.5 text-sm" aria-label="Lines that are proved">
        {data.lines.map((line) => (
          <li key={`${line.line} ${line.label}`} className="flex items-center gap-3 py-0.5">
            <span className="font-text min-w-0 flex-1 truncate" title={line.text}>
              <strong className="font-sans">{line.label}:</strong> {line.text}
            </span>
            {line.sts.map((sts, at) => (
              <span key={data.sizes[at]} className="tabular text-quiet w-8 text-right">
                {sts ?? "·"}
              </span>
            ))}
            <Mark mark={line.mark} size={16} />
          </li>
        ))}
      </ul>
      <p className="text-quiet mt-4">And where one number is wrong, it is found, with its size:</p>
      <p className="bg-wrong-soft mt-2 rounded-md px-3 py-2 text-sm">
        <span className="font-text block truncate">{data.refuted_line}</span>
        <strong className="text-wrong block">{data.refuted}</strong>
      </p>
    </>
  );
}
