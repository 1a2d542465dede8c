import { describe, expect, it } from "vitest";
import content from "../../../content/faults.json";
import type { Fault, Figure } from "../api/types";
import drawn from "../given/drawnPlaces.json";
import type { At } from "../figure/leaders";
import { placesOf, type Places } from "./faultPlaces";

/** Stages of the live screen: beside the thumbs at 1280, above them at 820, with a trace, and wider and narrower ones. */
const stages = [
  { width: 772, height: 610 },
  { width: 780, height: 660 },
  { width: 772, height: 320 },
  { width: 640, height: 480 },
  { width: 1100, height: 620 },
];

interface Drawing {
  rung: string;
  view: string;
  box: number[];
  faults: string[];
  at: Record<string, number[]>;
}

function asDrawn(line: Drawing, mirrored: boolean) {
  const [left, top, width, height] = line.box as [number, number, number, number];
  const x = (at: number) => (mirrored ? -at : at);
  return {
    figure: {
      left: mirrored ? -left - width : left,
      top,
      width,
      height,
      anchors: Object.entries(line.at).map(([region, at]) => ({ region, at: { x: x(at[0]!), y: at[1]! } })),
    } as Figure,
    faults: line.faults.map((code) => content.faults.find((f) => f.code === code) as unknown as Fault),
  };
}

const turn = (a: At, b: At, c: At) => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);

/** They have a point in common that is an end of neither. */
function cross([a, b]: [At, At], [c, d]: [At, At]) {
  const [p, q, r, s] = [turn(a, b, c), turn(a, b, d), turn(c, d, a), turn(c, d, b)];
  const least = 1e-6;
  return p * q < -least && r * s < -least;
}

const segments = ({ leaders }: Places) =>
  leaders.flatMap((l): { code: string; line: [At, At] }[] => [
    { code: l.code, line: [l.from, l.bend] },
    { code: l.code, line: [l.bend, l.to] },
  ]);

function crossings(places: Places) {
  const lines = segments(places);
  return lines.flatMap((a, i) =>
    lines
      .slice(i + 1)
      .filter((b) => a.code !== b.code && cross(a.line, b.line))
      .map((b) => `${a.code} × ${b.code}`),
  );
}

/** Chips that a line runs over, looked at every pixel of it but where it leaves its own. */
function runsOver(places: Places) {
  return segments(places).flatMap(({ code, line: [a, b] }) => {
    const steps = Math.ceil(Math.hypot(b.x - a.x, b.y - a.y));
    const points = Array.from({ length: steps }, (_, i) => ({
      x: a.x + ((b.x - a.x) * (i + 0.5)) / steps,
      y: a.y + ((b.y - a.y) * (i + 0.5)) / steps,
    }));
    return places.chips
      .filter((c) =>
        points.some((p) => p.x > c.left && p.x < c.left + c.width && p.y > c.top && p.y < c.top + c.height),
      )
      .map((c) => `${code} over ${c.fault.code}`);
  });
}

const overlap = (a: { left: number; top: number; width: number; height: number }, b: typeof a) =>
  a.left < b.left + b.width &&
  b.left < a.left + a.width &&
  a.top < b.top + b.height &&
  b.top < a.top + a.height;

describe.each(stages)("faults round the figure on $width × $height", (stage) => {
  it.each(["side", "front", "top", "three-quarter"])(
    "are joined without a crossing in every rung, %s",
    (view) => {
      const lines = (drawn as unknown as Drawing[]).filter((line) => line.view === view);
      expect(lines.length).toBeGreaterThan(140);
      for (const line of lines) {
        for (const mirrored of [false, true]) {
          const { figure, faults } = asDrawn(line, mirrored);
          const places = placesOf(faults, figure, stage);
          const what = `${line.rung} ${view}${mirrored ? ", left" : ""}`;
          expect(places.chips.map((c) => c.fault.code).sort(), what).toEqual([...line.faults].sort());
          // Where two rows have no room the body carries the keys.
          expect(places.leaders.length, what).toBe(
            places.letters.length > 0 && stage.width < 700 ? 0 : faults.length,
          );
          expect(crossings(places), what).toEqual([]);
          expect(runsOver(places), what).toEqual([]);
          const { origin, scale } = places;
          const picture = {
            left: origin.x + figure.left * scale,
            top: origin.y + figure.top * scale,
            width: figure.width * scale,
            height: figure.height * scale,
          };
          places.chips.forEach((chip, i) => {
            // Nothing of the body is under a chip: not the head, not a hand.
            expect(overlap(chip, picture), `${what}: ${chip.fault.code} over the drawing`).toBe(false);
            expect(chip.left >= 0 && chip.left + chip.width <= stage.width, what).toBe(true);
            expect(chip.top >= 0 && chip.top + chip.height <= stage.height, what).toBe(true);
            expect(
              places.chips.slice(i + 1).some((other) => overlap(chip, other)),
              what,
            ).toBe(false);
          });
        }
      }
    },
  );
});

describe("faults on a phone", () => {
  const stage = { width: 358, height: 460 };

  it("stand in a grid, and the body carries their keys", () => {
    for (const line of (drawn as unknown as Drawing[]).filter((l) => l.faults.length > 6)) {
      const { figure, faults } = asDrawn(line, false);
      const places = placesOf(faults, figure, stage);
      expect(places.leaders).toEqual([]);
      const keys = places.letters.flatMap((l) => l.keys.split(" "));
      expect(keys.sort()).toEqual(faults.map((f) => f.key).sort());
      for (const chip of places.chips) {
        expect(chip.height).toBeGreaterThanOrEqual(44);
        expect(chip.left + chip.width).toBeLessThanOrEqual(stage.width);
        expect(chip.top + chip.height).toBeLessThanOrEqual(stage.height);
      }
    }
  });
});
