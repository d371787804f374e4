import { useMutation } from "@tanstack/react-query";
import { useState, type SyntheticEvent } from "react";
import { client, unwrap } from "../api/client";
import type { EndReport as Report, TesterPage } from "../api/schema";
import { Trouble } from "../ui/Trouble";

type Key = "gauge_sts" | "gauge_rows" | "width_mm" | "height_mm" | "depth_mm" | "drop_mm" | "grams" | "hours";

function fields(units: string): readonly (readonly [Key, string, boolean])[] {
  const span = units === "cm" ? "10 cm" : "4 in";
  return [
    ["gauge_sts", `Stitches over ${span}`, false],
    ["gauge_rows", `Rows over ${span}`, false],
    ["width_mm", `Width, lying flat (${units})`, true],
    ["height_mm", `Height without handles (${units})`, true],
    ["depth_mm", `Depth of the base (${units})`, true],
    ["drop_mm", `Drop of the handles (${units})`, true],
    ["grams", "Yarn used (g)", false],
    ["hours", "Hours (2.5 or 2:30)", false],
  ];
}

/** The report at the end. Whatever was not measured stays empty. */
export function EndReport({ page, token, onBack }: { page: TesterPage; token: string; onBack: () => void }) {
  const per = page.units === "cm" ? 10 : 25.4;
  const before = page.report;
  const [values, setValues] = useState<Partial<Record<Key, string>>>(() =>
    Object.fromEntries(
      fields(page.units).map(([key, , length]) => {
        const value = before?.[key];
        return [key, value == null ? "" : String(Number((length ? value / per : value).toFixed(1)))];
      }),
    ),
  );
  const [remarks, setRemarks] = useState(before?.remarks ?? "");
  const number = (key: Key) => {
    const text = (values[key] ?? "").trim().replace(",", ".");
    const clock = key === "hours" ? /^(\d{1,3}):([0-5]\d)$/.exec(text) : null;
    if (clock) return Number(clock[1]) + Number(clock[2]) / 60;
    return text === "" ? null : Number(text);
  };
  const wrong = (key: Key) => {
    const value = number(key);
    return value !== null && !(value > 0);
  };
  const send = useMutation({
    mutationFn: () => {
      const length = (key: Key) => {
        const value = number(key);
        return value === null ? null : value * per;
      };
      const body: Report = {
        gauge_sts: number("gauge_sts"),
        gauge_rows: number("gauge_rows"),
        width_mm: length("width_mm"),
        height_mm: length("height_mm"),
        depth_mm: length("depth_mm"),
        drop_mm: length("drop_mm"),
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
          {fields(page.units).map(([key, label]) => (
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
            disabled={page.closed || send.isPending || fields(page.units).some(([key]) => wrong(key))}
          >
            {send.isSuccess || before ? "Send again" : "Send the report"}
          </button>
        </div>
      </form>
    </main>
  );
}
