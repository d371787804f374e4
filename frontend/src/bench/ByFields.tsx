import { Link, Outlet } from "react-router";
import { useBench } from "./context";

/** The steps of a design by fields; for a text that was written elsewhere, what cannot be done with it yet. */
export function ByFields() {
  const { work } = useBench();
  if (!work?.elsewhere) return <Outlet />;
  return (
    <section className="sheet max-w-xl p-6" aria-label="Not for this text">
      <h2 className="text-lg">This design is a text of your own</h2>
      <p className="mt-2">
        It is worked, proved, printed, tested and divided as it stands, in the sizes that it names. It cannot
        be graded or measured here yet, and it has no fields: nothing on this page would be about your bag.
      </p>
      <p className="mt-2">
        To add, copy, move or delete a size, edit its “Sizes:” line and the numbers of its rows. Your text is
        never replaced.
      </p>
      <Link to="../words?view=edit" className="button mt-4 inline-flex">
        Edit the text
      </Link>
    </section>
  );
}
