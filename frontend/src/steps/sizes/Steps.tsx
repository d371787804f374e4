import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, unwrap } from "../../api/client";
import type { GradingView } from "../../api/schema";
import { useBench, useOpenDesign } from "../../bench/context";
import { useGrading } from "../../bench/useGrading";
import { Trouble } from "../../ui/Trouble";
import { sizesOfText, withWish, type Column } from "./wishes";

/** Sizes as steps along the ways of growth: the numbers that a way moves are locked in the size. */
export function Steps({ columns, start }: { columns: readonly Column[]; start: string }) {
  const [open, setOpen] = useState(false);
  return (
    <tbody>
      <tr>
        <th scope="row">
          <button
            type="button"
            className="button-bare px-0"
            aria-expanded={open}
            onClick={() => setOpen(!open)}
          >
            {open ? "Not as steps" : "Or as steps of growth…"}
          </button>
        </th>
        <td colSpan={columns.length} className="text-quiet text-left text-[13px]">
          {open && "So many steps from the sample, along the ways in which this bag grows."}
        </td>
      </tr>
      {open && <Ways columns={columns} start={start} />}
    </tbody>
  );
}

/** The steps that the locks of a size stand for: of each way, by the first number that it moves. */
function stepsOf(grading: GradingView, column: Column, way: number): number | null {
  const own = grading.ways[way];
  const names = Object.keys(own?.step ?? {});
  const name = names.find((each) => column.wish.locks[each] !== undefined);
  const step = name === undefined ? undefined : own?.step[name];
  const number = grading.numbers.find((each) => each.name === name);
  const base = number?.values[grading.sizes.indexOf(grading.sample)];
  const locked = name === undefined ? undefined : column.wish.locks[name];
  if (step === undefined || base === undefined || locked === undefined) return null;
  const many = (locked - base) / step;
  return Number.isInteger(many) ? many : null;
}

function Ways({ columns, start }: { columns: readonly Column[]; start: string }) {
  const design = useOpenDesign();
  const { work } = useBench();
  const { data: grading, busy, error, again } = useGrading(design.document);
  const [problem, setProblem] = useState("");
  const queries = useQueryClient();
  const set = useMutation({
    mutationFn: ({ steps }: { column: Column; steps: number[] }) =>
      unwrap(client.POST("/api/grading/steps", { body: { document: design.document, steps } })),
    onSuccess: (answer, { column }) => {
      setProblem(answer.problem ?? "");
      if (answer.problem !== null) return;
      const inText = sizesOfText(design.document, work);
      design.change("", (d) =>
        withWish(d, inText, column.wish.name, (wish) => ({ ...wish, locks: answer.locks })),
      );
      void queries.invalidateQueries({ queryKey: ["graded"] });
    },
  });
  if (!grading)
    return (
      <tr>
        <td colSpan={columns.length + 1} className="text-left text-sm">
          {busy ? "Finding how this bag can grow…" : ""}
          <Trouble error={error} again={again} />
        </td>
      </tr>
    );
  if (grading.problem !== null)
    return (
      <tr>
        <td colSpan={columns.length + 1} className="text-left text-sm">
          {grading.problem}
        </td>
      </tr>
    );
  const submit = (column: Column, way: number, typed: string) => {
    const many = Number(typed);
    if (typed.trim() === "" || !Number.isInteger(many) || many === stepsOf(grading, column, way)) return;
    const steps = grading.ways.map((_, at) => (at === way ? many : (stepsOf(grading, column, at) ?? 0)));
    set.mutate({ column, steps });
  };
  return (
    <>
      {grading.ways.map((way, at) => (
        <tr key={way.label}>
          <th scope="row">{way.label}</th>
          {columns.map((column) => (
            <td key={column.wish.name}>
              {column.wish.name === start ? (
                "0"
              ) : (
                <input
                  key={stepsOf(grading, column, at)}
                  className="field mx-auto w-20 text-center"
                  aria-label={`${way.label}, steps of ${column.wish.name}`}
                  inputMode="numeric"
                  defaultValue={stepsOf(grading, column, at) ?? ""}
                  onKeyDown={(event) => {
                    if (event.key === "Enter") submit(column, at, event.currentTarget.value);
                  }}
                  onBlur={(event) => submit(column, at, event.target.value)}
                />
              )}
            </td>
          ))}
        </tr>
      ))}
      {problem && (
        <tr>
          <td colSpan={columns.length + 1} className="text-left text-sm">
            <span role="alert" className="text-wrong">
              {problem}
            </span>
          </td>
        </tr>
      )}
    </>
  );
}
