import type { Fault, ScreenTask } from "../api/types";
import type { Actions } from "./actions";
import type { LiveTrialState } from "./liveTrial";
import { rangeStops } from "./RangeRow";

/** What each key does; KeysDialog lists them. Where effort is asked, digits answer it. */
export function keysOf(live: {
  actions: Actions;
  faults: Fault[];
  trial: LiveTrialState;
  task: ScreenTask | null;
  main: () => void;
  end: () => void;
}) {
  const { actions, trial, task } = live;
  const pain = trial.pain.last ?? trial.pain.before ?? 0;
  const stops = rangeStops(task);
  const at = stops.findIndex((s) => s.share === trial.range?.share && s.degrees === trial.range.degrees);
  const stop = (by: number) =>
    stops[Math.max(0, Math.min(stops.length - 1, (at < 0 ? stops.length : at) + by))]!;
  const keys = new Map<string, () => void>([
    ["space", live.main],
    [".", live.end],
    ["c", () => actions.cue()],
    ["v", () => actions.cueAnswer(true)],
    ["z", actions.undo],
    ["y", actions.redo],
    ["+", () => pain < 10 && actions.pain(pain + 1)],
    ["-", () => pain > 0 && actions.pain(pain - 1)],
    ["[", () => actions.range(stop(-1))],
    ["]", () => actions.range(stop(1))],
  ]);
  for (const fault of live.faults) {
    keys.set(fault.key, () => actions.mark(fault.code));
    keys.set(`shift+${fault.key}`, () => actions.mark(fault.code, true));
  }
  if (task?.measure === "yes-no") keys.set("/", () => actions.measure(0));
  if (task?.measure === "effort") {
    for (let points = 0; points <= (task.full ?? 5); points++)
      keys.set(String(points), () => actions.measure(points));
  }
  return keys;
}
