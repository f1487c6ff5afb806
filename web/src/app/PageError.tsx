import { Link, useRouteError } from "react-router";
import { messageOf } from "../api";

/** What stands where a page could not be shown. */
export function PageError({ missing = false }: { missing?: boolean }) {
  const error = useRouteError();
  return (
    <main className="px-14 py-16">
      <h1>{missing ? "There is no page here" : "This page did not open"}</h1>
      <p className="mt-3 text-reading text-soft">
        {missing ? "The address may be old, or mistyped." : messageOf(error)}
      </p>
      <p className="mt-6 text-reading">
        <Link className="underline underline-offset-4" to="/">
          Back to the Desk
        </Link>
      </p>
    </main>
  );
}
