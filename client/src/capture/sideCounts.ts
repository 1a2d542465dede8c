import type { Library, MeasureKind, ScreenTask, Side } from "../api/types";
import { seconds } from "../controls/words";
import { bestAmount, cleanReps, longestHold, type LiveTrialState } from "./liveTrial";
import { say } from "../words/say";

/** What one side of a task has come to: the large number and the words under it. */
export interface SideCount {
  side: Side;
  big: string;
  small: string;
}

export const findTask = (library: Library, id: string | null | undefined): ScreenTask | null =>
  library.tasks.find((t) => t.id === id) ?? null;

export const measureOf = (library: Library, trial: LiveTrialState): MeasureKind =>
  findTask(library, trial.taskId)?.measure ?? "reps";

/** This trial beside the last one of the other side on the same rung and in the same way. */
export function countsFor(
  trial: LiveTrialState,
  others: LiveTrialState[],
  measure: MeasureKind,
  now: number,
): SideCount[] {
  if (trial.side === "both") return [countOf(trial, measure, now)];
  const other = others.findLast(
    (t) =>
      t.rungId === trial.rungId &&
      t.taskId === trial.taskId &&
      t.variant === trial.variant &&
      t.side !== trial.side &&
      t.ended !== null,
  );
  const blank: SideCount = {
    side: trial.side === "left" ? "right" : "left",
    big: "–",
    small: say("capture.not-yet"),
  };
  return [countOf(trial, measure, now), other ? countOf(other, measure, now) : blank].sort((a) =>
    a.side === "left" ? -1 : 1,
  );
}

function countOf(trial: LiveTrialState, measure: MeasureKind, now: number): SideCount {
  const { side } = trial;
  const last = trial.reps.at(-1);
  const best = bestAmount(trial);
  switch (measure) {
    case "seconds":
      return { side, big: longestHold(trial, now).toFixed(1), small: say("capture.seconds-clean-the-best") };
    case "centimetres":
      return {
        side,
        big: best < 0 ? "–" : String(best),
        small: say("capture.cm-best-of-reps", { reps: trial.reps.length }),
      };
    case "degrees": {
      const clean = trial.reps.filter((r) => !r.broken && !r.cued).map((r) => r.range?.degrees ?? 0);
      return {
        side,
        big: clean.length === 0 ? "–" : `${Math.max(...clean)}°`,
        small: say("capture.clean-of-reps-tries", { reps: trial.reps.length }),
      };
    }
    case "yes-no":
      return {
        side,
        big: !last ? "–" : last.amount === 1 && !last.broken ? say("capture.yes") : say("capture.no-2"),
        small: say("capture.stayed-level"),
      };
    case "effort":
      return {
        side,
        big: last?.amount == null ? "–" : String(last.amount),
        small: say("capture.of-5-how-hard"),
      };
    default: {
      const held =
        trial.target.hold > 0
          ? trial.reps.filter((r) => !r.broken).reduce((sum, r) => sum + r.held, 0)
          : null;
      return {
        side,
        big: String(cleanReps(trial)),
        small: say("capture.clean-of-reps-reps-held", {
          reps: trial.reps.length,
          held: held === null ? "" : say("capture.held-clean", { held: seconds(held) }),
        }),
      };
    }
  }
}
