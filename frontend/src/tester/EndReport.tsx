import { useMutation } from "@tanstack/react-query";
import { useState, type SyntheticEvent } from "react";
import { client, unwrap } from "../api/client";
import type { EndReport as Report, TesterPage } from "../api/schema";
import { Trouble } from "../ui/Trouble";

type Beside = "gauge_sts" | "gauge_rows" | "grams" | "hours";

/** A field of the report: its key, its label, and what is shown of the report before. */
interface Field {
  key: string;
  label: string;
  before: number | null | undefined;
}

function fieldsOf(page: TesterPage): Field[] {
  const span = page.units === "cm" ? "10 cm" : "4 in";
  const known = (key: Beside) => page.report?.[key];
  const measures = page.asked.map(({ name, label }) => {
    const mm = page.report?.measures_mm[name];
    return {
      key: `of ${name}`,
      label: `${label} (${page.units})`,
      before: mm == null ? null : mm / page.mm_per_unit,
    };
  });
  return [
    { key: "gauge_sts", label: `Stitches over ${span}`, before: known("gauge_sts") },
    { key: "gauge_rows", label: `Rows over ${span}`, before: known("gauge_rows") },
    ...measures,
    { key: "grams", label: "Yarn used (g)", before: known("grams") },
    { key: "hours", label: "Hours (2.5 or 2:30)", before: known("hours") },
  ];
}

/** A number as it was typed, null where nothing was; hours may be written as on a clock. */
function numberIn(typed: string, key: string): number | null {
  const text = typed.trim().replace(",", ".");
  const clock = key === "hours" ? /^(\d{1,3}):([0-5]\d)$/.exec(text) : null;
  if (clock) return Number(clock[1]) + Number(clock[2]) / 60;
  return text === "" ? null : Number(text);
}

/** The report at the end: what her bag has is asked for. Whatever was not measured stays empty. */
export function EndReport({ page, token, onBack }: { page: TesterPage; token: string; onBack: () => void }) {
  const fields = fieldsOf(page);
  const [values, setValues] = useState<Partial<Record<string, string>>>(() =>
    Object.fromEntries(
      fields.map(({ key, before }) => [key, before == null ? "" : String(Number(before.toFixed(1)))]),
    ),
  );
  const [remarks, setRemarks] = useState(page.report?.remarks ?? "");
  const number = (key: string) => numberIn(values[key] ?? "", key);
  const wrong = (key: string) => {
    const value = number(key);
    return value !== null && !(value > 0);
  };
  const send = useMutation({
    mutationFn: () => {
      const measured = page.asked.flatMap(({ name }) => {
        const value = number(`of ${name}`);
        return value === null ? [] : [[name, value * page.mm_per_unit] as const];
      });
      const body: Report = {
        gauge_sts: number("gauge_sts"),
        gauge_rows: number("gauge_rows"),
        measures_mm: Object.fromEntries(measured),
        grams: number("grams"),
        hours: number("hours"),
        remarks,
      };
      return unwrap(client.PUT("/api/t/{token}/report", { params: { path: { token } }, body }));
    },
  });
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    send.mutate();
  };
  return (
    <main className="flex-1 px-4 py-4">
      <h2 className="text-3xl">The bag is done</h2>
      <p className="text-quiet mt-1">Measure it as it lies. Leave empty what you did not measure.</p>
      <form className="mt-4 space-y-3" onSubmit={submit}>
        <div className="grid grid-cols-2 gap-3">
          {fields.map(({ key, label }) => (
            <label key={key} className="flex flex-col justify-end text-sm">
              {label}
              <input
                className="field h-12 text-xl"
                inputMode="decimal"
                value={values[key] ?? ""}
                aria-invalid={wrong(key)}
                onChange={(event) => setValues({ ...values, [key]: event.target.value })}
              />
              {wrong(key) && <span className="text-wrong">Write a number above 0, or leave it empty.</span>}
            </label>
          ))}
        </div>
        <label className="block text-sm">
          Remarks
          <textarea
            className="field text-base"
            rows={4}
            value={remarks}
            onChange={(event) => setRemarks(event.target.value)}
          />
        </label>
        <Trouble error={send.error} />
        {send.isSuccess && (
          <p role="status" className="bg-rill-soft rounded-md px-3 py-2">
            Thank you. The designer has your report; you can still correct it here.
          </p>
        )}
        <div className="flex gap-3">
          <button type="button" className="button-plain h-14" onClick={onBack}>
            Back
          </button>
          <button
            type="submit"
            className="button h-14 flex-1 justify-center text-lg"
            disabled={page.closed || send.isPending || fields.some(({ key }) => wrong(key))}
          >
            {send.isSuccess || page.report ? "Send again" : "Send the report"}
          </button>
        </div>
      </form>
    </main>
  );
}
