import { useEffect, useRef, useState } from "react";
import { isLocked, lockUpText, unlockText, type Locked } from "../capture/sealing";
import { useTablet } from "../capture/TabletContext";

/**
 * A form that survives a reload: kept in this browser tab until it is stored, locked up where the browser can do that.
 * @returns null in the place of the draft until what is kept of it has been read
 */
export function useDraft<T>(name: string, initial: T) {
  const { keys } = useTablet();
  const [draft, setDraft] = useState<T | null>(() => {
    const kept = sessionStorage.getItem(name);
    if (kept === null) return initial;
    return keys.works ? null : (JSON.parse(kept) as T);
  });
  const done = useRef(false);
  useEffect(() => {
    if (draft !== null) return;
    const read = async () => {
      const kept = JSON.parse(sessionStorage.getItem(name)!) as Locked | T;
      // A version before this one kept it open.
      return isLocked(kept) ? ((await unlockText((await keys.opened()).key, kept, name)) as T) : kept;
    };
    // Of another key it is nobody's here.
    read().then(setDraft, () => setDraft(initial));
  }, [draft, initial, keys, name]);
  useEffect(() => {
    if (draft === null) return;
    let over = false;
    const keep = async () => {
      const text = keys.works ? await lockUpText((await keys.opened()).key, draft, name) : draft;
      if (!over && !done.current) sessionStorage.setItem(name, JSON.stringify(text));
    };
    void keep();
    return () => {
      over = true;
    };
  }, [draft, keys, name]);
  const forget = () => {
    done.current = true;
    sessionStorage.removeItem(name);
  };
  return [draft, setDraft, forget] as const;
}
