import { describe, expect, it } from "vitest";
import { liveTrials, type LiveTrialState } from "./liveTrial";
import { tape, testLibrary } from "./testLibrary";
import { isPlainlyDone, plainlyGaveWay } from "./screenTaps";

function after(taps: (tap: ReturnType<typeof tape>["tap"]) => void): LiveTrialState {
  const { events, tap } = tape("t1", 0);
  taps(tap);
  return { ...liveTrials(events, testLibrary)[0]!, purpose: "screen" };
}

const reps = (count: number) => (tap: ReturnType<typeof tape>["tap"]) => {
  for (let i = 0; i < count; i++) tap("rep-done");
};

describe("a trial that needs nobody to end it", () => {
  it("did all, clean and without more pain", () => {
    expect(isPlainlyDone(after(reps(5)), true)).toBe(true);
    expect(isPlainlyDone(after(reps(4)), false)).toBe(false);
  });

  it("is none in which anything was seen, hurt, or halted", () => {
    const seen = after((tap) => {
      tap("fault-marked", { fault: "arch" });
      reps(5)(tap);
    });
    const hurt = after((tap) => {
      tap("pain-marked", { phase: "before", value: 2 });
      reps(5)(tap);
      tap("pain-marked", { phase: "peak", value: 3 });
    });
    const halted = after((tap) => {
      reps(5)(tap);
      tap("trial-paused");
    });
    for (const trial of [seen, hurt, halted]) expect(isPlainlyDone(trial, true)).toBe(false);
  });

  it("is none of a session: what comes after a set is asked there", () =>
    expect(isPlainlyDone({ ...after(reps(5)), purpose: "session" }, true)).toBe(false));

  it("pain that was as before does not hold it up", () =>
    expect(
      isPlainlyDone(
        after((tap) => {
          tap("pain-marked", { phase: "before", value: 3 });
          tap("pain-marked", { phase: "peak", value: 3 });
          reps(5)(tap);
        }),
        true,
      ),
    ).toBe(true));
});

describe("a trial that plainly gave way", () => {
  it("was broken in its last rep, or since", () => {
    const last = after((tap) => {
      reps(2)(tap);
      tap("fault-marked", { fault: "arch" });
      tap("rep-done");
    });
    const since = after((tap) => {
      reps(2)(tap);
      tap("fault-marked", { fault: "arch" });
    });
    expect([last, since].map(plainlyGaveWay)).toEqual([true, true]);
  });

  it("is none that was broken long before, never, or in which it hurt more", () => {
    const before = after((tap) => {
      tap("fault-marked", { fault: "arch" });
      reps(3)(tap);
    });
    const hurt = after((tap) => {
      tap("pain-marked", { phase: "before", value: 2 });
      tap("fault-marked", { fault: "arch" });
      tap("pain-marked", { phase: "peak", value: 5 });
    });
    const holding = after((tap) => {
      tap("fault-marked", { fault: "arch" });
      tap("rep-done");
      tap("hold-started");
    });
    expect([before, after(reps(2)), hurt, holding].map(plainlyGaveWay)).toEqual([false, false, false, false]);
  });

  it("is none of a session: why a set ended is asked there", () => {
    const broken = after((tap) => tap("fault-marked", { fault: "arch" }));
    expect(plainlyGaveWay(broken)).toBe(true);
    expect(plainlyGaveWay({ ...broken, purpose: "session" })).toBe(false);
  });
});
