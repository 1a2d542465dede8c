import { useQueryClient } from "@tanstack/react-query";
import { lazy, useEffect } from "react";
import { dayQuery, libraryQuery, useStart } from "../api/queries";
import { Page, ProblemNote } from "../controls/layout";
import { SignInPage } from "./SignInPage";

/** What lies behind the door. */
const inside = () => import("../Inside");

const Inside = lazy(() => inside().then((loaded) => ({ default: loaded.Inside })));

const wasInsideAt = "palaestra-was-inside";

/** Whoever was signed in here before most likely still is: what they need is on its way beside the question whether they are. */
if (localStorage.getItem(wasInsideAt)) inside().catch(() => undefined);

/** Shows the sign-in page to whoever is not signed in, at the same address, so that nothing is lost on the way. */
export function SignedIn() {
  const queries = useQueryClient();
  const start = useStart();
  const signedIn = Boolean(start.data?.signedInAs);
  useEffect(() => {
    if (!start.data) return;
    if (!signedIn) return localStorage.removeItem(wasInsideAt);
    localStorage.setItem(wasInsideAt, "1");
    // What the first page shows is asked for beside its code.
    void queries.prefetchQuery(libraryQuery);
    if (location.pathname === "/") void queries.prefetchQuery(dayQuery());
  }, [start.data, signedIn, queries]);
  // A server that went away after sign-in does not sign anybody out: the last answer stands.
  if (!start.data) {
    return (
      <Page>
        <ProblemNote error={start.error} />
      </Page>
    );
  }
  return signedIn ? (
    <Inside start={start.data} />
  ) : (
    <SignInPage start={start.data} onRest={() => void inside().catch(() => undefined)} />
  );
}
