import { useEffect } from "react";
import { RouterProvider } from "react-router";
import type { StartView } from "./api/types";
import { fetchAhead, router } from "./router";
import { atRest } from "./frame/atRest";
import { TabletLock } from "./frame/TabletLock";

/** Everything behind the door. */
export function Inside({ start }: { start: StartView }) {
  useEffect(() => atRest(() => void fetchAhead()), []);
  return (
    <>
      <RouterProvider router={router} />
      <TabletLock start={start} />
    </>
  );
}
