import { lazy, Suspense, useEffect, useId, useState } from "react";
import type { EditView, OfferView } from "../api/schema";
import { Trouble } from "../ui/Trouble";
import { teachingBegins } from "./teaching";
import { useTeach } from "./usePhrases";

const MeaningField = lazy(() => import("../editor/MeaningField"));

interface Props {
  offer: OfferView;
  text: string;
  terms: "US" | "UK" | null;
  /** Beside answers that are offered, it is the last of them. */
  beside?: boolean;
  onEdit: (edit: EditView) => void;
}

/** Words that are not understood, taught: they mean something in the language, or they change nothing. */
export function Teach({ offer, text, terms, beside, onEdit }: Props) {
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState(offer.words);
  const [meaning, setMeaning] = useState("");
  const [keep, setKeep] = useState(false);
  const field = useId();
  useEffect(() => (open ? teachingBegins() : undefined), [open]);
  const teach = useTeach(text, terms, onEdit);
  const ready = words.trim() !== "" && meaning.trim() !== "" && !teach.isPending;
  const mean = () => {
    if (ready) teach.mutate({ words, meaning, keep });
  };
  if (!open) {
    return (
      <button type="button" className={beside ? "button-bare" : "button-plain"} onClick={() => setOpen(true)}>
        Say what “{offer.words}” means
      </button>
    );
  }
  return (
    <div className="border-line mt-2 w-full space-y-2 border-t pt-2">
      <label htmlFor={field} className="text-quiet block text-[13px]">
        These words of the line, as short as they can be
      </label>
      <input
        id={field}
        className="field w-full"
        value={words}
        maxLength={160}
        onChange={(event) => setWords(event.target.value)}
      />
      <p className="text-quiet text-[13px]">They mean, in words that are understood (“in back loop”)</p>
      <Suspense fallback={<p className="text-quiet">Opening…</p>}>
        <MeaningField label="They mean" terms={terms ?? "US"} onChange={setMeaning} onEnter={mean} />
      </Suspense>
      <label className="flex items-center gap-2 text-[13px]">
        <input type="checkbox" checked={keep} onChange={(event) => setKeep(event.target.checked)} />
        Keep it among my phrases, for all my texts
      </label>
      <Trouble error={teach.error} />
      <div className="flex flex-wrap gap-2">
        <button type="button" className="button" disabled={!ready} onClick={mean}>
          They mean this
        </button>
        {offer.nothing && (
          <button
            type="button"
            className="button-plain"
            disabled={teach.isPending}
            onClick={() => teach.mutate({ words, meaning: "nothing", keep })}
          >
            These words change nothing
          </button>
        )}
        {offer.vouch && (
          <button
            type="button"
            className="button-plain"
            disabled={teach.isPending}
            onClick={() => teach.mutate({ words: offer.vouch, meaning: "vouched", keep: false })}
          >
            I vouch for this line
          </button>
        )}
        <button type="button" className="button-bare" onClick={() => setOpen(false)}>
          Not now
        </button>
      </div>
      <p className="text-quiet text-[13px]">
        It is written into the head of the text as a line “Means:”, so the text stays whole wherever it goes.
        A line that you vouch for is not worked: it takes the total that it states, is counted apart, and is
        printed without a claim.
      </p>
    </div>
  );
}
