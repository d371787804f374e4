import { useMutation, useQuery } from "@tanstack/react-query";
import { useState, type SyntheticEvent } from "react";
import { client, unwrap } from "../../api/client";
import type { ThingView } from "../../api/schema";
import { useBench, useOpenDesign } from "../../bench/context";
import { Dialog } from "../../ui/Dialog";
import { Trouble } from "../../ui/Trouble";
import { perUnit } from "../units";
import { sizesOfText, withTargets, type Column } from "./wishes";

const OWN = "own";

/** The dimensions of a thing of one's own that a size must hold. */
function OwnThing({ onThing, onClose }: { onThing: (thing: ThingView) => void; onClose: () => void }) {
  const design = useOpenDesign();
  const per = perUnit(design.document);
  const { units } = design.document;
  const ask = useMutation({
    mutationFn: (query: { width_mm: number; height_mm: number; depth_mm: number }) =>
      unwrap(client.GET("/api/things/own", { params: { query } })),
    onSuccess: onThing,
  });
  const submit = (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    const data = new FormData(event.currentTarget);
    const mm = (name: string) => {
      const value = data.get(name);
      return per * Number(typeof value === "string" ? value.replace(",", ".") : 0);
    };
    ask.mutate({ width_mm: mm("width"), height_mm: mm("height"), depth_mm: mm("depth") });
  };
  return (
    <Dialog title="What must it hold?" open onClose={onClose}>
      <form onSubmit={submit}>
        <p className="text-quiet text-sm">As it stands in the bag. Room to put a hand in is added.</p>
        <div className="mt-3 flex gap-3">
          {(["width", "depth", "height"] as const).map((name) => (
            <label key={name}>
              <span className="text-quiet text-[13px]">
                {{ width: "wide", depth: "deep", height: "high" }[name]} ({units})
              </span>
              <input
                name={name}
                className="field text-center"
                inputMode="decimal"
                required
                pattern="[0-9]+([.,][0-9]+)?"
                title="a number, such as 12 or 4.5"
              />
            </label>
          ))}
        </div>
        <Trouble error={ask.error} />
        <button type="submit" className="button mt-4" disabled={ask.isPending}>
          It must hold this
        </button>
      </form>
    </Dialog>
  );
}

function MustHold({ column }: { column: Column }) {
  const design = useOpenDesign();
  const { work } = useBench();
  const [own, setOwn] = useState(false);
  const things = useQuery({
    queryKey: ["things"],
    queryFn: () => unwrap(client.GET("/api/things")),
    staleTime: Infinity,
  });
  const { name } = column.wish;
  const known = new Set((work?.bag ?? []).map((measure) => measure.name));
  const take = (thing: ThingView) => {
    const targets = Object.fromEntries(
      Object.entries(thing.targets_mm).filter(([measure]) => known.has(measure)),
    );
    design.change("", (d) => withTargets(d, sizesOfText(d, work), name, targets));
  };
  return (
    <>
      <select
        className="field text-[13px]"
        aria-label={`What ${name} must hold`}
        value=""
        onChange={(event) => {
          const thing = things.data?.find((each) => each.key === event.target.value);
          if (event.target.value === OWN) setOwn(true);
          else if (thing) take(thing);
        }}
      >
        <option value="">choose…</option>
        {things.data?.map((thing) => (
          <option key={thing.key} value={thing.key}>
            {thing.name}
          </option>
        ))}
        <option value={OWN}>a thing of my own…</option>
      </select>
      {own && (
        <OwnThing
          onThing={(thing) => {
            take(thing);
            setOwn(false);
          }}
          onClose={() => setOwn(false)}
        />
      )}
    </>
  );
}

/** Width and height as a share of the sample's. */
function ShareOfSample({ column, start }: { column: Column; start: number }) {
  const design = useOpenDesign();
  const { work } = useBench();
  const { name } = column.wish;
  const take = (text: string) => {
    const share = Number(text.replace(",", ".").replace("%", ""));
    if (!(share >= 10 && share <= 1000)) return;
    const targets: Record<string, number> = {};
    for (const measure of work?.bag ?? []) {
      const mm = measure.mm[start];
      if (measure.piece === null && (measure.name === "width" || measure.name === "height") && mm)
        targets[measure.name] = (mm * share) / 100;
    }
    design.change("", (d) => withTargets(d, sizesOfText(d, work), name, targets));
  };
  return (
    <input
      className="field mx-auto w-20 text-center"
      aria-label={`${name} in per cent of the sample`}
      placeholder="%"
      inputMode="decimal"
      onKeyDown={(event) => {
        if (event.key === "Enter") take(event.currentTarget.value);
      }}
      onBlur={(event) => {
        take(event.target.value);
        event.target.value = "";
      }}
    />
  );
}

/** What a size must hold, or its share of the sample: they set its targets. */
export function Contents({ columns, start }: { columns: readonly Column[]; start: string }) {
  const { work } = useBench();
  if (!work?.bag.some((measure) => measure.piece === null && measure.name === "width")) return null;
  const at = columns.find((column) => column.wish.name === start)?.at ?? 0;
  return (
    <tbody>
      <tr>
        <th scope="row">
          Must hold
          <span className="block">sets the measures below</span>
        </th>
        {columns.map((column) => (
          <td key={column.wish.name}>{column.wish.name !== start && <MustHold column={column} />}</td>
        ))}
      </tr>
      <tr>
        <th scope="row">Or of the sample (%)</th>
        {columns.map((column) => (
          <td key={column.wish.name}>
            {column.wish.name === start ? "100 %" : <ShareOfSample column={column} start={at} />}
          </td>
        ))}
      </tr>
    </tbody>
  );
}

// The largest ones tell the most.
const SHOWN = 3;

/** What fits in each size as it is. */
export function Holds({ columns }: { columns: readonly Column[] }) {
  const { work } = useBench();
  if (!work?.sizes.some((size) => size.holds.length > 0)) return null;
  return (
    <tbody>
      <tr>
        <th scope="row">It holds</th>
        {columns.map((column) => {
          const holds = column.at < 0 ? [] : (work.sizes[column.at]?.holds ?? []);
          const more = holds.length - SHOWN;
          return (
            <td
              key={column.wish.name}
              className="text-quiet max-w-0 py-1 text-[13px] leading-snug"
              title={holds.join(", ")}
            >
              {holds.slice(0, SHOWN).join(", ") || (column.at < 0 ? "" : "–")}
              {more > 0 && <span className="block">and {more} more</span>}
            </td>
          );
        })}
      </tr>
    </tbody>
  );
}
