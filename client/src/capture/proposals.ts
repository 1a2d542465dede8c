import type { LiveMark, LiveTrialState } from "./liveTrial";
import type { Loss, SeenRep } from "./useTrace";
import { say } from "../words/say";

/** A loss of the running trial as a mark that may be kept. */
export interface Proposal {
  loss: Loss;
  /** When it is marked, milliseconds since 1970: the onset, moved by hand. */
  at: number;
  words: string;
}

/** A mark of the same fault this near to a loss is the same one: kept before, moved, told on another tablet, or seen by eye. */
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
  mark.fault === loss.fault && Math.abs(mark.at - loss.onset) < nearMs;

/** Where it falls: seconds into the running hold, or into the trial. */
function wordsOf(at: number, trial: Pick<LiveTrialState, "startedAt" | "holdSince">) {
  const hold = trial.holdSince !== null && at >= trial.holdSince;
  const since = hold ? trial.holdSince! : trial.startedAt;
  return say("capture.at-s-into-the-hold", {
    at: ((at - since) / 1000).toFixed(1),
    hold: hold ? say("capture.hold") : say("capture.trial"),
  });
}

/** A rep of the running trial that was not counted, or one that was and went too fast. */
export interface RepProposal {
  rep: SeenRep;
  kind: "count" | "rushed";
  words: string;
}

type Counted = Pick<LiveTrialState, "startedAt" | "endedAt" | "reps" | "marks">;

/**
 * A rep counted by hand a little before or after its end is the same one.
 *
 * @param askedSeconds a rep is to take; 0: any time
 * @param now reps that ended only just now may still be counted by hand
 */
export function repProposals(
  reps: SeenRep[],
  trial: Counted,
  askedSeconds: number,
  now: number,
): RepProposal[] {
  const around = (at: number, rep: SeenRep) => at > rep.top - nearMs && at < rep.end + nearMs;
  return reps
    .filter((rep) => rep.start >= trial.startedAt && rep.end <= (trial.endedAt ?? now - nearMs))
    .flatMap((rep): RepProposal[] => {
      const took = (rep.end - rep.start) / 1000;
      const since = ((rep.start - trial.startedAt) / 1000).toFixed(0);
      const words = say("capture.took-s-endedat", {
        took: took.toFixed(1),
        endedAt: trial.endedAt === null ? "" : say("capture.from-since-s-on", { since }),
      });
      if (!trial.reps.some((r) => around(r.at, rep))) return [{ rep, kind: "count", words }];
      // Less than half the asked time is rushed, as in the core (SeenRep.Rushed).
      const told = trial.marks.some((m) => m.means === "rush" && m.at > rep.start && m.at < rep.end + nearMs);
      return took < askedSeconds / 2 && !told ? [{ rep, kind: "rushed", words }] : [];
    });
}
