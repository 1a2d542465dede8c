import { Outlet } from "react-router";
import { useLibrary, useStart } from "../api/queries";
import { Page, ProblemNote } from "../controls/layout";
import { ReasonDialog } from "../frame/ReasonDialog";
import { UnsavedDialog } from "../frame/UnsavedDialog";
import { useErased } from "../frame/useErased";
import { TabletLock } from "../frame/TabletLock";
import { ConfirmDialog } from "./ConfirmDialog";
import { SignInPage } from "./SignInPage";

/** Shows the sign-in page to whoever is not signed in, at the same address, so that nothing is lost on the way. */
export function SignedIn() {
  const start = useStart();
  const signedIn = Boolean(start.data?.signedInAs);
  // A server that went away after sign-in does not sign anybody out: the last answer stands.
  if (!start.data) {
    return (
      <Page>
        <ProblemNote error={start.error} />
      </Page>
    );
  }
  return signedIn ? (
    <>
      <WithLibrary />
      <TabletLock start={start.data} />
    </>
  ) : (
    <SignInPage start={start.data} />
  );
}

function WithLibrary() {
  const library = useLibrary();
  useErased();
  if (!library.data) {
    return (
      <Page>
        <ProblemNote error={library.error} />
      </Page>
    );
  }
  return (
    <>
      <Outlet />
      <ConfirmDialog />
      <ReasonDialog />
      <UnsavedDialog />
    </>
  );
}
