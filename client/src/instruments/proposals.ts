import type { LiveMark, LiveTrialState } from "../capture/liveTrial";
import type { Loss } from "./useTrace";

/** A loss of the running trial as a mark that may be kept. */
export interface Proposal {
  loss: Loss;
  /** When it is marked, milliseconds since 1970: the onset, moved by hand. */
  at: number;
  words: string;
}

/** A mark told by an instrument this near to a loss was made of it, perhaps moved, perhaps on another tablet. */
const nearMs = 1500;

/** @param moved milliseconds by which a loss, named by its onset, was moved */
export function proposalsOf(
  losses: Loss[],
  trial: Pick<LiveTrialState, "startedAt" | "endedAt" | "holdSince" | "marks">,
  moved: ReadonlyMap<number, number>,
): Proposal[] {
  return losses
    .filter((loss) => loss.onset >= trial.startedAt && loss.onset <= (trial.endedAt ?? Infinity))
    .filter((loss) => !trial.marks.some((m) => isOf(m, loss)))
    .map((loss) => {
      const at = Math.max(trial.startedAt + 1, loss.onset + (moved.get(loss.onset) ?? 0));
      return { loss, at, words: wordsOf(at, trial) };
    });
}

const isOf = (mark: LiveMark, loss: Loss) =>
  mark.instrument !== null && mark.fault === loss.fault && Math.abs(mark.at - loss.onset) < nearMs;

/** Where it falls: seconds into the running hold, or into the trial. */
function wordsOf(at: number, trial: Pick<LiveTrialState, "startedAt" | "holdSince">) {
  const hold = trial.holdSince !== null && at >= trial.holdSince;
  const since = hold ? trial.holdSince! : trial.startedAt;
  return `${((at - since) / 1000).toFixed(1)} s into the ${hold ? "hold" : "trial"}`;
}
