import { describe, expect, it } from "vitest";
import { between, filled, placeAt } from "./film";

const square = (at: number) => [[at, 0, at + 10, 0, at + 10, 10]];

describe("a film", () => {
  it("has what lies as before in every picture, the floor too, which is told only once", () => {
    const frames = [{ shapes: [[], square(0)] }, { shapes: [[], []] }, { shapes: [[], square(4)] }];
    expect(filled(frames, [square(100), []])).toEqual([
      [square(100), square(0)],
      [square(100), square(0)],
      [square(100), square(4)],
    ]);
  });

  it("fills in what lies between two pictures", () => {
    expect(between(square(0), square(4), 0.5)).toEqual(square(2));
    expect(between(square(0), square(4), 0)).toEqual(square(0));
  });

  it("takes the nearer one where outlines do not fit, and where a point would leap", () => {
    const other = [[0, 0, 1, 1]];
    expect(between(square(0), other, 0.4)).toEqual(square(0));
    expect(between(square(0), other, 0.6)).toEqual(other);
    expect(between([[0, 0]], [[900, 10]], 0.5)).toEqual([[900, 5]]);
  });

  it("stays at its last picture", () => {
    expect(placeAt(0.5, 16, 33)).toEqual({ first: 8, second: 9, part: 0 });
    expect(placeAt(99, 16, 33)).toEqual({ first: 31, second: 32, part: 1 });
    expect(placeAt(-1, 16, 33)).toEqual({ first: 0, second: 1, part: 0 });
    expect(placeAt(3, 16, 1)).toEqual({ first: 0, second: 0, part: 0 });
  });
});
