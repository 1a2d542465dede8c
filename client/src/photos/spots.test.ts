import { describe, expect, it } from "vitest";
import type { PhotoAngle, PhotoPoint } from "../api/types";
import { angleWords, nextOf, readingOf, spotsOf, type Spots } from "../figure/spots";

const asked: PhotoPoint[] = ["hip-bone-left", "hip-bone-right", "shoulder-left", "shoulder-right"];
const size = { width: 800, height: 600 };

describe("points on a photograph", () => {
  it("are asked for in order, the first that is missing", () => {
    expect(nextOf(asked, {})).toBe("hip-bone-left");
    expect(nextOf(asked, { "hip-bone-left": { x: 1, y: 1 }, "shoulder-left": { x: 2, y: 2 } })).toBe(
      "hip-bone-right",
    );
    const all = Object.fromEntries(asked.map((p) => [p, { x: 1, y: 1 }]));
    expect(nextOf(asked, all)).toBeNull();
  });

  it("become a reading without a line whose other end or length is missing", () => {
    const spots: Spots = {
      "hip-bone-left": { x: 500, y: 300 },
      "length-from": { x: 0, y: 0 },
      "length-to": { x: 0, y: 500 },
      "plumb-top": { x: 10, y: 10 },
    };
    expect(readingOf("front", size, asked, spots, null)).toEqual({
      view: "front",
      ...size,
      points: [{ point: "hip-bone-left", at: { x: 500, y: 300 } }],
      length: null,
      plumb: null,
      image: null,
    });
    expect(readingOf("front", size, asked, spots, 120).length?.centimetres).toBe(120);
  });

  it("of another view are not in the reading, and what is stored can be shown again", () => {
    const spots: Spots = {
      "hip-bone-left": { x: 500, y: 300 },
      knee: { x: 1, y: 1 },
      "length-from": { x: 0, y: 0 },
      "length-to": { x: 0, y: 500 },
      "plumb-top": { x: 10, y: 10 },
      "plumb-bottom": { x: 12, y: 400 },
    };
    const reading = readingOf("back", size, asked, spots, 50);
    expect(reading.points.map((p) => p.point)).toEqual(["hip-bone-left"]);
    const { knee, ...rest } = spots;
    expect(knee).toBeDefined();
    expect(spotsOf(reading)).toEqual(rest);
  });

  it("are told as angles without a sign, with what the sign means", () => {
    const angle: PhotoAngle = {
      kind: "side-drop",
      degrees: -7.4,
      words: "the left side lower",
      centimetres: 2.71,
    };
    expect(angleWords(angle)).toEqual({
      name: "Side drop",
      value: "7°",
      words: "the left side lower, 2.7 cm",
    });
    expect(angleWords({ kind: "knee", degrees: 84.2, words: "96° from straight" }).value).toBe("84°");
  });
});
