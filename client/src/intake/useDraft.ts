import { useEffect, useState } from "react";

/** A form that survives a reload: kept in this browser tab until it is stored. */
export function useDraft<T>(key: string, initial: T) {
  const [draft, setDraft] = useState<T>(() => {
    const kept = sessionStorage.getItem(key);
    return kept ? (JSON.parse(kept) as T) : initial;
  });
  useEffect(() => sessionStorage.setItem(key, JSON.stringify(draft)), [key, draft]);
  return [draft, setDraft, () => sessionStorage.removeItem(key)] as const;
}
