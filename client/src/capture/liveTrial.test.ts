import { describe, expect, it } from "vitest";
import { cleanReps, effective, liveTrials, runningHold } from "./liveTrial";
import { tape, testLibrary } from "./testLibrary";

const only = (events: Parameters<typeof liveTrials>[0]) => {
  const trials = liveTrials(events, testLibrary);
  expect(trials).toHaveLength(1);
  return trials[0]!;
};

describe("the live trial", () => {
  it("counts a rep with a breaking fault as done but not clean", () => {
    const { events, tap } = tape();
    tap("hold-started");
    tap("rep-done", {}, 3);
    tap("hold-started");
    tap("fault-marked", { fault: "arch" }, 1.2);
    tap("rep-done", {}, 2);
    const trial = only(events);
    expect(trial.reps.map((r) => r.broken)).toEqual([false, true]);
    expect(cleanReps(trial)).toBe(1);
    expect(trial.marks[0]).toMatchObject({ rep: 2, second: 1.2, breaking: true });
  });

  it("does not count a hold that was let go early", () => {
    const { events, tap } = tape();
    tap("hold-started");
    tap("rep-done", {}, 2.4);
    tap("hold-started");
    tap("rep-done", {}, 2.6);
    expect(only(events).reps.map((r) => r.broken)).toEqual([true, false]);
  });

  it("does not count a rushed rep, and does count a trembling one", () => {
    const { events, tap } = tape("t1", 0);
    tap("fault-marked", { fault: "rush" });
    tap("rep-done");
    tap("fault-marked", { fault: "tremor" });
    tap("rep-done");
    expect(cleanReps(only(events))).toBe(1);
  });

  it("gives a mark told later to the rep of its moment, and takes back what was told last", () => {
    const { events, tap } = tape("t1", 0);
    tap("rep-done");
    const rushed = tap("rep-done");
    tap("rep-done");
    const mark = tap("fault-marked", { fault: "rush", at: rushed.at });
    const trial = only(events);
    expect(trial.reps.map((r) => r.broken)).toEqual([false, true, false]);
    expect(trial.lastEventId).toBe(mark.id);
  });

  it("keeps cued reps apart", () => {
    const { events, tap } = tape("t1", 0);
    tap("rep-done");
    tap("cue-given");
    tap("rep-done");
    expect(cleanReps(only(events))).toBe(1);
    expect(only(events).cueGiven).toBe(true);
  });

  it("takes back and brings back", () => {
    const { events, tap } = tape();
    tap("rep-done");
    const second = tap("rep-done");
    const undo = tap("undone", { undoes: second.id });
    expect(only(events).reps).toHaveLength(1);
    tap("undone", { undoes: undo.id });
    expect(only(events).reps).toHaveLength(2);
  });

  it("does not care about the order of arrival or repeats", () => {
    const { events, tap } = tape();
    tap("hold-started");
    tap("fault-marked", { fault: "arch" });
    tap("rep-done");
    expect(only([...events].reverse().concat(events))).toEqual(only(events));
  });

  it("measures a running hold from its stamp, up to its first fault", () => {
    const { events, tap } = tape();
    const start = Date.parse(tap("hold-started").at);
    expect(runningHold(only(events), start + 2500)).toMatchObject({ held: 2.5, clean: 2.5 });
    tap("fault-marked", { fault: "arch" }, 1);
    expect(runningHold(only(events), start + 2500)).toMatchObject({ held: 2.5, clean: 1 });
  });

  it("is open until it is ended", () => {
    const { events, tap } = tape();
    expect(only(events).ended).toBeNull();
    tap("trial-ended", { reason: "target-met" });
    expect(only(events).ended).toBe("target-met");
  });

  it("drops an undone event and keeps the rest", () => {
    const { events, tap } = tape();
    const rep = tap("rep-done");
    tap("undone", { undoes: rep.id });
    expect(effective(events).map((e) => e.kind)).toEqual(["trial-started"]);
  });
});
