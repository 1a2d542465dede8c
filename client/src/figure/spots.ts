import type { PhotoAngle, PhotoPoint, PhotoReading, PhotoSpot, PhotoView } from "../api/types";
import { say } from "../words/say";

/** Everything that is pointed at: places on the body, both ends of a known length, both ends of an upright. */
export type SpotName = PhotoPoint | "length-from" | "length-to" | "plumb-top" | "plumb-bottom";
export type Spots = Partial<Record<SpotName, PhotoSpot>>;

export const aids: SpotName[] = ["length-from", "length-to", "plumb-top", "plumb-bottom"];

export const spotWords: Record<SpotName, string> = {
  "hip-bone-left": say("figure.left-hip-bone"),
  "hip-bone-right": say("figure.right-hip-bone"),
  "shoulder-left": say("figure.left-shoulder"),
  "shoulder-right": say("figure.right-shoulder"),
  "hip-bone-front": say("figure.front-hip-bone"),
  "hip-bone-back": say("figure.back-hip-bone"),
  "hip-side": say("figure.side-of-the-hip"),
  knee: say("figure.knee"),
  ankle: say("figure.ankle"),
  ear: say("figure.ear"),
  shoulder: say("figure.shoulder"),
  "length-from": say("figure.known-length-one-end"),
  "length-to": say("figure.known-length-other-end"),
  "plumb-top": say("figure.an-upright-its-top"),
  "plumb-bottom": say("figure.an-upright-its-bottom"),
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
  front: say("figure.in-front"),
  back: say("figure.behind"),
  "facing-left": say("figure.facing-left"),
  "facing-right": say("figure.facing-right"),
};

export const angleNames: Record<PhotoAngle["kind"], string> = {
  "pelvic-tilt": say("figure.pelvic-tilt"),
  "pelvis-to-trunk": say("figure.pelvis-to-trunk"),
  "side-drop": say("figure.side-drop"),
  "trunk-lean": say("figure.trunk-lean"),
  hip: say("figure.hip"),
  knee: say("figure.knee-2"),
  "head-lean": say("figure.head"),
};

/** "Pelvic tilt 12° the front lower, 2.1 cm". */
export function angleWords(angle: PhotoAngle) {
  const signed = angle.kind === "hip" || angle.kind === "knee" ? angle.degrees : Math.abs(angle.degrees);
  const cm =
    angle.centimetres == null
      ? ""
      : say("figure.centimetres-cm", { centimetres: angle.centimetres.toFixed(1) });
  return { name: angleNames[angle.kind], value: `${signed.toFixed(0)}°`, words: `${angle.words}${cm}` };
}
