import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { CalendarDays, FileDown } from "lucide-react";
import { client, download, unwrap, whileBusy } from "../../api/client";
import type { BookletSectionView, PartView } from "../../api/schema";
import { useOpenDesign } from "../../bench/context";
import { NumberField } from "../../ui/NumberField";
import { Select } from "../../ui/Select";
import { Trouble } from "../../ui/Trouble";
import { StepHead } from "../StepHead";

function Lines({ sections }: { sections: readonly BookletSectionView[] }) {
  return (
    <div className="font-text space-y-1 text-[15px]">
      {sections.map((section) => (
        <div key={section.title}>
          <h4 className="mt-2 font-semibold">{section.title}</h4>
          {section.lines.map((line, index) => (
            <p key={index} className={line.kind === "sizes" ? "text-quiet italic" : "mt-1"}>
              {line.label && <strong className="font-sans text-sm">{line.label}: </strong>}
              {line.text}
              {line.totals && <strong> — {line.totals}</strong>}
            </p>
          ))}
        </div>
      ))}
    </div>
  );
}

function Part({ part, count, most }: { part: PartView; count: number; most: number }) {
  const design = useOpenDesign();
  const terms = design.document.terms;
  const pdf = useMutation({
    mutationFn: () =>
      download(`/api/parts/${part.number}/pdf`, { document: design.document, terms, size: null }),
  });
  const share = part.sizes.reduce((sum, size) => sum + size.stitches, 0) / most;
  return (
    <article className="sheet p-4" aria-label={`Part ${part.number}`}>
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2 className="text-lg">
          Part {part.number} of {count}: {part.title}
        </h2>
        <p className="text-quiet flex-1 text-sm">
          {new Date(`${part.day}T12:00:00Z`).toLocaleDateString(undefined, {
            weekday: "long",
            day: "numeric",
            month: "long",
            year: "numeric",
          })}
        </p>
        <button type="button" className="button-plain" disabled={pdf.isPending} onClick={() => pdf.mutate()}>
          <FileDown size={16} aria-hidden /> PDF of part {part.number}
        </button>
      </div>
      <div className="bg-bank mt-2 h-1.5 rounded" aria-hidden>
        <div className="bg-rill h-1.5 rounded" style={{ width: `${Math.min(100, share * 100)}%` }} />
      </div>
      <div className="mt-3 grid gap-5 lg:grid-cols-[1fr_1.2fr]">
        <div className="text-sm">
          <h3 className="text-[15px]">Needs</h3>
          <ul className="list-disc pl-5">
            {part.needs.map((need) => (
              <li key={need}>{need}</li>
            ))}
          </ul>
        </div>
        <div className="text-sm">
          <h3 className="text-[15px]">Checkpoint: the work now</h3>
          <table className="numbers text-sm">
            <thead>
              <tr>
                <td />
                {part.sizes.map((size) => (
                  <th key={size.name} scope="col" className="px-1">
                    {size.name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              <tr>
                <th scope="row">Stitches</th>
                {part.sizes.map((size) => (
                  <td key={size.name} className="font-semibold">
                    {size.sts ?? "–"}
                  </td>
                ))}
              </tr>
              <tr>
                <th scope="row">Width, lying flat</th>
                {part.sizes.map((size) => (
                  <td key={size.name}>{size.width ?? "–"}</td>
                ))}
              </tr>
              <tr>
                <th scope="row">Height so far</th>
                {part.sizes.map((size) => (
                  <td key={size.name}>{size.height ?? "–"}</td>
                ))}
              </tr>
              <tr>
                <th scope="row">Each side</th>
                {part.sizes.map((size) => (
                  <td key={size.name}>{size.half ?? "–"}</td>
                ))}
              </tr>
              <tr>
                <th scope="row">Stitches in this part</th>
                {part.sizes.map((size) => (
                  <td key={size.name}>{size.stitches}</td>
                ))}
              </tr>
            </tbody>
          </table>
        </div>
      </div>
      <details className="mt-1">
        <summary className="text-rill cursor-pointer text-sm font-medium">Its lines</summary>
        <Lines sections={part.sections} />
      </details>
      <Trouble error={pdf.error} />
    </article>
  );
}

export function PartsStep() {
  const design = useOpenDesign();
  const { parts: plan, terms } = design.document;
  const body = { document: design.document, terms, size: null };
  const parts = useQuery({
    queryKey: ["parts", design.document],
    queryFn: () => unwrap(client.POST("/api/parts", { body })),
    placeholderData: keepPreviousData,
    retry: whileBusy,
  });
  const calendar = useMutation({ mutationFn: () => download("/api/parts/calendar", body) });
  const list = parts.error ? [] : (parts.data?.parts ?? []);
  const most = Math.max(1, ...list.map((part) => part.sizes.reduce((sum, size) => sum + size.stitches, 0)));
  const set = (change: Partial<typeof plan>) =>
    design.change("parts", (d) => ({ ...d, parts: { ...d.parts, ...change } }));
  return (
    <>
      <StepHead title="Parts">
        The pattern as a crochet-along: dated parts that end between two rounds, balanced by stitches, each
        with its checkpoint.
      </StepHead>
      <div className="mb-3 flex flex-wrap items-end gap-4">
        <Select label="Parts" value={String(plan.count)} onChange={(value) => set({ count: Number(value) })}>
          {[2, 3, 4, 5, 6].map((count) => (
            <option key={count}>{count}</option>
          ))}
        </Select>
        <label>
          <span className="text-quiet block text-[13px]">First part on</span>
          <input
            type="date"
            className="field"
            value={plan.start}
            onChange={(event) => event.target.value && set({ start: event.target.value })}
          />
        </label>
        <NumberField
          className="w-32"
          label="Days between"
          digits={0}
          value={plan.every_days}
          onChange={(value) => set({ every_days: value })}
        />
        <button
          type="button"
          className="button-plain"
          disabled={calendar.isPending}
          onClick={() => calendar.mutate()}
        >
          <CalendarDays size={16} aria-hidden /> Calendar file
        </button>
      </div>
      <Trouble error={parts.error ?? calendar.error} />
      <div className="space-y-3">
        {list.map((part) => (
          <Part key={part.number} part={part} count={list.length} most={most} />
        ))}
      </div>
    </>
  );
}
