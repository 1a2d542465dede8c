import { useEffect, useRef } from "react";
import type { LiveTrialState } from "./liveTrial";

/** From the last rep to the end that comes by itself, milliseconds: time to mark what was seen in it. */
export const graceMs = 2500;

/** More pain than before is never passed over. */
const painRose = ({ pain }: LiveTrialState) => pain.peak !== null && pain.peak > (pain.before ?? 0);

/** All that was asked was done, nothing was seen and nothing hurt: nobody needs to end such a trial. */
export const isPlainlyDone = (trial: LiveTrialState, met: boolean) =>
  met &&
  trial.purpose === "screen" &&
  !trial.paused &&
  trial.holdSince === null &&
  trial.marks.length === 0 &&
  trial.reps.every((rep) => !rep.broken) &&
  !painRose(trial);

/** It was ended right after the trunk gave way and nothing hurt more: why it ended need not be asked. */
export function plainlyGaveWay(trial: LiveTrialState) {
  // A hold that runs is a rep of its own: what broke the one before says nothing of it.
  const last = trial.reps.length + (trial.holdSince === null ? 0 : 1);
  return !painRose(trial) && trial.marks.some((mark) => mark.breaking && mark.rep >= Math.max(1, last));
}

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
