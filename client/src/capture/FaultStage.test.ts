import { describe, expect, it } from "vitest";
import type { Fault, Figure } from "../api/types";
import { placeRow, rowsFor } from "./FaultStage";

const regions = ["low-back", "ribs", "foot", "knee", "hips", "shoulder", "breath", "tempo", "effort"];
const fault = (region: string, i: number) => ({ code: `f${i}`, region }) as Fault;
const faults = regions.map(fault);
const figure = {
  anchors: regions.map((region, i) => ({ region, at: { x: (i * 37) % 100, y: -i * 50 } })),
} as Figure;

describe("the faults round the figure", () => {
  it.each([280, 420, 700, 760, 1000])("keep every fault once at a width of %i", (width) => {
    const rows = rowsFor(faults, figure, width);
    const placed = [...rows.top, ...rows.bottom].flat().map((f) => f.code);
    expect(placed.sort()).toEqual(faults.map((f) => f.code).sort());
  });

  it("put the lowest regions below and the others above", () => {
    const rows = rowsFor(faults, figure, 760);
    const y = (f: Fault) => figure.anchors.find((a) => a.region === f.region)!.at.y;
    const highestBelow = Math.min(...rows.bottom.flat().map(y));
    expect(rows.top.flat().every((f) => y(f) <= highestBelow)).toBe(true);
  });

  it.each([420, 760, 1000])(
    "never overlap, never leave the stage, and their lines do not cross, at %i",
    (width) => {
      const anchor = (f: Fault) => figure.anchors.find((a) => a.region === f.region)!.at;
      const rows = rowsFor(faults, figure, width);
      for (const row of [...rows.top, ...rows.bottom]) {
        const placed = placeRow(row, 0, true, width, anchor);
        placed.forEach((p, i) => {
          expect(p.left).toBeGreaterThanOrEqual(0);
          expect(p.left + p.width).toBeLessThanOrEqual(width);
          const next = placed[i + 1];
          if (next) {
            expect(next.left).toBeGreaterThanOrEqual(p.left + p.width);
            expect(next.to.x).toBeGreaterThanOrEqual(p.to.x);
          }
        });
      }
    },
  );

  it("have room for a finger even where the stage is narrow", () => {
    const rows = rowsFor(faults, figure, 300);
    for (const row of [...rows.top, ...rows.bottom]) {
      for (const p of placeRow(row, 0, true, 300, () => ({ x: 0, y: 0 })))
        expect(p.width).toBeGreaterThanOrEqual(56);
    }
  });
});
