import { useQueryClient } from "@tanstack/react-query";
import { lazy, useEffect, useState, useSyncExternalStore } from "react";
import { dayQuery, libraryQuery, startQuery, useStart } from "../api/queries";
import type { StartView } from "../api/types";
import { Page, ProblemNote } from "../controls/layout";
import { useOutbox } from "../capture/OutboxContext";
import { useTablet } from "../capture/TabletContext";
import { atRest } from "../frame/atRest";
import { onLeave } from "../frame/leaving";
import { SignInPage } from "./SignInPage";

/** What lies behind the door. */
const inside = () => import("../Inside");

const loadInside = () => void inside().catch(() => undefined);

const Inside = lazy(() => inside().then((loaded) => ({ default: loaded.Inside })));

const again = () => import("../frame/SignInAgain");
const SignInAgain = lazy(() => again().then((loaded) => ({ default: loaded.SignInAgain })));

const OpenAlone = lazy(() => import("./OpenAlone").then((loaded) => ({ default: loaded.OpenAlone })));

const wasInsideAt = "palaestra-was-inside";

/** Whoever was signed in here before most likely still is: what they need is on its way beside the question whether they are. */
if (localStorage.getItem(wasInsideAt)) loadInside();

/**
 * Shows the sign-in page to whoever is not signed in, at the same address. Where a sign-in ended by itself it is asked for over
 * what is open, so that nothing is lost on the way.
 */
export function SignedIn() {
  const queries = useQueryClient();
  const start = useStart();
  const outbox = useOutbox();
  const tablet = useTablet();
  const signedIn = Boolean(start.data?.signedInAs);
  const refused = useSyncExternalStore(outbox.subscribe, () => outbox.getStatus().signedOut);
  const [open, setOpen] = useState<StartView | null>(null);
  if (start.data && signedIn && open !== start.data) setOpen(start.data);
  useEffect(() => onLeave(() => setOpen(null)), []);
  // In a trial nothing is asked for: what is tapped is the first to hear that the sign-in has ended.
  useEffect(() => {
    if (refused) void queries.invalidateQueries({ queryKey: startQuery.queryKey });
  }, [refused, queries]);
  useEffect(() => {
    if (!start.data) return;
    if (!signedIn) {
      localStorage.removeItem(wasInsideAt);
      // Ended here or from afar: nothing of a client stays readable on the tablet.
      void Promise.all([tablet.days.wipe(), tablet.keys.leave(), outbox.clear()]).catch(() => undefined);
      return;
    }
    localStorage.setItem(wasInsideAt, "1");
    atRest(() => void again().catch(() => undefined));
    // What the first page shows is asked for beside its code.
    void queries.prefetchQuery(libraryQuery);
    if (location.pathname === "/") void queries.prefetchQuery(dayQuery());
  }, [start.data, signedIn, queries, tablet, outbox]);
  // A server that went away after sign-in does not sign anybody out: the last answer stands.
  if (!start.data) {
    const { who } = tablet.keys;
    // While it is asked for again there is no error for a moment: what is half typed stays.
    if (start.errorUpdateCount > 0 && who) return <OpenAlone who={who.name} onRest={loadInside} />;
    return (
      <Page>
        <ProblemNote error={start.error} />
      </Page>
    );
  }
  if (!open) return <SignInPage start={start.data} onRest={loadInside} />;
  return (
    <>
      {/* Somebody else does not find what was open. */}
      <Inside key={open.signedInAs} start={open} />
      {!signedIn && <SignInAgain start={start.data} who={open.signedInAs ?? ""} />}
    </>
  );
}
