import type { PhotoAngle, PhotoPoint, PhotoReading, PhotoSpot, PhotoView } from "../api/types";

/** Everything that is pointed at: places on the body, both ends of a known length, both ends of an upright. */
export type SpotName = PhotoPoint | "length-from" | "length-to" | "plumb-top" | "plumb-bottom";
export type Spots = Partial<Record<SpotName, PhotoSpot>>;

export const aids: SpotName[] = ["length-from", "length-to", "plumb-top", "plumb-bottom"];

export const spotWords: Record<SpotName, string> = {
  "hip-bone-left": "left hip bone",
  "hip-bone-right": "right hip bone",
  "shoulder-left": "left shoulder",
  "shoulder-right": "right shoulder",
  "hip-bone-front": "front hip bone",
  "hip-bone-back": "back hip bone",
  "hip-side": "side of the hip",
  knee: "knee",
  ankle: "ankle",
  ear: "ear",
  shoulder: "shoulder",
  "length-from": "known length, one end",
  "length-to": "known length, other end",
  "plumb-top": "an upright, its top",
  "plumb-bottom": "an upright, its bottom",
};

/** What is asked for next: the first place on the body without a point. */
export const nextOf = (asked: PhotoPoint[], spots: Spots): SpotName | null =>
  asked.find((point) => !spots[point]) ?? null;

/** Lines between the points that are there, as they are read. */
export const lines: [SpotName, SpotName][] = [
  ["hip-bone-left", "hip-bone-right"],
  ["shoulder-left", "shoulder-right"],
  ["hip-bone-back", "hip-bone-front"],
  ["hip-side", "shoulder"],
  ["hip-side", "knee"],
  ["knee", "ankle"],
  ["shoulder", "ear"],
  ["length-from", "length-to"],
  ["plumb-top", "plumb-bottom"],
];

/** @param centimetres of the known length; without it that is left out */
export function readingOf(
  view: PhotoView,
  size: { width: number; height: number },
  asked: PhotoPoint[],
  spots: Spots,
  centimetres: number | null,
): PhotoReading {
  const { "length-from": from, "length-to": to, "plumb-top": top, "plumb-bottom": bottom } = spots;
  return {
    view,
    width: size.width,
    height: size.height,
    points: asked.flatMap((point) => (spots[point] ? [{ point, at: spots[point] }] : [])),
    length: from && to && centimetres !== null ? { from, to, centimetres } : null,
    plumb: top && bottom ? { top, bottom } : null,
    image: null,
  };
}

export function spotsOf(photo: PhotoReading): Spots {
  const spots: Spots = Object.fromEntries(photo.points.map((p) => [p.point, p.at]));
  if (photo.length) Object.assign(spots, { "length-from": photo.length.from, "length-to": photo.length.to });
  if (photo.plumb) Object.assign(spots, { "plumb-top": photo.plumb.top, "plumb-bottom": photo.plumb.bottom });
  return spots;
}

/** From where a picture is seen, or where its client looks. */
export const viewWords: Record<PhotoView, string> = {
  front: "in front",
  back: "behind",
  "facing-left": "facing left",
  "facing-right": "facing right",
};

const angleNames: Record<PhotoAngle["kind"], string> = {
  "pelvic-tilt": "Pelvic tilt",
  "pelvis-to-trunk": "Pelvis to trunk",
  "side-drop": "Side drop",
  "trunk-lean": "Trunk lean",
  hip: "Hip",
  knee: "Knee",
  "head-lean": "Head",
};

/** "Pelvic tilt 12° the front lower, 2.1 cm". */
export function angleWords(angle: PhotoAngle) {
  const signed = angle.kind === "hip" || angle.kind === "knee" ? angle.degrees : Math.abs(angle.degrees);
  const cm = angle.centimetres == null ? "" : `, ${angle.centimetres.toFixed(1)} cm`;
  return { name: angleNames[angle.kind], value: `${signed.toFixed(0)}°`, words: `${angle.words}${cm}` };
}
