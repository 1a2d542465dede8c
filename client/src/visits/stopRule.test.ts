import { describe, expect, it } from "vitest";
import type { EaseOffer, StopRules } from "../api/types";
import { liveTrials } from "../capture/liveTrial";
import { tape, testLibrary } from "../capture/testLibrary";
import { firstOffer, stopOf } from "./stopRule";

const rules: StopRules = { faultsInARow: 2, pain: { rule: "no-rise", limit: 10, rise: 2 } };

const stop = (taps: ReturnType<typeof tape>) =>
  stopOf(liveTrials(taps.events, testLibrary, { pain: rules.pain, painNow: null })[0]!, rules);

// The same table as the core's (WithinVisitTests), so that a tablet without a server says what the core says.
describe("a set is stopped", () => {
  it("by two broken reps in a row, not by one or by two apart", () => {
    const t = tape("t1", 0);
    t.tap("fault-marked", { fault: "arch" });
    t.tap("rep-done");
    expect(stop(t)).toBeNull();
    t.tap("rep-done");
    t.tap("fault-marked", { fault: "arch" });
    t.tap("rep-done");
    expect(stop(t)).toBeNull();
    t.tap("fault-marked", { fault: "arch" });
    expect(stop(t)).toBe("faults");
  });

  it("by pain that rose by two over what it was before, not by one", () => {
    const t = tape("t1", 0);
    t.tap("pain-marked", { phase: "before", value: 2 });
    t.tap("pain-marked", { phase: "peak", value: 3 });
    expect(stop(t)).toBeNull();
    t.tap("pain-marked", { phase: "peak", value: 4 });
    expect(stop(t)).toBe("pain");
  });

  it("by breath held after a cue, not by one held before it", () => {
    const t = tape("t1", 0);
    t.tap("fault-marked", { fault: "breath-hold" });
    t.tap("cue-given");
    expect(stop(t)).toBeNull();
    t.tap("rep-done");
    t.tap("fault-marked", { fault: "breath-hold" });
    expect(stop(t)).toBe("breath");
    t.tap("cue-answered", { worked: true });
    expect(stop(t)).toBeNull();
  });

  it("by no quality that spoils a rep once", () => {
    const t = tape("t1", 0);
    t.tap("rep-done");
    t.tap("rep-done");
    expect(stop(t)).toBeNull();
  });
});

const offer = (change: EaseOffer["change"]) => ({ change }) as EaseOffer;
const offers = [offer("cue"), offer("shorter-range"), offer("lower-rung")];

describe("what is offered first", () => {
  it("is the next thing that was not tried today", () => {
    expect(firstOffer(offers, new Set(), "faults")?.change).toBe("cue");
    expect(firstOffer(offers, new Set(["cue"]), "faults")?.change).toBe("shorter-range");
    expect(firstOffer(offers, new Set(["cue", "shorter-range", "lower-rung"]), "faults")).toBeNull();
  });

  it("is no cue when it hurts", () => {
    expect(firstOffer(offers, new Set(), "pain")?.change).toBe("shorter-range");
  });
});
