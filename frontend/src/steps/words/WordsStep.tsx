import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { FileDown } from "lucide-react";
import { useState, type ReactNode } from "react";
import { useSearchParams } from "react-router";
import { client, download, unwrap, whileBusy } from "../../api/client";
import { useBench, useChange, useDocument } from "../../bench/context";
import { sizeNames } from "../../bench/design";
import { Choice } from "../../ui/Choice";
import { ReaderChoices } from "../../ui/ReaderChoices";
import { Trouble } from "../../ui/Trouble";
import { StepHead } from "../StepHead";
import { Booklet } from "./Booklet";
import { EditText } from "./EditText";

const FILES = [
  ["pdf", "PDF"],
  ["text", "Text"],
  ["design", "Design file"],
] as const;

export function WordsStep() {
  const { work } = useBench();
  const [search, setSearch] = useSearchParams();
  const view = search.get("view") === "edit" ? "edit" : "read";
  const choice = (
    <Choice
      label="View"
      hideLabel
      value={view}
      options={[
        ["read", "Read"],
        ["edit", "Edit the text"],
      ]}
      onChange={(next) => setSearch(next === "edit" ? { view: "edit" } : {}, { replace: true })}
    />
  );
  return (
    <div className="flex h-full flex-col">
      <div className="no-print">
        <StepHead title="Words" next={{ to: "testers", title: "Testers" }}>
          What makers read. It is read back and worked stitch by stitch before it is shown as proved.
        </StepHead>
      </div>
      {view === "read" ? (
        <ReadText choice={choice} />
      ) : (
        <>
          <div className="no-print mb-3 flex flex-wrap items-end gap-x-5 gap-y-2">
            {choice}
            <p className="text-quiet text-sm">
              In {work?.outline.terms ?? "US"} terms, all sizes. Ctrl+Enter repairs the line, or goes to the
              next; Ctrl+Shift+M lists the findings. Choose a total to see how it comes about.
            </p>
          </div>
          {work && <EditText work={work} />}
        </>
      )}
    </div>
  );
}

/** The booklet as makers read it, and the files of it. */
function ReadText({ choice }: { choice: ReactNode }) {
  const { work } = useBench();
  const document = useDocument();
  const change = useChange();
  const [chosenSize, setSize] = useState<string>("all");
  const { terms, hand } = document;
  const names = sizeNames(work);
  const size = names.includes(chosenSize) ? chosenSize : "all";
  const body = { document, terms, size: size === "all" ? null : size };
  const booklet = useQuery({
    queryKey: ["booklet", body],
    queryFn: () => unwrap(client.POST("/api/booklet", { body })),
    placeholderData: keepPreviousData,
    retry: whileBusy,
  });
  const save = useMutation({
    mutationFn: (kind: "pdf" | "text" | "design") =>
      download(`/api/export/${kind}`, kind === "design" ? { document } : body),
    onMutate: () => document,
  });
  // A refusal holds for the text that was refused, and not for the mended one.
  const refused = save.context === document ? save.error : null;
  return (
    <>
      <div className="no-print mb-3 flex flex-wrap items-end gap-x-5 gap-y-2">
        {choice}
        <ReaderChoices
          sizes={names}
          size={size}
          terms={terms}
          hand={hand}
          onSize={setSize}
          onTerms={(value) => change("", (d) => ({ ...d, terms: value }))}
          onHand={(value) => change("", (d) => ({ ...d, hand: value }))}
        />
        <span className="flex gap-2">
          {FILES.map(([kind, name]) => (
            <button
              key={kind}
              type="button"
              className="button-plain"
              disabled={save.isPending}
              onClick={() => save.mutate(kind)}
            >
              <FileDown size={15} aria-hidden /> {name}
            </button>
          ))}
        </span>
      </div>
      <Trouble error={refused ?? booklet.error} />
      {booklet.data && !booklet.data.proved && (
        <p role="alert" className="bg-wrong-soft text-wrong mb-2 rounded-md px-3 py-2 text-sm">
          This text is not proved. It is printed with that said:{" "}
          {booklet.data.as_written > 0
            ? `${booklet.data.as_written} of its lines, marked, ${booklet.data.as_written === 1 ? "stands" : "stand"} as written.`
            : "see the findings."}
        </p>
      )}
      {booklet.data && <Booklet booklet={booklet.data} selectable={size === "all"} />}
    </>
  );
}
