import { NavLink } from "react-router";
import type { WorkView } from "../api/schema";
import { useBench } from "./context";

type StoneState = "done" | "attention" | "open";

interface Stone {
  to: string;
  title: string;
  says: (work: WorkView) => string;
  state: (work: WorkView) => StoneState;
}

function span(values: number[]): string {
  const low = Math.min(...values);
  const high = Math.max(...values);
  return low === high ? String(low) : `${low} to ${high}`;
}

const STONES: readonly Stone[] = [
  {
    to: "swatch",
    title: "Swatch",
    says: (work) => (work.gauge ? `${work.gauge.sts} × ${work.gauge.rows}` : "no gauge yet"),
    state: (work) => (work.gauge ? "done" : "attention"),
  },
  {
    to: "sizes",
    title: "Sizes",
    says: (work) => `${work.sizes.length} ${work.sizes.length === 1 ? "size" : "sizes"}`,
    state: (work) => (work.bag.length > 0 ? "done" : "attention"),
  },
  {
    to: "shape",
    title: "Shape",
    says: (work) =>
      `${work.outline.sections.length} ${work.outline.sections.length === 1 ? "piece" : "pieces"}`,
    state: (work) => (work.bag.length > 0 ? "done" : "open"),
  },
  {
    to: "yarn",
    title: "Yarn",
    says: (work) => {
      const balls = work.sizes.map((size) => size.yarn?.balls ?? null).filter((many) => many !== null);
      return balls.length > 0
        ? `${span(balls)} ${Math.max(...balls) === 1 ? "ball" : "balls"}`
        : "not known yet";
    },
    state: (work) => (work.sizes.some((size) => size.yarn?.weighed) ? "done" : "open"),
  },
  {
    to: "words",
    title: "Words",
    says: (work) => `${work.lines.length} lines`,
    state: (work) => (work.ok ? "done" : "attention"),
  },
  { to: "testers", title: "Testers", says: () => "private links", state: () => "open" },
  { to: "parts", title: "Parts", says: () => "crochet-along", state: () => "open" },
];

const FILL: Record<StoneState, string> = { done: "fill-rill", attention: "fill-wrong", open: "fill-line" };
const STATE_TEXT: Record<StoneState, string> = { done: "done", attention: "needs a look", open: "" };

/** The steps of the work, as stepping stones: each shows its state and leads to the next. */
export function Stones() {
  const { work } = useBench();
  return (
    <nav
      aria-label="Steps of the work"
      className="border-line bg-bank relative shrink-0 overflow-auto border-b lg:w-44 lg:border-r lg:border-b-0 lg:py-4"
    >
      <ol className="flex lg:block">
        {STONES.map((stone, index) => {
          const state = work ? stone.state(work) : "open";
          return (
            <li key={stone.to} className="shrink-0">
              <NavLink
                to={`./${stone.to}`}
                className={({ isActive }) =>
                  `flex items-center gap-2.5 px-3 py-2 ${isActive ? "bg-sheet font-semibold" : "hover:bg-paper"}`
                }
              >
                {({ isActive }) => (
                  <>
                    <svg
                      viewBox="0 0 34 24"
                      className={`h-6 w-8.5 shrink-0 ${FILL[state]} ${index % 2 ? "translate-x-1" : "-translate-x-0.5"}`}
                      aria-hidden
                    >
                      <ellipse cx="17" cy="12" rx={isActive ? 15 : 12} ry={isActive ? 9 : 7} />
                    </svg>
                    <span className="min-w-0">
                      <span className="block leading-tight">{stone.title}</span>
                      <span className="text-quiet block truncate text-[13px] font-normal">
                        {work ? stone.says(work) : ""}
                        <span className="sr-only"> {STATE_TEXT[state]}</span>
                      </span>
                    </span>
                  </>
                )}
              </NavLink>
            </li>
          );
        })}
      </ol>
    </nav>
  );
}
