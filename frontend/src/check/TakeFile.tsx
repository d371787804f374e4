import { useMutation } from "@tanstack/react-query";
import { FileUp } from "lucide-react";
import { ApiError, client, unwrap } from "../api/client";
import type { Problem } from "../api/schema";
import { Dialog } from "../ui/Dialog";
import { Trouble } from "../ui/Trouble";

// The server refuses what is larger, and there is no need to send it.
const LARGEST_BYTES = 8_000_000;
const TOO_LARGE: Problem = {
  code: "too-large",
  status: 413,
  title: "This file is larger than 8 MB. Save its text by itself, and open that.",
  faults: [],
  revision: null,
};

/** The kinds of file whose text the server takes. */
export const KINDS = ".txt,.md,.docx,.odt,.pdf";

/** The text of a file, asked of the server; it is shown before it is taken. */
export function useFileText() {
  return useMutation({
    mutationFn: async (file: File) => {
      if (file.size > LARGEST_BYTES) throw new ApiError(TOO_LARGE);
      return unwrap(
        client.POST("/api/files", {
          body: { file: file.name },
          bodySerializer: () => {
            const form = new FormData();
            form.append("file", file);
            return form;
          },
        }),
      );
    },
  });
}

type FileText = ReturnType<typeof useFileText>;

/** Opens a file of another program. */
export function OpenFile({ taken }: { taken: FileText }) {
  return (
    <label className="button-plain cursor-pointer">
      <FileUp size={15} aria-hidden /> {taken.isPending ? "Reading the file…" : "Open a file"}
      <input
        type="file"
        accept={KINDS}
        className="sr-only"
        disabled={taken.isPending}
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (chosen) taken.mutate(chosen);
          event.target.value = "";
        }}
      />
    </label>
  );
}

/** What was read from a file, to be taken or left. */
export function TakeFile({
  taken,
  replaces,
  onTake,
}: {
  taken: FileText;
  replaces: boolean;
  onTake: (text: string) => void;
}) {
  const found = taken.data;
  const lines = found?.text.trimEnd().split("\n").length ?? 0;
  return (
    <Dialog
      title={found ? `The text of ${taken.variables.name}` : "This file cannot be read"}
      open={taken.isSuccess || taken.isError}
      wide
      onClose={() => taken.reset()}
      footer={
        <div className="flex flex-wrap items-center gap-3">
          {found && (
            <button
              type="button"
              className="button"
              onClick={() => {
                onTake(found.text);
                taken.reset();
              }}
            >
              Take this text
            </button>
          )}
          <button type="button" className="button-plain" onClick={() => taken.reset()}>
            {found ? "Leave it" : "Close"}
          </button>
          {found && replaces && (
            <p className="text-quiet text-sm">
              It takes the place of the text that is there; undo brings that back.
            </p>
          )}
        </div>
      }
    >
      <Trouble error={taken.error} />
      {found && (
        <>
          {found.notes.length > 0 && (
            <ul
              className="bg-mark-soft mb-3 list-disc rounded-md py-2 pr-3 pl-7 text-sm"
              aria-label="What to look at"
            >
              {found.notes.map((note) => (
                <li key={note}>{note}</li>
              ))}
            </ul>
          )}
          <p className="text-quiet mb-2 text-sm">
            {lines} {lines === 1 ? "line" : "lines"}, as they will stand in the text. Nothing is kept of the
            file.
          </p>
          <pre className="border-line max-h-[45vh] overflow-auto rounded-md border p-3 font-mono text-[13px] whitespace-pre-wrap">
            {found.text}
          </pre>
        </>
      )}
    </Dialog>
  );
}
