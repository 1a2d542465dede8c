import type { Actions } from "./actions";
import type { LiveTrialState } from "./liveTrial";
import { clock } from "./useCapture";

// What a screen does not ask a hand for. In a session none of it holds: the way back belongs to the rep, and what comes after a
// set is asked.

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
  return (
    trial.purpose === "screen" &&
    !painRose(trial) &&
    trial.marks.some((mark) => mark.breaking && mark.rep >= Math.max(1, last))
  );
}

/** A press so soon after a hold counted by itself is the press that would have counted it, milliseconds. */
const afterTargetMs = 1000;

/** The press was meant for the hold that has counted by itself a moment ago. */
export function hasJustCounted({ reps, target }: LiveTrialState) {
  const last = reps.at(-1);
  return target.hold > 0 && !!last && last.held >= target.hold && clock.now() - last.at < afterTargetMs;
}

/** Nothing was counted or seen yet, and reps are all that is counted: one press says that all of them were clean. */
export const canAllBeClean = (trial: LiveTrialState, measure: string) =>
  trial.purpose === "screen" &&
  measure === "reps" &&
  trial.target.hold === 0 &&
  !trial.paused &&
  trial.reps.length === 0 &&
  trial.marks.length === 0;

export function allClean(trial: LiveTrialState, actions: Actions) {
  for (let rep = 0; rep < trial.target.reps; rep++) actions.rep();
}
