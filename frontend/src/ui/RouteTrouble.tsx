import { useRouteError } from "react-router";
import { Trouble } from "./Trouble";

/** A page that broke: what was typed is kept in this browser, so starting again loses nothing. */
export function RouteTrouble() {
  const error = useRouteError();
  return (
    <main className="mx-auto max-w-lg space-y-3 p-10">
      <h1 className="text-2xl">This page has stopped working</h1>
      <p className="text-quiet">
        That is our mistake. What you typed is kept in this browser and is there again when the page is loaded
        anew.
      </p>
      <Trouble error={error} />
      <button type="button" className="button" onClick={() => window.location.reload()}>
        Load the page again
      </button>
    </main>
  );
}
