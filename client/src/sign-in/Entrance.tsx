import { lazy, Suspense } from "react";
import { Page } from "../controls/layout";
import { OrFailed } from "../frame/Failed";
import { codeIn } from "./codeIn";
import { SignedIn } from "./SignedIn";

const InvitationPage = lazy(() =>
  import("./InvitationPage").then((loaded) => ({ default: loaded.InvitationPage })),
);

/** The first page: with a code, or by the door. */
export function Entrance() {
  const code = codeIn(location.pathname);
  return (
    <OrFailed>
      <Suspense fallback={<Page />}>{code === null ? <SignedIn /> : <InvitationPage code={code} />}</Suspense>
    </OrFailed>
  );
}
