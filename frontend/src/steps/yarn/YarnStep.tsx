import { scaleLinear } from "d3-scale";
import { Link } from "react-router";
import type { YarnView } from "../../api/schema";
import { useBench } from "../../bench/context";
import { shadeOf } from "../../drawing/scale";
import { SizeColumns } from "../../drawing/SizeColumns";
import { StepHead } from "../StepHead";

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
    <svg viewBox="0 0 120 292" className="mx-auto h-73 w-full" aria-hidden>
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
function NotKnown({ gauge }: { gauge: boolean }) {
  return (
    <>
      <StepHead title="Yarn" next={{ to: "words", title: "Words" }}>
        From the stitches of each size.
      </StepHead>
      <p className="sheet max-w-xl p-4">
        Yarn is not estimated yet:{" "}
        {gauge ? "it is not known what the label of the yarn says" : "the text names no gauge"}.{" "}
        <Link className="underline" to="../swatch">
          Say it under Swatch
        </Link>
        .
      </p>
    </>
  );
}

export function YarnStep() {
  const { design, work } = useBench();
  const yarns = work?.sizes.map((size) => size.yarn) ?? [];
  const most = Math.max(1, ...yarns.map((yarn) => yarn?.high_g ?? 0)) * 1.05;
  const { yarn } = design.document;
  if (!work) return null;
  if (!yarn || !work.gauge) return <NotKnown gauge={work.gauge !== null} />;
  const cells = (show: (yarn: YarnView) => React.ReactNode, className = "") =>
    yarns.map((y, index) => (
      <td key={index} className={className}>
        {y && show(y)}
      </td>
    ));
  return (
    <>
      <StepHead title="Yarn" next={{ to: "words", title: "Words" }}>
        From the stitches of each size. Balls are whole, and cover the upper end of the estimate.
      </StepHead>
      {work.gauge.yarn_correction === null && (
        <p className="bg-mark-soft mb-3 rounded-md px-3 py-2 text-sm">
          The swatch was not weighed, so these are usual values and the intervals are wide.{" "}
          <Link className="underline" to="../swatch">
            Weigh it
          </Link>{" "}
          and they shrink to about a third.
        </p>
      )}
      <SizeColumns caption="Yarn for each size">
        <tr>
          <th scope="row">
            Balls of {yarn.grams_per_ball} g<span className="block">buy one dye lot</span>
          </th>
          {cells((y) => y.balls, "text-3xl font-semibold font-text")}
        </tr>
        <tr>
          <th scope="row" className="align-bottom">
            Estimate and interval
            <span className="block">dotted: whole balls</span>
          </th>
          {cells((y) => {
            const index = yarns.indexOf(y);
            return (
              <Interval
                yarn={y}
                most={most}
                ball={yarn.grams_per_ball}
                color={shadeOf(index, yarns.length)}
              />
            );
          })}
        </tr>
        <tr>
          <th scope="row">Grams</th>
          {cells((y) => `${y.grams} g`, "font-semibold")}
        </tr>
        <tr>
          <th scope="row">9 of 10 bags need</th>
          {cells((y) => `${y.low_g} to ${y.high_g} g`)}
        </tr>
        <tr>
          <th scope="row">Metres</th>
          {cells((y) => `${y.metres} m`)}
        </tr>
      </SizeColumns>
      <p className="text-quiet mt-3 text-sm">
        Worked, joins, chains, tails and 2 % waste are in it; seams and lining are not.{" "}
        {yarn.strands > 1 && `For ${yarn.strands} strands held together, all counted.`}
      </p>
    </>
  );
}
