import { v5 as uuid } from "uuid";
import type { CaptureEvent, EndReason, Instrument, Side, StopTrigger, Worry } from "../api/types";
import { byTime, type LiveRange, type LiveTrialState } from "./liveTrial";
import type { RecordEvent } from "./useCapture";

export type Actions = ReturnType<typeof actionsOf>;

/** Everything that can be done in a running trial, as one event each. */
export function actionsOf(trial: LiveTrialState, events: CaptureEvent[], record: RecordEvent) {
  const id = trial.trialId;
  const lastUndo = redoable(trial, events);
  return {
    hold: () => record(id, "hold-started"),
    rep: () => record(id, "rep-done"),
    /** The hold has lasted as long as asked. Told by each tablet that shows it: it is one and the same event. */
    heldToTarget: () => record(id, "rep-done", { id: uuid(`${id} held since ${trial.holdSince}`, uuid.URL) }),
    measure: (amount: number) => record(id, "measure-taken", { amount }),
    mark: (fault: string, persists = false) =>
      record(id, "fault-marked", persists ? { fault, persists } : { fault }),
    cue: (trigger?: StopTrigger) => record(id, "cue-given", trigger ? { trigger } : {}),
    cueAnswer: (worked: boolean) => trial.cueGiven && record(id, "cue-answered", { worked }),
    range: (range: LiveRange) =>
      record(id, "range-reached", { share: range.share ?? undefined, degrees: range.degrees ?? undefined }),
    instrument: (instrument: Instrument) => record(id, "instrument-used", { instrument }),
    pause: () => record(id, "trial-paused"),
    resume: () => record(id, "trial-resumed"),
    otherSide: (side: Side) => record(id, "side-corrected", { side }),
    discard: () => record(id, "trial-discarded"),
    undo: () => trial.lastEventId && record(id, "undone", { undoes: trial.lastEventId }),
    reopen: () => trial.endedBy && record(id, "undone", { undoes: trial.endedBy }),
    redo: () => lastUndo && record(id, "undone", { undoes: lastUndo }),
    canRedo: lastUndo !== null,
    pain: (value: number, phase: "before" | "peak" | "after" = "peak") =>
      record(id, "pain-marked", { phase, value }),
    worry: (worry: Worry, side?: Side) => record(id, "worry-told", { worry, side }),
    felt: (place: string) => record(id, "felt-marked", { place }),
    end: (reason: EndReason) => record(id, "trial-ended", { reason }),
    /** It is plainly done; again one event, whichever tablets tell it. */
    endDone: () =>
      record(id, "trial-ended", {
        reason: "target-met",
        id: uuid(`${id} done at ${trial.lastRepAt}`, uuid.URL),
      }),
  };
}

/** The latest undo of this trial, if nothing was done since it: that one can be taken back. */
function redoable(trial: Pick<LiveTrialState, "trialId">, events: CaptureEvent[]): string | null {
  const own = events.filter((e) => e.trialId === trial.trialId).sort(byTime);
  const takenBack = new Set(own.filter((e) => e.kind === "undone").map((e) => e.undoes));
  const last = own.at(-1);
  if (last?.kind !== "undone") return null;
  const undone = own.find((e) => e.id === last.undoes);
  if (undone?.kind !== "undone") return last.id;
  // The last step was a redo: an earlier undo that still stands may follow.
  return (
    own.findLast(
      (e) =>
        e.kind === "undone" && !takenBack.has(e.id) && own.find((u) => u.id === e.undoes)?.kind !== "undone",
    )?.id ?? null
  );
}
