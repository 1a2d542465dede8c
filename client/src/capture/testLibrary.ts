import { clock } from "./useCapture";
import type { CaptureEvent, CaptureKind, Library } from "../api/types";

/** The few faults the capture tests need; the rest of the library stays empty. */
export const testLibrary = {
  ladders: [],
  tasks: [],
  faults: [
    { code: "arch", kind: "breaking", spoilsRep: false },
    { code: "rush", means: "rush", kind: "quality", spoilsRep: true },
    { code: "tremor", means: "tremor", kind: "information", spoilsRep: false },
    { code: "breath-hold", means: "breath-hold", kind: "quality", spoilsRep: false },
  ],
} as unknown as Library;

let count = 0;

/** Taps of one trial, a second apart unless said. */
export function tape(trialId = "t1", hold = 3) {
  // The tablet's clock never goes back, also after a test that made it go ahead.
  let at = Math.ceil(clock.now());
  const events: CaptureEvent[] = [];
  const tap = (kind: CaptureKind, fields: object = {}, after = 1) => {
    at += after * 1000;
    count += 1;
    events.push({
      id: `e${String(count).padStart(6, "0")}`,
      trialId,
      kind,
      at: new Date(at).toISOString(),
      ...fields,
    } as CaptureEvent);
    return events.at(-1)!;
  };
  tap("trial-started", {
    rungId: "B6",
    side: "left",
    purpose: "screen",
    target: { reps: 5, sets: 1, hold, fewer: 0, range: 1 },
  });
  return { events, tap };
}
