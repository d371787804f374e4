import { X } from "lucide-react";
import { useForget, usePhrases } from "../proof/usePhrases";
import { Trouble } from "../ui/Trouble";

/** The studio's own phrases, offered wherever one stands in a line that is not understood. */
export function Phrases() {
  const phrases = usePhrases();
  const forget = useForget();
  if (!phrases.data?.length) return null;
  return (
    <section className="mt-8" aria-label="Your phrases">
      <h2 className="text-lg">Your phrases</h2>
      <p className="text-quiet mt-1 text-sm">
        Offered where one stands in a line that is not understood. A text that has taken one keeps it.
      </p>
      <Trouble error={phrases.error ?? forget.error} />
      <ul className="mt-2 flex flex-wrap gap-2">
        {phrases.data.map((phrase) => (
          <li key={phrase.id} className="sheet flex items-center gap-2 px-3 py-1.5 text-sm">
            <span>
              “{phrase.words}” {phrase.meaning === "nothing" ? "changes nothing" : `means ${phrase.meaning}`}
            </span>
            <button
              type="button"
              className="text-quiet"
              aria-label={`Forget “${phrase.words}”`}
              onClick={() => forget.mutate(phrase.id)}
            >
              <X size={14} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
