import type { Dose, ScreenTask } from "../api/types";
import { doseWords } from "../controls/words";
import { say } from "../words/say";

/** What is asked of one trial, in the unit its task is measured in. */
export function askedWords(trial: { target: Dose; load: number | null }, task: ScreenTask | null) {
  switch (task?.measure) {
    case "seconds":
      return say("screening.longest-hold-tries-cut-at", {
        tries: task.tries > 1 ? ` ${say("screening.of-tries", { tries: task.tries })}` : "",
        hold: trial.target.hold,
      });
    case "degrees":
      return say("screening.how-far-to-full", { full: task.full ?? "" });
    case "centimetres":
      return say("screening.best-of-tries", { tries: task.tries });
    case "yes-no":
      return say("screening.held-level-yes-or-no");
    case "effort":
      return say("screening.how-hard-0-to-full", { full: task.full ?? 5 });
    case "kilograms":
      return say("screening.load-kg-target", { load: trial.load ?? 0, target: doseWords(trial.target) });
    default:
      return doseWords(trial.target);
  }
}
