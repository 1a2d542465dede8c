import type { EaseOffer, OneChange, StopRules, StopTrigger } from "../api/types";
import { showsIn, type LiveTrialState } from "../capture/liveTrial";

/**
 * Why a running set ought to be stopped now, as in the core (StopSigns): told here too, because it must be told
 * when no server can be reached.
 */
export function stopOf(trial: LiveTrialState, rules: StopRules): StopTrigger | null {
  if (trial.pain.overLimit) return "pain";
  if (brokenInARow(trial) >= rules.faultsInARow) return "faults";
  const breath = trial.marks.some(
    (m) => m.means === "breath-hold" && m.afterCue && m.rep >= trial.reps.length,
  );
  return trial.cueWorked !== true && breath ? "breath" : null;
}

/** Reps with a breaking fault, counted back from the last; one under way counts as soon as it is marked. */
function brokenInARow(trial: LiveTrialState) {
  const broken = (rep: number) => trial.marks.some((m) => m.breaking && showsIn(m, rep));
  const total = trial.reps.length;
  let rep = trial.marks.some((m) => m.breaking && m.rep === total + 1) ? total + 1 : total;
  let count = 0;
  while (rep >= 1 && broken(rep)) {
    count += 1;
    rep -= 1;
  }
  return count;
}

/** What is offered first: the next thing in order that was not tried today. A cue takes no pain away. */
export const firstOffer = (offers: EaseOffer[], used: Set<OneChange>, trigger: StopTrigger) =>
  offers.find((o) => !used.has(o.change) && !(trigger === "pain" && o.change === "cue")) ?? null;
