import { describe, expect, it } from "vitest";
import type { Decision } from "../api/types";
import { linesOf } from "./DecidePage";

const decision = (side: "left" | "right", outcome: Decision["outcome"], ruleId: string): Decision => ({
  planItemId: "x",
  side,
  outcome,
  ruleId,
  rungId: "B5",
  dose: { reps: 5, sets: 1, hold: 0, fewer: 0, range: 1 },
  evidence: [],
  wouldChange: null,
});

describe("lines of decisions", () => {
  it("put two sides that say the same into one line", () => {
    expect(linesOf([decision("left", "add", "D-BUILD"), decision("right", "add", "D-BUILD")])).toHaveLength(
      1,
    );
  });

  it("keep sides apart that differ in outcome or in rule", () => {
    expect(
      linesOf([decision("left", "add", "D-ONE-SIDE"), decision("right", "stay", "D-ONE-SIDE")]),
    ).toHaveLength(2);
    expect(
      linesOf([decision("left", "stay", "D-FAULT-CUE"), decision("right", "stay", "D-CONFIRM")]),
    ).toHaveLength(2);
  });
});
