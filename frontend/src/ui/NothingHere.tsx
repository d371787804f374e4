import { Link } from "react-router";

export function NothingHere() {
  return (
    <main className="mx-auto max-w-md p-10">
      <h1 className="text-2xl">There is nothing here</h1>
      <p className="text-quiet mt-2">The address may have been mistyped.</p>
      <Link className="button mt-4" to="/">
        To your designs
      </Link>
    </main>
  );
}
