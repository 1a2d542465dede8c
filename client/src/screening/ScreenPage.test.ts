import { describe, expect, it } from "vitest";
import type { Library, RungSearch } from "../api/types";
import type { LiveTrialState } from "../capture/liveTrial";
import { nextTask, painBefore } from "./ScreenPage";

const library = {
  ladders: [
    {
      id: "E",
      rungs: [
        { id: "E1", sides: "both" },
        { id: "E5", sides: "each" },
      ],
    },
  ],
} as unknown as Library;

const search = (side: "left" | "right", nextRungId: string | null): RungSearch => ({
  ladderId: "E",
  side,
  done: nextRungId === null,
  nextRungId,
  entryRungId: null,
  why: "",
  trialIds: [],
});

describe("what comes next in a screen", () => {
  it("is the first side that is not finished", () => {
    expect(nextTask([search("left", null), search("right", "E5")], library)).toMatchObject({
      rungId: "E5",
      side: "right",
    });
  });

  it("has no side where both feet bear", () => {
    expect(nextTask([search("left", "E1")], library)?.side).toBe("both");
  });

  it("is nothing when every ladder has its entry", () => {
    expect(nextTask([search("left", null)], library)).toBeNull();
  });
});

describe("pain before a trial", () => {
  const trial = (before: number, peak: number | null, after: number | null) =>
    ({ pain: { before, peak, after } }) as LiveTrialState;

  it("is the last one told, else the one at the start of the visit", () => {
    expect(painBefore([], 4)).toBe(4);
    expect(painBefore([trial(4, 6, null)], 4)).toBe(6);
    expect(painBefore([trial(4, 6, 3)], 4)).toBe(3);
  });
});
