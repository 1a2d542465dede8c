import { describe, expect, it } from "vitest";
import { rangeWords } from "./words";

const dose = { side: "left" as const, dose: { reps: 5, sets: 1, hold: 3, fewer: 0 }, range: 0.7 };

describe("a shorter range in words", () => {
  it("says where it ends and what it is of the full load", () => {
    expect(rangeWords({ ...dose, rangeEnds: "70 % of the way, heel 31 cm up", rangeLoadPercent: 80.6 })).toBe(
      "70 % of the way, heel 31 cm up: 81 % of the full load",
    );
  });

  it("leaves the load out where the model sees none, and says nothing at the full range", () => {
    expect(rangeWords({ ...dose, rangeEnds: "70 % of the way", rangeLoadPercent: null })).toBe(
      "70 % of the way",
    );
    expect(rangeWords({ ...dose, range: 1 })).toBe("");
  });
});
