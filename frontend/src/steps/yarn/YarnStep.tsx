import { scaleLinear } from "d3-scale";
import { Link } from "react-router";
import type { ColourYarnView, YarnView } from "../../api/schema";
import { useBench } from "../../bench/context";
import { shadeOf } from "../../drawing/scale";
import { SizeColumns } from "../../drawing/SizeColumns";
import { StepHead } from "../StepHead";
import { Answers } from "./Answers";
import { Extras } from "./Extras";
import { OtherYarn } from "./OtherYarn";
import { Weighings } from "./Weighings";

/** Estimated grams as a bar with its interval; whole balls as dotted lines. */
function Interval({
  yarn,
  most,
  ball,
  color,
}: {
  yarn: YarnView;
  most: number;
  ball: number;
  color: string;
}) {
  const y = scaleLinear([0, most], [286, 8]);
  const balls = Array.from({ length: Math.floor(most / ball) }, (_, index) => (index + 1) * ball);
  return (
    <svg viewBox="0 0 120 292" className="mx-auto h-56 w-full" aria-hidden>
      <rect x={40} width={40} y={y(yarn.grams)} height={y(0) - y(yarn.grams)} rx={3} fill={color} />
      {balls.map((grams, index) => (
        <g key={grams}>
          <line x1={14} x2={106} y1={y(grams)} y2={y(grams)} stroke="var(--quiet)" strokeDasharray="2 4" />
          <text x={10} y={y(grams) + 4} fontSize={12} textAnchor="end" fill="var(--quiet)">
            {index + 1}
          </text>
        </g>
      ))}
      <line x1={14} x2={106} y1={y(0)} y2={y(0)} stroke="var(--quiet)" />
      <path
        d={`M 50 ${y(yarn.high_g)} H 70 M 60 ${y(yarn.high_g)} V ${y(yarn.low_g)} M 50 ${y(yarn.low_g)} H 70`}
        stroke="var(--mark)"
        strokeWidth={3}
        strokeLinecap="round"
        fill="none"
      />
    </svg>
  );
}

/** What an estimate lacks: it is not made from usual values of another bag. */
function NotKnown({ problem }: { problem: string }) {
  return (
    <>
      <StepHead title="Yarn" next={{ to: "words", title: "Words" }}>
        From the stitches of each size.
      </StepHead>
      <p className="sheet max-w-xl p-4">
        Yarn is not estimated yet. {problem}{" "}
        <Link className="underline" to="../swatch">
          Say it under Swatch
        </Link>
        .
      </p>
    </>
  );
}

/** How likely the drawer is enough, at a glance. */
function Drawer({ colour }: { colour: ColourYarnView | undefined }) {
  if (!colour || colour.have_g === null || colour.enough === null) return <>–</>;
  const { lasts } = colour;
  return (
    <span
      className={`font-semibold ${lasts === "likely" ? "text-sound" : lasts === "maybe" ? "text-warn" : "text-wrong"}`}
    >
      {lasts === "likely" ? "✓" : "✗"} {colour.have_g} g
      <span className="block text-[13px] font-normal">enough in {colour.enough} of 100 bags</span>
    </span>
  );
}

export function YarnStep() {
  const { work } = useBench();
  if (!work) return null;
  const { problem } = work.yarn;
  const yarns = work.sizes.map((size) => size.yarn);
  if (problem || yarns.every((yarn) => yarn === null))
    return <NotKnown problem={problem || "Nothing that is worked is known yet: see the findings."} />;
  const most = Math.max(1, ...yarns.map((yarn) => yarn?.high_g ?? 0)) * 1.05;
  const colours = [...new Set(yarns.flatMap((yarn) => yarn?.colours.map((one) => one.colour) ?? []))];
  const pieces = [...new Set(yarns.flatMap((yarn) => yarn?.pieces.map((one) => one.piece) ?? []))];
  const cells = (show: (yarn: YarnView) => React.ReactNode, className = "") =>
    yarns.map((y, index) => (
      <td key={index} className={className}>
        {y ? show(y) : "–"}
      </td>
    ));
  const of = (yarn: YarnView, colour: string) => yarn.colours.find((one) => one.colour === colour);
  const nameOf = (colour: string) => {
    const one = yarns.flatMap((yarn) => yarn?.colours ?? []).find((each) => each.colour === colour);
    return one ? `${one.colour ? `${one.colour}: ` : ""}${one.yarn}` : colour;
  };
  const ball = yarns.find((yarn) => yarn !== null)?.colours[0]?.grams_per_ball ?? 100;
  const once = [...new Set(yarns.flatMap((yarn) => yarn?.once ?? []))];
  const missing = [...new Set(yarns.flatMap((yarn) => yarn?.missing ?? []))];
  const within = [...new Set(yarns.flatMap((yarn) => yarn?.within ?? []))];
  const basis = (piece: string) =>
    yarns.flatMap((yarn) => yarn?.pieces ?? []).find((one) => one.piece === piece)?.basis ?? "";
  return (
    <>
      <StepHead title="Yarn" next={{ to: "words", title: "Words" }}>
        From the stitches of each size. Balls cover what another maker may need.
      </StepHead>
      <Answers answers={work.yarn} />
      {yarns.some((yarn) => yarn !== null && !yarn.weighed) && (
        <p className="bg-mark-soft mb-3 rounded-md px-3 py-2 text-sm">
          Nothing was weighed yet, so these are usual values and the intervals are wide.{" "}
          <Link className="underline" to="../swatch">
            Weigh a swatch
          </Link>
          , or a piece of the bag below.
        </p>
      )}
      <SizeColumns caption="Yarn for each size">
        {colours.map((colour) => (
          <tr key={colour}>
            <th scope="row">
              {colours.length > 1 ? nameOf(colour) : `Balls of ${ball} g`}
              <span className="block">{colours.length > 1 ? "balls, one dye lot" : "buy one dye lot"}</span>
            </th>
            {cells((y) => of(y, colour)?.balls ?? "–", "text-3xl font-semibold font-text")}
          </tr>
        ))}
        {work.yarn.in_drawer &&
          colours.map((colour) => (
            <tr key={colour}>
              <th scope="row">In the drawer{colours.length > 1 ? `: ${nameOf(colour)}` : ""}</th>
              {cells((y) => (
                <Drawer colour={of(y, colour)} />
              ))}
            </tr>
          ))}
        <tr>
          <th scope="row" className="align-bottom">
            Estimate and interval
            {colours.length === 1 && <span className="block">dotted: whole balls</span>}
          </th>
          {yarns.map((yarn, index) => (
            <td key={index}>
              {yarn && (
                <Interval
                  yarn={yarn}
                  most={most}
                  ball={colours.length === 1 ? ball : Infinity}
                  color={shadeOf(index, yarns.length)}
                />
              )}
            </td>
          ))}
        </tr>
        <tr>
          <th scope="row">Grams</th>
          {cells((y) => `${y.grams} g`, "font-semibold")}
        </tr>
        <tr>
          <th scope="row">
            9 of 10 bags need
            <span className="block">whoever makes them</span>
          </th>
          {cells((y) => `${y.low_g} to ${y.high_g} g`)}
        </tr>
        <tr>
          <th scope="row">
            In your own hand
            <span className="block">9 of 10</span>
          </th>
          {cells((y) => `${y.own_low_g} to ${y.own_high_g} g`)}
        </tr>
        {colours.map((colour) => (
          <tr key={colour}>
            <th scope="row">
              {colours.length > 1 ? nameOf(colour) : "Metres"}
              {colours.length > 1 && <span className="block">grams and metres</span>}
            </th>
            {cells((y) => {
              const one = of(y, colour);
              if (!one) return "–";
              return colours.length > 1 ? `${one.grams} g, ${one.metres} m` : `${one.metres} m`;
            })}
          </tr>
        ))}
        <tr>
          <th scope="row">The last ball leaves</th>
          {cells((y) => y.colours.map((one) => `${one.left_g} g`).join(", "))}
        </tr>
        {pieces.map((piece) => (
          <tr key={piece}>
            <th scope="row">
              {piece}
              <span className="block">{basis(piece)}</span>
            </th>
            {cells((y) => {
              const one = y.pieces.find((each) => each.piece === piece);
              return one ? `${one.grams} g` : "–";
            })}
          </tr>
        ))}
      </SizeColumns>
      {work.yarn.tighter !== null && (
        <p className="text-quiet mt-2 text-sm">
          A gauge a twentieth tighter takes about {work.yarn.tighter} % more yarn for the same centimetres,
          and as much less for the same counts.
        </p>
      )}
      {missing.length > 0 && (
        <p role="status" className="text-warn mt-2 text-sm">
          Not in these balls: {missing.join(", ")}. Some of {missing.length === 1 ? "its" : "their"} rows are
          not understood or do not come out.
        </p>
      )}
      {once.length > 0 && (
        <p role="status" className="text-warn mt-2 text-sm">
          {once.join(", ")}: made several times, and the text does not say which of the pieces below belong to
          it. Each of them is counted once in these balls: write “make 2” behind the title of each piece.
        </p>
      )}
      {within.length > 0 && (
        <p className="text-warn mt-2 text-sm">
          The colour changes within {within.length === 1 ? "line" : "lines"} {within.join(", ")}; it is not
          followed there, and counted as the colour that the line begins with.
        </p>
      )}
      <Weighings work={work} />
      <Extras work={work} />
      <OtherYarn work={work} />
    </>
  );
}
