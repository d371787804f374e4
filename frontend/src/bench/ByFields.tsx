import { Link } from "react-router";
import { useBench } from "./context";

/** A step of a tote by fields, or of a text; and what to do where a tote's text has become one of its own. */
export function ByFields({ fields, text }: { fields: React.ReactNode; text: React.ReactNode }) {
  const { design, work } = useBench();
  if (design.document.version === 2) return text;
  const own = work?.text_design;
  if (!own) return fields;
  return (
    <section className="sheet max-w-xl p-6" aria-label="Not for this text">
      <h2 className="text-lg">This design is a text of your own</h2>
      <p className="mt-2">
        It began as a tote by fields, and nothing in those fields is about this bag any more. Go on with it as
        a text: its sizes, measures and numbers are then the ones that the text says. The text stays as it is,
        and this can be undone.
      </p>
      <p className="mt-4 flex gap-2">
        <button type="button" className="button" onClick={() => design.change("", () => own)}>
          Go on with it as a text
        </button>
        <Link to="../words?view=edit" className="button-plain">
          Edit the text
        </Link>
      </p>
    </section>
  );
}
