import { useEffect } from "react";
import { RouterProvider } from "react-router";
import type { StartView } from "./api/types";
import { fetchAhead, router } from "./router";
import { atRest } from "./frame/atRest";
import { TabletLock } from "./frame/TabletLock";
import { useLaidOver } from "./frame/useHold";
import { useTabletKey } from "./frame/useTabletKey";
import { useTakeAlong } from "./frame/useTakeAlong";

/** Everything behind the door. */
export function Inside({ start }: { start: StartView }) {
  useEffect(() => atRest(() => void fetchAhead()), []);
  useTakeAlong(useTabletKey(start));
  useLaidOver();
  return (
    <>
      <RouterProvider router={router} />
      <TabletLock start={start} />
    </>
  );
}
