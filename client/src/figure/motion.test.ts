import { describe, expect, it } from "vitest";
import { changeFrameAt, changeRest, changeSeconds, frameAt, rest } from "./motion";

describe("a moving figure", () => {
  const count = 25;
  const move = 6;

  it("goes out in half the time of the movement, rests, and comes back the same way", () => {
    expect(frameAt(0, move, count)).toBe(0);
    expect(frameAt(move / 4, move, count)).toBe(12);
    expect(frameAt(move / 2, move, count)).toBe(count - 1);
    expect(frameAt(move / 2 + rest / 2, move, count)).toBe(count - 1);
    expect(frameAt(move / 2 + rest + move / 4, move, count)).toBe(12);
    expect(frameAt(move + rest, move, count)).toBe(0);
  });

  it("begins again after each round and never jumps more than one picture between two screens", () => {
    const round = move + 2 * rest;
    let before = frameAt(0, move, count);
    for (let t = 0; t < 2 * round; t += 1 / 60) {
      const now = frameAt(t, move, count);
      expect(Math.abs(now - before)).toBeLessThanOrEqual(1);
      expect(now).toBe(frameAt(t + round, move, count));
      before = now;
    }
  });

  it("is slow even where the movement has no time of its own", () => {
    expect(frameAt(0.25, 0, count)).toBe(12);
  });
});

describe("a change from one rung to the next", () => {
  it("rests, goes through every picture without going back, and stays at the last", () => {
    expect(changeFrameAt(0, 13)).toBe(0);
    expect(changeFrameAt(changeRest, 13)).toBe(0);
    expect(changeFrameAt(changeRest + changeSeconds / 2, 13)).toBe(6);
    const seen: number[] = [];
    for (let t = 0; t < changeRest + changeSeconds; t += 1 / 60) seen.push(changeFrameAt(t, 13));
    expect(new Set(seen).size).toBe(13);
    expect(seen).toEqual(seen.toSorted((a, b) => a - b));
    expect(changeFrameAt(changeRest + changeSeconds + 9, 13)).toBe(12);
  });
});
