import { useMutation } from "@tanstack/react-query";
import { Copy, UserPlus } from "lucide-react";
import { useState, type SyntheticEvent } from "react";
import { client, unwrap } from "../../api/client";
import type { InvitedView, LineReportView, NewTester, TesterView, TestView } from "../../api/schema";
import { useBench, useOpenDesign } from "../../bench/context";
import { sizeNames } from "../../bench/design";
import { Select } from "../../ui/Select";
import { Trouble } from "../../ui/Trouble";
import { StepHead } from "../StepHead";
import { useTests } from "./useTests";

const ago = (iso: string | null) =>
  iso === null
    ? "never"
    : new Date(`${iso}Z`).toLocaleDateString(undefined, { day: "numeric", month: "short" });

function Invite({ test, onInvited }: { test: TestView; onInvited: (invited: InvitedView) => void }) {
  const { work } = useBench();
  const invite = useMutation({
    mutationFn: (body: NewTester) =>
      unwrap(client.POST("/api/tests/{test_id}/testers", { params: { path: { test_id: test.id } }, body })),
    onSuccess: onInvited,
  });
  const submit = (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    const data = new FormData(form);
    const text = (name: string) => {
      const value = data.get(name);
      return typeof value === "string" ? value : "";
    };
    invite.mutate(
      {
        name: text("name"),
        size: text("size"),
        terms: text("terms") === "UK" ? "UK" : "US",
        hand: text("hand") === "left" ? "left" : "right",
      },
      { onSuccess: () => form.reset() },
    );
  };
  return (
    <form className="flex flex-wrap items-end gap-3 pt-3" onSubmit={submit}>
      <label>
        <span className="text-quiet block text-[13px]">Name of the tester</span>
        <input name="name" className="field" required maxLength={80} />
      </label>
      <Select label="Size" name="size">
        {sizeNames(work).map((name) => (
          <option key={name}>{name}</option>
        ))}
      </Select>
      <Select label="Terms" name="terms">
        <option>US</option>
        <option>UK</option>
      </Select>
      <Select label="Hand" name="hand">
        <option value="right">right</option>
        <option value="left">left</option>
      </Select>
      <button type="submit" className="button" disabled={invite.isPending}>
        <UserPlus size={16} aria-hidden /> Add tester
      </button>
      <Trouble error={invite.error} />
    </form>
  );
}

function LinkOnce({ invited }: { invited: InvitedView }) {
  const [copied, setCopied] = useState(false);
  const link = window.location.origin + invited.path;
  return (
    <div
      role="status"
      className="bg-mark-soft mt-3 flex flex-wrap items-center gap-3 rounded-md px-3 py-2 text-sm"
    >
      <span>
        Send this link to <strong>{invited.tester.name}</strong>. It is shown only now.
      </span>
      <code className="select-all" data-testid="tester-link">
        {link}
      </code>
      <button
        type="button"
        className="button-plain"
        onClick={() => void navigator.clipboard.writeText(link).then(() => setCopied(true))}
      >
        <Copy size={15} aria-hidden /> {copied ? "Copied" : "Copy"}
      </button>
    </div>
  );
}

function Compared({ tester }: { tester: TesterView }) {
  return (
    <tr>
      <td colSpan={6} className="pb-2 text-left">
        <div className="bg-paper rounded-md p-2 text-sm">
          <table className="w-full text-left">
            <thead>
              <tr className="text-quiet">
                <th className="font-normal">{tester.name}’s bag</th>
                <th className="font-normal">predicted</th>
                <th className="font-normal">measured</th>
                <th className="font-normal">difference</th>
              </tr>
            </thead>
            <tbody>
              {tester.compared.map((row) => (
                <tr key={row.label} className="border-line border-t">
                  <td className="!text-left">{row.label}</td>
                  <td>{row.predicted}</td>
                  <td>{row.measured}</td>
                  <td className={row.off ? "text-wrong font-semibold" : ""}>{row.difference}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-1">
            {tester.hours !== null && <>{tester.hours} hours. </>}
            {tester.remarks && <>“{tester.remarks}”</>}
          </p>
        </div>
      </td>
    </tr>
  );
}

function Tester({
  tester,
  onChanged,
  onLink,
}: {
  tester: TesterView;
  onChanged: () => void;
  onLink: (i: InvitedView) => void;
}) {
  const path = { params: { path: { tester_id: tester.id } } };
  const withdraw = useMutation({
    mutationFn: () => unwrap(client.POST("/api/testers/{tester_id}/withdraw", path)),
    onSuccess: onChanged,
  });
  const link = useMutation({
    mutationFn: () => unwrap(client.POST("/api/testers/{tester_id}/link", path)),
    onSuccess: onLink,
  });
  const share = tester.steps ? Math.round((100 * tester.place) / tester.steps) : 0;
  const state = tester.finished ? "finished" : tester.withdrawn ? "link withdrawn" : `${share} %`;
  return (
    <>
      <tr>
        <th scope="row" className="!text-ink !text-[15px] !font-medium">
          {tester.name}
        </th>
        <td>{tester.size}</td>
        <td className="text-quiet whitespace-nowrap">
          {tester.terms}, {tester.hand}
        </td>
        <td className="w-32">
          <div className="bg-bank h-2 rounded" aria-hidden>
            <div className="bg-rill h-2 rounded" style={{ width: `${tester.finished ? 100 : share}%` }} />
          </div>
          <span className="text-[13px]">{state}</span>
        </td>
        <td className="text-quiet whitespace-nowrap">{ago(tester.seen_at)}</td>
        <td className="whitespace-nowrap">
          <button
            type="button"
            className="button-bare"
            disabled={link.isPending}
            onClick={() => link.mutate()}
          >
            New link
          </button>
          <button
            type="button"
            className="button-bare"
            disabled={tester.withdrawn || withdraw.isPending}
            onClick={() => withdraw.mutate()}
          >
            Withdraw
          </button>
        </td>
      </tr>
      {tester.compared.length > 0 && <Compared tester={tester} />}
    </>
  );
}

function Reports({ test }: { test: TestView }) {
  const lines = test.text.split("\n");
  const byLine = new Map<number, LineReportView[]>();
  for (const report of test.reports) byLine.set(report.line, [...(byLine.get(report.line) ?? []), report]);
  if (byLine.size === 0) return <p className="text-quiet text-sm">No line was reported so far.</p>;
  return (
    <ul className="space-y-2">
      {[...byLine].map(([line, reports]) => (
        <li key={line} className="sheet border-l-mark border-l-3 p-3 text-sm">
          <p className="text-quiet">
            {reports[0]?.label} · line {line}
          </p>
          <p className="font-text">{lines[line - 1]}</p>
          {reports.map((report, index) => (
            <p key={index} className="mt-1.5">
              <strong>
                {report.tester} ({report.size})
              </strong>
              {report.found !== null && (
                <>
                  : {report.found} instead of {report.expected ?? "?"}
                </>
              )}
              . {report.note}
            </p>
          ))}
        </li>
      ))}
    </ul>
  );
}

function Test({ test, onChanged }: { test: TestView; onChanged: () => void }) {
  const [invited, setInvited] = useState<InvitedView | null>(null);
  const close = useMutation({
    mutationFn: (closed: boolean) =>
      unwrap(
        client.PUT("/api/tests/{test_id}", { params: { path: { test_id: test.id } }, body: { closed } }),
      ),
    onSuccess: onChanged,
  });
  const gotLink = (next: InvitedView) => {
    setInvited(next);
    onChanged();
  };
  return (
    <section className="sheet mb-4 p-4" aria-label={`Test of revision ${test.revision}`}>
      <div className="flex items-baseline justify-between gap-2">
        <h2 className="text-lg">
          Test of revision {test.revision}, opened {ago(test.opened_at)}
          {test.closed && " (closed)"}
        </h2>
        <button type="button" className="button-bare" onClick={() => close.mutate(!test.closed)}>
          {test.closed ? "Open it again" : "Close the test"}
        </button>
      </div>
      {test.testers.length === 0 ? (
        <p className="text-quiet mt-1 text-sm">No testers yet. Each gets a private link to her size alone.</p>
      ) : (
        <div className="grid gap-5 min-[1100px]:grid-cols-[1.35fr_1fr]">
          <table className="numbers self-start">
            <thead>
              <tr className="text-quiet text-[13px]">
                <th scope="col" className="text-left">
                  Tester
                </th>
                <th scope="col">Size</th>
                <th scope="col">Reads</th>
                <th scope="col">Progress</th>
                <th scope="col">Seen</th>
                <th scope="col">Link</th>
              </tr>
            </thead>
            <tbody>
              {test.testers.map((tester) => (
                <Tester key={tester.id} tester={tester} onChanged={onChanged} onLink={gotLink} />
              ))}
            </tbody>
          </table>
          <div>
            <h3 className="mb-2 text-[15px]">Lines that did not come out</h3>
            <Reports test={test} />
          </div>
        </div>
      )}
      {invited && <LinkOnce invited={invited} />}
      {!test.closed && <Invite test={test} onInvited={gotLink} />}
    </section>
  );
}

export function TestersStep() {
  const design = useOpenDesign();
  const { work } = useBench();
  const { tests, refresh } = useTests(design.id);
  const open = useMutation({
    mutationFn: async () => {
      await design.flush();
      return unwrap(
        client.POST("/api/designs/{design_id}/tests", { params: { path: { design_id: design.id } } }),
      );
    },
    onSuccess: refresh,
  });
  const list = tests.data?.tests ?? [];
  return (
    <>
      <StepHead title="Testers" next={{ to: "parts", title: "Parts" }}>
        Others make the bag before it is published. Each works from a private link, and reports what did not
        come out.
      </StepHead>
      <Trouble error={tests.error ?? open.error} />
      {tests.isPending && <p className="text-quiet">The tests are being opened…</p>}
      {list.map((test) => (
        <Test key={test.id} test={test} onChanged={refresh} />
      ))}
      {tests.data && (
        <div className="flex items-center gap-3">
          <button
            type="button"
            className={list.length ? "button-plain" : "button"}
            disabled={!work?.ok || open.isPending}
            onClick={() => open.mutate()}
          >
            Open a test of revision {design.revision}
          </button>
          <p className="text-quiet text-sm">
            {work?.ok
              ? "Testers get this text as it is now, even when you go on changing it."
              : "The text has to be proved first."}
          </p>
        </div>
      )}
    </>
  );
}
