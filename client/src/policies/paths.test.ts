import { describe, expect, it } from "vitest";
import type { Policy } from "../api/types";
import { same, valueAt, withValue } from "./paths";

const policy = {
  breath: "free",
  stirredUp: { high: { reps: 3, sets: 1 }, low: { painBelow: 3 } },
  sore: { avoids: ["straight-leg-side"] },
} as unknown as Policy;

describe("a choice of a policy", () => {
  it("is found and changed by its path, and nothing else changes", () => {
    const changed = withValue(policy, "stirredUp.high.reps", 2);
    expect(valueAt(changed, "stirredUp.high.reps")).toBe(2);
    expect(valueAt(changed, "stirredUp.high.sets")).toBe(1);
    expect(valueAt(changed, "stirredUp.low.painBelow")).toBe(3);
    expect(valueAt(policy, "stirredUp.high.reps")).toBe(3);
    expect(valueAt(withValue(policy, "breath", "with-effort"), "breath")).toBe("with-effort");
  });

  it("is the same as the built-in one by its value", () => {
    expect(same(valueAt(policy, "sore.avoids"), ["straight-leg-side"])).toBe(true);
    expect(same(3, 4)).toBe(false);
  });
});
