import { useEffect, useState } from "react";
import type { StartView } from "../api/types";
import { useOutbox } from "../capture/OutboxContext";
import type { TabletKey } from "../capture/sealing";
import { askKey, useTablet } from "../capture/TabletContext";

/** A server that has just answered who is here, and then not this, is asked again. */
const againMs = 2000;

/**
 * While somebody is signed in and the tablet is open, what it keeps is locked up with their key.
 * @returns null until it is there, and where this browser locks nothing up
 */
export function useTabletKey(start: StartView | null): TabletKey | null {
  const outbox = useOutbox();
  const { keys, held } = useTablet();
  const [key, setKey] = useState<TabletKey | null>(null);
  const name = start && !start.locked ? start.signedInAs : null;
  const mark = start?.pinMark ?? null;
  useEffect(() => {
    if (!name || !keys.works) return;
    if (keys.who?.name !== name) outbox.handOver();
    let timer: ReturnType<typeof setTimeout> | undefined;
    let over = false;
    const begin = () =>
      keys.begin(name, mark, askKey).then(
        async (begun) => {
          if (over || !begun) return;
          await Promise.all([outbox.begin(begun), held.begin(begun)]);
          setKey(begun);
        },
        () => {
          if (!over) timer = setTimeout(() => void begin(), againMs);
        },
      );
    void begin();
    return () => {
      over = true;
      clearTimeout(timer);
    };
  }, [name, mark, keys, outbox, held]);
  return key;
}
