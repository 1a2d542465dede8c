import { describe, expect, it } from "vitest";
import { rangeWords, totalReps } from "./words";

const dose = { side: "left" as const, dose: { reps: 5, sets: 1, hold: 3, fewer: 0, range: 1 }, range: 0.7 };

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

describe("reps of all sets", () => {
  it("are those of equal sets, and of sets that shrink, never below one", () => {
    expect(totalReps({ reps: 8, sets: 3, hold: 0, fewer: 0, range: 1 })).toBe(24);
    expect(totalReps({ reps: 8, sets: 3, hold: 10, fewer: 2, range: 1 })).toBe(18);
    expect(totalReps({ reps: 2, sets: 4, hold: 10, fewer: 1, range: 1 })).toBe(5);
  });
});
