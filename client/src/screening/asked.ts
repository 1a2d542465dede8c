import type { Dose, ScreenTask } from "../api/types";
import { doseWords } from "../controls/words";

/** What is asked of one trial, in the unit its task is measured in. */
export function askedWords(trial: { target: Dose; load: number | null }, task: ScreenTask | null) {
  switch (task?.measure) {
    case "seconds":
      return `longest hold${task.tries > 1 ? ` of ${task.tries}` : ""}, cut at ${trial.target.hold} s`;
    case "degrees":
      return `how far, to ${task.full ?? ""}°`;
    case "centimetres":
      return `best of ${task.tries}`;
    case "yes-no":
      return "held level, yes or no";
    case "effort":
      return `how hard, 0 to ${task.full ?? 5}`;
    case "kilograms":
      return `${trial.load ?? 0} kg, ${doseWords(trial.target)}`;
    default:
      return doseWords(trial.target);
  }
}
