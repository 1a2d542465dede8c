import { lazy, Suspense } from "react";
import { Page } from "../controls/layout";
import { SignedIn } from "./SignedIn";

const InvitationPage = lazy(() =>
  import("./InvitationPage").then((loaded) => ({ default: loaded.InvitationPage })),
);

/** The code in an address as /invitation/ABCDE; empty where it is still to be typed, null at any other address. */
export const codeIn = (path: string) => {
  const [, place, code = ""] = path.split("/");
  return place === "invitation" ? decodeURIComponent(code) : null;
};

/** The first page: with a code, or by the door. */
export function Entrance() {
  const code = codeIn(location.pathname);
  if (code === null) return <SignedIn />;
  return (
    <Suspense fallback={<Page />}>
      <InvitationPage code={code} />
    </Suspense>
  );
}
