import { describe, expect, it } from "vitest";
import type { RepGuide } from "../api/types";
import { isRushed, tempoAt } from "./tempo";

const moving: RepGuide = { out: 3, hold: 0, check: 0, back: 3, words: "", breath: "" };
const held: RepGuide = { ...moving, hold: 5 };

describe("tempo of a moving rep", () => {
  it("goes out, comes back, and waits for the rep to be counted", () => {
    expect(tempoAt(moving, 1.5, null, true)).toMatchObject({ phase: "out", share: 0.5 });
    expect(tempoAt(moving, 4.5, null, true)).toMatchObject({ phase: "back", share: 0.5 });
    expect(tempoAt(moving, 6, null, true)).toMatchObject({ phase: "ready", share: 0 });
  });
});

describe("tempo of a held rep", () => {
  it("waits at the end until the hold is started, then counts it down", () => {
    expect(tempoAt(held, 9, null, true)).toMatchObject({ phase: "ready", share: 1 });
    expect(tempoAt(held, 9, 2, true)).toMatchObject({ phase: "hold", left: 3 });
    expect(tempoAt(held, 9, 8, true)).toMatchObject({ phase: "hold", left: 0, done: 1 });
  });

  it("comes back first after a counted rep, and then goes out again", () => {
    expect(tempoAt(held, 1, null, false).phase).toBe("back");
    expect(tempoAt(held, 4, null, false).phase).toBe("out");
  });
});

describe("a rushed rep", () => {
  it("takes less than half of its tempo", () => {
    expect(isRushed(moving, 2.9)).toBe(true);
    expect(isRushed(moving, 3)).toBe(false);
    expect(isRushed(held, 5.4)).toBe(true);
    expect(isRushed({ ...held, out: 0, back: 0 }, 0.1)).toBe(false);
  });
});
