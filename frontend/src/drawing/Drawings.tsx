import { useState } from "react";
import type { GhostView, ViewOfSizes } from "../api/schema";
import { useOpenDesign, useSelection } from "../bench/context";
import { Choice } from "../ui/Choice";
import { Sideways } from "../ui/Sideways";
import { described, Outlines, type Shown } from "./Outlines";
import { useDrawings } from "./useDrawings";

type Way = "beside" | "over";

function shownOf(view: ViewOfSizes, names: readonly string[]): Shown[] {
  return view.sizes.flatMap((drawing, index) =>
    drawing ? [{ drawing, index, name: names[index] ?? "" }] : [],
  );
}

function Caption({ shown }: { shown: Shown }) {
  const { drawing, name } = shown;
  return (
    <figcaption className="mt-1 text-center text-sm">
      <span className="block font-semibold break-words">{name}</span>
      <span className="text-quiet tabular block text-[13px]">
        {drawing.spans.map((span) => span.text).join(" × ") || "–"}
        {drawing.many > 1 && ` · make ${drawing.many}`}
      </span>
    </figcaption>
  );
}

/** The bag to scale from its worked rounds: one view at a time, in all sizes, beside or over each other. */
export function Drawings({ ghost, height = 210 }: { ghost?: readonly GhostView[]; height?: number }) {
  const design = useOpenDesign();
  const { selection, select } = useSelection();
  const { data, stale } = useDrawings(design.document);
  const [chosen, setChosen] = useState("");
  const [way, setWay] = useState<Way>("beside");
  if (!data) return null;
  if (data.problem !== null || data.views.length === 0)
    return (
      <p className="text-quiet mb-3 text-sm">
        {data.problem ?? "Nothing is drawn: it is not known how the pieces of this bag are joined."}
      </p>
    );
  const view = data.views.find((each) => each.title === chosen) ?? data.views[0];
  if (!view) return null;
  const shown = shownOf(view, data.sizes);
  const line = selection?.line ?? null;
  const onSelect = (at: number) => select({ line: at });
  const notes = [
    ...new Set(shown.flatMap(({ drawing }) => drawing.notes)),
    ...(shown.some(({ drawing }) => drawing.estimated)
      ? ["≈ is estimated: a stitch in it has no gauge of its own."]
      : []),
  ];
  const ghostly = ghost?.find((each) => each.title === view.title)?.d;
  return (
    <section aria-label="Drawings" className={`sheet mb-4 p-3 ${stale ? "opacity-60" : ""}`}>
      <div className="mb-2 flex flex-wrap items-end gap-x-5 gap-y-2">
        <div role="group" aria-label="View" className="flex flex-wrap gap-1">
          {data.views.map((each) => (
            <button
              key={each.title}
              type="button"
              aria-pressed={each === view}
              className={`rounded px-2 py-0.5 text-sm ${each === view ? "bg-mark-soft font-semibold" : "hover:bg-bank"}`}
              onClick={() => setChosen(each.title)}
            >
              {each.title}
            </button>
          ))}
        </div>
        {data.sizes.length > 1 && (
          <Choice
            label="Sizes"
            value={way}
            options={[
              ["beside", "beside each other"],
              ["over", "over each other"],
            ]}
            onChange={setWay}
          />
        )}
      </div>
      {way === "over" && shown.length > 1 ? (
        <figure>
          <div style={{ height }}>
            <Outlines
              view={view}
              shown={shown}
              count={data.sizes.length}
              line={line}
              ghost={ghostly}
              label={shown.map((one) => described(view, one)).join("; ")}
              onSelect={onSelect}
            />
          </div>
          <div className="mt-1 flex flex-wrap justify-center gap-x-6">
            {shown.map((one) => (
              <Caption key={one.index} shown={one} />
            ))}
          </div>
        </figure>
      ) : (
        <Sideways label="The sizes side by side">
          <div className="flex justify-center gap-3">
            {shown.map((one) => (
              <figure key={one.index} className="min-w-24 flex-1">
                <div style={{ height }}>
                  <Outlines
                    view={view}
                    shown={[one]}
                    count={data.sizes.length}
                    line={line}
                    ghost={one.index === 0 ? ghostly : undefined}
                    label={described(view, one)}
                    onSelect={onSelect}
                  />
                </div>
                <Caption shown={one} />
              </figure>
            ))}
          </div>
        </Sideways>
      )}
      {notes.length > 0 && <p className="text-quiet mt-1 text-[13px]">{notes.join(" ")}</p>}
    </section>
  );
}
