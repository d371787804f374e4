import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { client, unwrap } from "../api/client";
import type { TesterPage as Page } from "../api/schema";
import { Trouble } from "../ui/Trouble";
import { EndReport } from "./EndReport";
import { Facts } from "./Facts";
import { pictureOf } from "./picture";
import { LineTrouble } from "./LineTrouble";
import { usePlace } from "./usePlace";

/** A tester's page, on a phone beside the work: one line at a time. */
export function TesterPage() {
  const token = useParams()["token"] ?? "";
  const page = useQuery({
    queryKey: ["tester", token],
    queryFn: () => unwrap(client.GET("/api/t/{token}", { params: { path: { token } } })),
    retry: false,
    staleTime: Infinity,
  });
  if (page.error) {
    return (
      <main className="mx-auto max-w-md p-6">
        <h1 className="mb-3 text-2xl">Rillstep</h1>
        <Trouble error={page.error} />
      </main>
    );
  }
  if (!page.data) return <main className="text-quiet p-6">Opening your pattern…</main>;
  return <Working page={page.data} token={token} />;
}

/** Counts repeats of one line; it is kept when the page is closed, as the place is. */
function Counter({ keep }: { keep: string }) {
  const [count, setState] = useState(() => Number(localStorage.getItem(keep) ?? 0));
  const setCount = (next: number) => {
    if (next) localStorage.setItem(keep, String(next));
    else localStorage.removeItem(keep);
    setState(next);
  };
  return (
    <div
      className="border-line flex items-center justify-between gap-2 rounded-lg border p-1.5"
      role="group"
      aria-label="Counter"
    >
      <button
        type="button"
        className="button-plain h-11 w-11 justify-center text-2xl"
        aria-label="One less"
        onClick={() => setCount(Math.max(0, count - 1))}
      >
        −
      </button>
      <output className="tabular w-16 text-center text-2xl font-semibold" data-testid="counter">
        {count}
      </output>
      <button
        type="button"
        className="button h-11 w-16 justify-center text-2xl"
        aria-label="One more"
        onClick={() => setCount(count + 1)}
      >
        +
      </button>
      <button type="button" className="button-bare" onClick={() => setCount(0)}>
        set to 0
      </button>
    </div>
  );
}

function Working({ page, token }: { page: Page; token: string }) {
  const place = usePlace(token, page.place, page.steps.length);
  const [facts, setFacts] = useState(false);
  const [trouble, setTrouble] = useState(false);
  const [reported, setReported] = useState(page.reported);
  const step = page.steps[place.at];
  const here = reported.filter(
    (report) => step && report.label === `${step.section}, ${step.label || "set-up"}`,
  );
  return (
    <div className="mx-auto flex min-h-dvh max-w-xl flex-col">
      <header className="border-line bg-sheet border-b px-4 pt-3 pb-2">
        <div className="flex items-center justify-between gap-3">
          {page.picture && (
            <img src={pictureOf(page)} alt={`${page.title} in size ${page.size}`} className="h-9 max-w-14" />
          )}
          <h1 className="min-w-0 flex-1 truncate text-lg">{page.title}</h1>
          <button type="button" className="button-bare shrink-0 underline" onClick={() => setFacts(true)}>
            Materials, notes
          </button>
        </div>
        <p className="text-quiet text-sm">
          Size <strong>{page.size}</strong> · {page.terms} terms · for {page.tester}
        </p>
        <div
          className="bg-bank mt-2 h-2 rounded"
          role="progressbar"
          aria-label="How far you are"
          aria-valuemin={0}
          aria-valuemax={page.steps.length}
          aria-valuenow={place.at}
        >
          <div
            className="bg-rill h-2 rounded"
            style={{ width: `${(100 * place.at) / page.steps.length}%` }}
          />
        </div>
      </header>
      {page.closed && (
        <p className="bg-mark-soft px-4 py-2 text-sm">
          This test is closed: you can read on, and not report any more.
        </p>
      )}
      {place.offline && (
        <p role="status" className="bg-wrong-soft px-4 py-2 text-sm">
          No connection just now. Your place is kept on this phone and sent when it is back.
        </p>
      )}
      {step ? (
        <main className="flex flex-1 flex-col gap-4 px-4 py-4">
          <div>
            <p className="text-quiet">{step.section}</p>
            <h2 className="text-3xl" data-testid="step-label">
              {step.label || (step.kind === "words" ? "To do" : "Set-up")}
            </h2>
            {step.of && <p className="text-quiet">{step.of}</p>}
          </div>
          <p className="font-text text-[22px] leading-normal" data-testid="step-text">
            {step.text}
          </p>
          {step.total && (
            <p className="bg-rill-soft rounded-lg px-4 py-3 text-xl">
              Count: <strong className="tabular text-3xl">{step.total}</strong>
            </p>
          )}
          {here.map((report, index) => (
            <p key={index} className="bg-mark-soft rounded-md px-3 py-2 text-sm">
              You reported{report.found !== null && ` ${report.found}`}. {report.note}
            </p>
          ))}
          <div className="flex flex-col gap-3">
            <Counter key={place.at} keep={`rillstep.count.${token}.${place.at}`} />
            {!page.closed && (
              <button
                type="button"
                className="button-plain h-12 justify-center"
                onClick={() => setTrouble(true)}
              >
                It did not come out
              </button>
            )}
          </div>
          <span className="flex-1" />
          <p className="text-quiet text-center text-sm">
            {place.at + 1} of {page.steps.length}
          </p>
          <div className="bg-paper sticky bottom-0 grid grid-cols-[1fr_2fr] gap-3 py-3">
            <button
              type="button"
              className="button-plain h-14 justify-center text-lg"
              disabled={place.at === 0}
              onClick={() => place.go(place.at - 1)}
            >
              Back
            </button>
            <button
              type="button"
              className="button h-14 justify-center text-lg"
              onClick={() => place.go(place.at + 1)}
            >
              Done, next
            </button>
          </div>
        </main>
      ) : (
        <EndReport page={page} token={token} onBack={() => place.go(page.steps.length - 1)} />
      )}
      <Facts page={page} open={facts} onClose={() => setFacts(false)} />
      {step && (
        <LineTrouble
          open={trouble}
          onClose={() => setTrouble(false)}
          token={token}
          step={place.at}
          label={step.label}
          expected={step.sts}
          onReported={(report) => setReported([...reported, report])}
        />
      )}
    </div>
  );
}
