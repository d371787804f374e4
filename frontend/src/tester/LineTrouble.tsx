import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { client, unwrap } from "../api/client";
import type { LineReportView } from "../api/schema";
import { Dialog } from "../ui/Dialog";
import { Trouble } from "../ui/Trouble";

interface Props {
  open: boolean;
  onClose: () => void;
  token: string;
  step: number;
  label: string;
  expected: number | null;
  onReported: (report: LineReportView) => void;
}

/** “It did not come out”: a count and a note. What is typed stays until it was sent. */
export function LineTrouble({ open, onClose, token, step, label, expected, onReported }: Props) {
  const [found, setFound] = useState("");
  const [note, setNote] = useState("");
  const count = found.trim() === "" ? null : Number(found);
  const unusable = count !== null && (!Number.isInteger(count) || count < 0);
  const send = useMutation({
    mutationFn: () =>
      unwrap(
        client.POST("/api/t/{token}/lines", {
          params: { path: { token } },
          body: { step, found: count, note },
        }),
      ),
    onSuccess: (report) => {
      onReported(report);
      setFound("");
      setNote("");
      onClose();
    },
  });
  return (
    <Dialog title={`${label || "Set-up"} did not come out`} open={open} onClose={onClose}>
      <div className="space-y-3">
        {expected !== null && <p>It should be {expected} stitches.</p>}
        <label className="block">
          How many did you get?
          <input
            className="field h-12 text-xl"
            inputMode="numeric"
            value={found}
            aria-invalid={unusable}
            onChange={(event) => setFound(event.target.value)}
          />
          {unusable && <span className="text-wrong text-sm">Write a whole number.</span>}
        </label>
        <label className="block">
          What happened?
          <textarea
            className="field"
            rows={3}
            value={note}
            onChange={(event) => setNote(event.target.value)}
          />
        </label>
        <Trouble error={send.error} />
        <div className="flex gap-2">
          <button
            type="button"
            className="button h-12"
            disabled={unusable || send.isPending}
            onClick={() => send.mutate()}
          >
            Send to the designer
          </button>
          <button type="button" className="button-plain h-12" onClick={onClose}>
            Go on
          </button>
        </div>
      </div>
    </Dialog>
  );
}
