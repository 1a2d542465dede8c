import { describe, expect, it } from "vitest";
import { cornersMost, outlineOf, type Spot } from "./outline";

const area = (outline: number[]) => {
  let sum = 0;
  for (let i = 0; i < outline.length; i += 2) {
    const [x1, y1] = [outline[i]!, outline[i + 1]!];
    const [x2, y2] = [outline[(i + 2) % outline.length]!, outline[(i + 3) % outline.length]!];
    sum += x1 * y2 - x2 * y1;
  }
  return Math.abs(sum / 2);
};

const ring = (radius: number, n: number): Spot[] =>
  Array.from({ length: n }, (_, i) => [
    radius * Math.cos((2 * Math.PI * i) / n),
    radius * Math.sin((2 * Math.PI * i) / n),
  ]);

describe("what a finger drew", () => {
  it("a tap is a place as large as a thumb", () => {
    const outline = outlineOf([[100, -900]]);
    expect(area(outline)).toBeGreaterThan(2500);
    expect(area(outline)).toBeLessThan(3500);
  });

  it("a ring keeps its size with few corners", () => {
    const outline = outlineOf(ring(100, 400));
    expect(outline.length / 2).toBeLessThan(40);
    expect(area(outline) / (Math.PI * 100 * 100)).toBeGreaterThan(0.9);
  });

  it("a line there and back is as wide as a finger", () => {
    expect(
      area(
        outlineOf([
          [0, 0],
          [0, 50],
          [0, 100],
          [0, 50],
          [0, 0],
        ]),
      ),
    ).toBeGreaterThan(1000);
  });

  it("however wild it was, it has no more corners than are taken, and at least three", () => {
    const wild: Spot[] = Array.from({ length: 3000 }, (_, i) => [(i * 7919) % 613, -((i * 104729) % 1571)]);
    expect(outlineOf(wild).length / 2).toBeLessThanOrEqual(cornersMost);
    for (const stroke of [
      [
        [0, 0],
        [60, 0],
      ],
      [
        [0, 0],
        [60, 0],
        [60, 60],
      ],
    ] as Spot[][])
      expect(outlineOf(stroke).length / 2).toBeGreaterThanOrEqual(3);
  });

  it("nothing is nothing", () => expect(outlineOf([])).toEqual([]));
});
