import { useCallback, useEffect, useRef, useState } from "react";
import { signalCount, signalStart } from "./signals";

/**
 * Counts in before a hold: 3, 2, 1, begin. A second press while it counts calls it off. Without a delay it begins at once.
 */
export function useCountIn(delay: number, begin: () => void) {
  const [left, setLeft] = useState<number | null>(null);
  const latest = useRef(begin);
  useEffect(() => {
    latest.current = begin;
  }, [begin]);

  useEffect(() => {
    if (left === null) return;
    signalCount();
    const timer = setTimeout(() => {
      if (left > 1) {
        setLeft(left - 1);
        return;
      }
      setLeft(null);
      signalStart();
      latest.current();
    }, 1000);
    return () => clearTimeout(timer);
  }, [left]);

  const press = useCallback(() => {
    if (left !== null) setLeft(null);
    else if (delay > 0) setLeft(delay);
    else {
      signalStart();
      latest.current();
    }
  }, [left, delay]);
  return { left, press };
}
