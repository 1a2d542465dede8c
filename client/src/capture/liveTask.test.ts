import { describe, expect, it } from "vitest";
import { actionsOf } from "./actions";
import { countsFor } from "./sideCounts";
import { cleanReps, lastDiscarded, liveTrials, longestHold } from "./liveTrial";
import { tape, testLibrary } from "./testLibrary";

const only = (events: Parameters<typeof liveTrials>[0]) => liveTrials(events, testLibrary)[0]!;

describe("a trial of another measure", () => {
  it("keeps a range until another is picked", () => {
    const { events, tap } = tape("t1", 0);
    tap("range-reached", { degrees: 20 });
    tap("rep-done");
    tap("rep-done");
    tap("range-reached", { degrees: 30 });
    tap("fault-marked", { fault: "arch" });
    tap("rep-done");
    const trial = only(events);
    expect(trial.reps.map((r) => r.range?.degrees)).toEqual([20, 20, 30]);
    expect(countsFor(trial, [], "degrees", 0)[0]!.big).toBe("20°");
  });

  it("shows the best clean reach and leaves out one with a fault", () => {
    const { events, tap } = tape("t1", 0);
    tap("measure-taken", { amount: 58 });
    tap("fault-marked", { fault: "arch" });
    tap("measure-taken", { amount: 66 });
    tap("measure-taken", { amount: 61 });
    expect(countsFor(only(events), [], "centimetres", 0)[0]).toMatchObject({
      big: "61",
      small: "cm, best of 3",
    });
  });

  it("takes the longest hold before the trunk gave way, the running one included", () => {
    const { events, tap } = tape("t1", 45);
    tap("hold-started");
    tap("fault-marked", { fault: "arch" }, 4);
    tap("rep-done", {}, 3);
    tap("hold-started");
    const trial = only(events);
    expect(longestHold(trial, trial.holdSince! + 2000)).toBeCloseTo(4, 3);
    expect(longestHold(trial, trial.holdSince! + 9000)).toBeCloseTo(9, 3);
  });
});

describe("what may go otherwise in a trial", () => {
  it("lets a persisting fault cost every rep from its own on", () => {
    const { events, tap } = tape("t1", 0);
    tap("rep-done");
    tap("fault-marked", { fault: "arch", persists: true });
    tap("rep-done");
    tap("rep-done");
    expect(cleanReps(only(events))).toBe(1);
  });

  it("lets a running hold go when it is paused", () => {
    const { events, tap } = tape();
    tap("hold-started");
    tap("trial-paused", {}, 60);
    expect(only(events)).toMatchObject({ holdSince: null, paused: true });
    tap("trial-resumed");
    expect(only(events).paused).toBe(false);
  });

  it("puts a fault of the very same instant before the rep", () => {
    const { events, tap } = tape("t1", 0);
    tap("rep-done");
    tap("fault-marked", { fault: "arch" }, 0);
    expect(cleanReps(only(events))).toBe(0);
  });

  it("forgets a discarded trial, and moves one whose side was put right", () => {
    const { events, tap } = tape("t1", 0);
    tap("rep-done");
    const was = only(events).side;
    tap("side-corrected", { side: was === "left" ? "right" : "left" });
    expect(only(events).side).not.toBe(was);
    tap("trial-discarded");
    expect(liveTrials(events, testLibrary)).toEqual([]);
    const discarded = lastDiscarded(events)!;
    tap("undone", { undoes: discarded.id });
    expect(only(events).reps).toHaveLength(1);
    expect(lastDiscarded(events)).toBeNull();
  });

  it("is opened again by taking back its end, though pain was told after it", () => {
    const { events, tap } = tape("t1", 0);
    tap("rep-done");
    tap("trial-ended", { reason: "stopped" });
    tap("pain-marked", { phase: "after", value: 3 });
    actionsOf(only(events), events, (_trial, kind, ...[fields]) => tap(kind, fields)).reopen();
    expect(only(events)).toMatchObject({ ended: null, pain: { after: 3 } });
  });

  it("can be opened again after its end, and all of it undone step by step", () => {
    const { events, tap } = tape("t1", 0);
    tap("rep-done");
    tap("trial-ended", { reason: "stopped" });
    for (let steps = 0; steps < 2; steps++) {
      actionsOf(only(events), events, (_trial, kind, ...[fields]) => tap(kind, fields)).undo();
    }
    expect(only(events)).toMatchObject({ ended: null, reps: [] });
  });
});
