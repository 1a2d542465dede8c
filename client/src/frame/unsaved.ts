import { useEffect, useRef } from "react";

const open = new Set<object>();

/** Whether some form on the page holds what is not stored yet. */
export const isUnsaved = () => open.size > 0;

/**
 * Tells that a form holds what is not stored yet: whoever leaves the page is asked first.
 * @returns to be called when it was stored, before the page goes on by itself
 */
export function useUnsaved(changed: boolean) {
  const form = useRef({});
  useEffect(() => {
    const own = form.current;
    if (changed) open.add(own);
    else open.delete(own);
    return () => void open.delete(own);
  }, [changed]);
  return () => void open.delete(form.current);
}
