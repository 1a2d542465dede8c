import type { ClipFrame } from "../api/types";

type Outlines = number[][];

/** Every shape in every picture: what lies as before is empty in a clip, and stands here again. */
export function filled(frames: ClipFrame[], first: Outlines[]): Outlines[][] {
  let before = first;
  return frames.map(
    (frame) => (before = frame.shapes.map((shape, i) => (shape.length > 0 ? shape : (before[i] ?? [])))),
  );
}

/** A point farther away than this from picture to picture did not go there: the outline is told otherwise, millimetres. */
const leapMost = 250;

/** A shape between two pictures; where its outlines do not fit each other, the nearer one. */
export function between(from: Outlines, to: Outlines, part: number): Outlines {
  if (part <= 0 || from === to) return from;
  const fits = from.length === to.length && from.every((o, i) => o.length === to[i]!.length);
  if (!fits) return part < 0.5 ? from : to;
  return from.map((outline, i) => {
    const end = to[i]!;
    return outline.map((at, k) => {
      const by = end[k]! - at;
      return Math.abs(by) > leapMost ? (part < 0.5 ? at : end[k]!) : Math.round((at + by * part) * 10) / 10;
    });
  });
}

/** Which pictures a moment lies between, and how far on the way; the last one stays. */
export function placeAt(seconds: number, perSecond: number, count: number) {
  const at = Math.min(Math.max(0, seconds * perSecond), count - 1);
  const first = Math.min(Math.floor(at), Math.max(0, count - 2));
  return { first, second: Math.min(first + 1, count - 1), part: at - first };
}
