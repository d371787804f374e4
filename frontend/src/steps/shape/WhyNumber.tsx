import { Lock, LockOpen } from "lucide-react";
import { Link } from "react-router";
import { useBench, useOpenDesign } from "../../bench/context";
import { useGrading } from "../../bench/useGrading";
import { Card } from "../../ui/Card";
import { sizesOfText, withLock } from "../sizes/wishes";
import { Naming } from "./Naming";

/** Why a number of a text is what it is in one size: what moves it and what it moves; it can be locked. */
export function WhyNumber({ name, size: at }: { name: string; size: number }) {
  const design = useOpenDesign();
  const { work } = useBench();
  const { data: grading } = useGrading(design.document);
  const number = grading?.numbers.find((each) => each.name === name);
  const size = grading?.sizes[at];
  const value = number?.values[at];
  if (!grading || !number || size === undefined || value === undefined) return null;
  const inText = sizesOfText(design.document, work);
  const locked = design.document.sizes.find((wish) => wish.name === size)?.locks[name];
  const lock = (to: number | null) => design.change("", (d) => withLock(d, inText, size, name, to));
  const ways = number.ways.map((index) => grading.ways[index]).filter((way) => way !== undefined);
  return (
    <Card title={`${name}: ${value} in ${size}`}>
      {size === grading.sample ? (
        <p>This is the sample: its numbers are yours.</p>
      ) : (
        <p>It came from the sample’s {number.values[grading.sizes.indexOf(grading.sample)]}.</p>
      )}
      {ways.map((way) => (
        <div key={way.label} className="mt-1.5">
          <p>
            One step: <strong>{way.label}</strong>
            {way.moves.length > 0 && "."}
          </p>
          <ul className="text-quiet">
            {way.moves.slice(0, 5).map((move) => (
              <li key={move.name}>
                {move.piece ? `${move.piece}: ` : ""}
                {move.label} {move.shown}
              </li>
            ))}
          </ul>
          {way.multiple && <p className="mt-1">Why no smaller? {way.multiple}</p>}
        </div>
      ))}
      {ways.length === 0 && (
        <p className="mt-1.5">Nothing moves it: {number.reason ?? "no step comes out."}</p>
      )}
      {locked !== undefined && locked !== value && (
        <p className="mt-1.5">
          Locked at {locked}; the text still has {value}. Grade again under{" "}
          <Link className="underline" to="sizes">
            Sizes
          </Link>
          .
        </p>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        {locked === undefined ? (
          <button type="button" className="button-plain" onClick={() => lock(value)}>
            <Lock size={15} aria-hidden /> Lock {value}
          </button>
        ) : (
          <button type="button" className="button-plain" onClick={() => lock(null)}>
            <LockOpen size={15} aria-hidden /> Free it again
          </button>
        )}
        {grading.named && (
          <Link to="words?view=edit" className="button-bare">
            Show in the text
          </Link>
        )}
      </div>
      {grading.named && <Naming number={number} grading={grading} />}
    </Card>
  );
}
