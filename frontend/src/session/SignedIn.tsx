import { Navigate, Outlet, useLocation } from "react-router";
import { LongWork } from "../ui/LongWork";
import { Trouble } from "../ui/Trouble";
import { useMe } from "./useMe";

/** Everything below needs a signed-in designer. */
export function SignedIn() {
  const me = useMe();
  const location = useLocation();
  if (me.error) {
    return (
      <main className="p-10">
        <Trouble error={me.error} />
      </main>
    );
  }
  if (!me.data) return <main className="text-quiet p-10">One moment…</main>;
  if (me.data.email === null) return <Navigate to="/sign-in" state={{ from: location.pathname }} replace />;
  return (
    <>
      <Outlet />
      <LongWork />
    </>
  );
}
