import { useEffect, useRef } from "react";
import type { LiveTrialState } from "./liveTrial";

/** From the last rep to the end that comes by itself, milliseconds: time to mark what was seen in it. */
export const graceMs = 2500;

/** Ends what is plainly done, a moment after its last rep. What was done when this began (its end was undone) goes on. */
export function useEndsItself(trial: LiveTrialState, done: boolean, end: () => void) {
  const reps = trial.reps.length;
  const begunWith = useRef(reps);
  useEffect(() => {
    if (!done || reps === begunWith.current) return;
    const timer = setTimeout(end, graceMs);
    return () => clearTimeout(timer);
    // A timer belongs to one rep; a new "end" does the same as the old one.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [done, reps]);
}
