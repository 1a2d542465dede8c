import { Outlet } from "react-router";
import { useLibrary } from "./api/queries";
import { Page, ProblemNote } from "./controls/layout";
import { ConfirmDialog } from "./sign-in/ConfirmDialog";
import { HelpDialog } from "./frame/HelpDialog";
import { ReasonDialog } from "./frame/ReasonDialog";
import { UnsavedDialog } from "./frame/UnsavedDialog";
import { useErased } from "./frame/useErased";

/** Every page inside has the library at hand, and the questions that any of them may have to ask. */
export function WithLibrary() {
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
      <HelpDialog />
      <ReasonDialog />
      <UnsavedDialog />
    </>
  );
}
