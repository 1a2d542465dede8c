import type { Fault, ScreenTask } from "../api/types";
import type { Actions } from "./actions";
import type { LiveTrialState } from "./liveTrial";
import { rangeStops } from "./RangeRow";
import { say } from "../words/say";

/** A key of a live screen: what it does, and how the list of keys says that. */
export interface LiveKey {
  key: string;
  /** None: the list says it once for all of its kind. */
  words: string | null;
  run: () => void;
}

/** What each key does in this trial. Where effort is asked, digits answer it, and a fault that has that digit has no key. */
export function keysOf(live: {
  actions: Actions;
  faults: Fault[];
  trial: LiveTrialState;
  task: ScreenTask | null;
  main: () => void;
  end: () => void;
}): LiveKey[] {
  const { actions, trial, task } = live;
  const pain = trial.pain.last ?? trial.pain.before ?? 0;
  const stops = rangeStops(task);
  const at = stops.findIndex((s) => s.share === trial.range?.share && s.degrees === trial.range.degrees);
  const stop = (by: number) =>
    stops[Math.max(0, Math.min(stops.length - 1, (at < 0 ? stops.length : at) + by))]!;
  const points = task?.measure === "effort" ? Array.from({ length: (task.full ?? 5) + 1 }, (_, i) => i) : [];
  const faults = live.faults.filter((f) => !points.some((p) => String(p) === f.key));
  return [
    { key: "space", words: say("capture.start-hold-rep-done-reach"), run: live.main },
    ...(task?.measure === "yes-no"
      ? [{ key: "/", words: say("capture.gave-way-where-it-is"), run: () => actions.measure(0) }]
      : []),
    ...points.map((p) => ({
      key: String(p),
      words: task?.points?.[p] ?? String(p),
      run: () => actions.measure(p),
    })),
    { key: ".", words: say("capture.end-the-trial"), run: live.end },
    { key: "+", words: say("capture.more-pain"), run: () => pain < 10 && actions.pain(pain + 1) },
    { key: "-", words: say("capture.less-pain"), run: () => pain > 0 && actions.pain(pain - 1) },
    { key: "[", words: say("capture.less-far"), run: () => actions.range(stop(-1)) },
    { key: "]", words: say("capture.farther"), run: () => actions.range(stop(1)) },
    { key: "c", words: say("capture.cue-given-2"), run: () => actions.cue() },
    { key: "v", words: say("capture.cue-worked-2"), run: () => actions.cueAnswer(true) },
    { key: "z", words: say("capture.undo"), run: actions.undo },
    { key: "y", words: say("capture.redo"), run: actions.redo },
    ...faults.map((f) => ({ key: f.key, words: f.name, run: () => actions.mark(f.code) })),
    ...faults.map((f) => ({ key: `shift+${f.key}`, words: null, run: () => actions.mark(f.code, true) })),
  ];
}

export const keyNames = (key: string) => (key === "space" ? say("capture.space") : key);
