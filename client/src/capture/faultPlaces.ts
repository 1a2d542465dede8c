import type { Fault, Figure } from "../api/types";
import { shortestLines, type At } from "../figure/leaders";

/** At the usual size of letters, px. */
const usualChip = 60;
const gap = 8;
/** A line leaves its chip straight, as far as this, before it turns to the body. */
const straight = 16;
/** Two short words and a key fit in it. */
const smallestChip = 100;
const largestChip = 190;

/** A chip of a fault, px on the stage. */
export interface Chip {
  fault: Fault;
  left: number;
  top: number;
  width: number;
  height: number;
}

/** A line from a chip to where its fault shows: out of the chip, the bend, the body. */
export interface Leader {
  code: string;
  from: At;
  bend: At;
  to: At;
}

/** Faults that show at the same place, told there by the keys of their chips. */
export interface Letters {
  at: At;
  keys: string;
}

export interface Places {
  chips: Chip[];
  leaders: Leader[];
  letters: Letters[];
  /** Where the drawing goes: millimetres of the drawing times the scale, from there. */
  origin: At;
  scale: number;
  /** All of it, px: more than the stage has where letters are large. */
  height: number;
}

type Drawn = Pick<Figure, "left" | "top" | "width" | "height" | "anchors">;

/** The drawing as large as it fits into a part of the stage. */
function fitted(figure: Drawn, room: { top: number; width: number; height: number }) {
  const scale = Math.min(room.width / figure.width, room.height / figure.height);
  const origin = {
    x: (room.width - figure.width * scale) / 2 - figure.left * scale,
    y: room.top + (room.height - figure.height * scale) / 2 - figure.top * scale,
  };
  const place = (fault: Fault): At => {
    const at = figure.anchors.find((a) => a.region === fault.region)?.at ?? { x: 0, y: 0 };
    return { x: origin.x + at.x * scale, y: origin.y + at.y * scale };
  };
  return { scale, origin, place };
}

/**
 * Lays the faults round the drawing: a row above, a row below, each joined to where it shows, no two lines crossing and none
 * over a chip. Where two rows have no room, the chips stand below in a grid and the body carries their keys.
 */
export function placesOf(
  faults: Fault[],
  figure: Drawn,
  size: { width: number; height: number },
  /** How much larger letters are than usual: chips grow with them. */
  letters = 1,
): Places {
  const perRow = Math.ceil(faults.length / 2);
  return perRow === 0 || size.width / perRow - gap >= smallestChip * letters
    ? joined(faults, figure, size, usualChip * letters)
    : lettered(faults, figure, size, letters);
}

function joined(
  faults: Fault[],
  figure: Drawn,
  size: { width: number; height: number },
  chipHeight: number,
): Places {
  const above = Math.floor(faults.length / 2);
  const below = faults.length - above;
  const edge = { top: above > 0 ? chipHeight : 0, bottom: size.height - (below > 0 ? chipHeight : 0) };
  const room = { top: edge.top + straight, width: size.width, height: edge.bottom - edge.top - 2 * straight };
  const { scale, origin, place } = fitted(figure, room);
  const slots = [...row(above, size.width, true), ...row(below, size.width, false)];
  const bend = (slot: Slot): At => ({
    x: slot.centre,
    y: slot.above ? edge.top + straight : edge.bottom - straight,
  });
  const slotOf = shortestLines(faults.map(place), slots.map(bend));
  const mine = faults.map((fault, i) => ({ fault, slot: slots[slotOf[i]!]! }));
  return {
    chips: mine.map(({ fault, slot }) => ({
      fault,
      left: slot.centre - slot.width / 2,
      top: slot.above ? 0 : edge.bottom,
      width: slot.width,
      height: chipHeight,
    })),
    leaders: mine.map(({ fault, slot }) => ({
      code: fault.code,
      from: { x: slot.centre, y: slot.above ? edge.top : edge.bottom },
      bend: bend(slot),
      to: place(fault),
    })),
    letters: [],
    origin,
    scale,
    height: size.height,
  };
}

interface Slot {
  centre: number;
  width: number;
  above: boolean;
}

const row = (count: number, width: number, above: boolean): Slot[] =>
  Array.from({ length: count }, (_, i) => ({
    centre: ((i + 0.5) * width) / count,
    width: Math.min(width / count - gap, largestChip),
    above,
  }));

const usualGridChip = 48;
const smallestDrawing = 90;

function lettered(
  faults: Fault[],
  figure: Drawn,
  size: { width: number; height: number },
  larger: number,
): Places {
  const gridChip = usualGridChip * larger;
  const columns = Math.max(2, Math.floor((size.width + gap) / (smallestChip * larger + gap)));
  const rows = Math.ceil(faults.length / columns);
  const width = (size.width - (columns - 1) * gap) / columns;
  // A drawing is left however large letters are: then the chips go past the stage and the page scrolls.
  const top = Math.max(smallestDrawing, size.height - rows * (gridChip + gap));
  const { scale, origin, place } = fitted(figure, { top: 0, width: size.width, height: top });
  const regions = [...new Set(faults.map((fault) => fault.region))];
  return {
    chips: faults.map((fault, i) => ({
      fault,
      left: (i % columns) * (width + gap),
      top: top + gap + Math.floor(i / columns) * (gridChip + gap),
      width,
      height: gridChip,
    })),
    leaders: [],
    letters: regions.map((region) => {
      const here = faults.filter((fault) => fault.region === region);
      return { at: place(here[0]!), keys: here.map((fault) => fault.key).join(" ") };
    }),
    origin,
    scale,
    height: top + rows * (gridChip + gap),
  };
}
