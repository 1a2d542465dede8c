import { useMemo } from "react";
import { picturesOf, type Drawing } from "./programme";

/** The outlines of a part at a place between two of its pictures. */
function outlinesAt(pictures: number[][][], place: number): number[][] {
  if (pictures.length === 1) return pictures[0]!;
  const before = Math.min(pictures.length - 2, Math.floor(place));
  const part = place - before;
  return pictures[before]!.map((outline, o) =>
    outline.map((n, i) => Math.round(n + (pictures[before + 1]![o]![i]! - n) * part)),
  );
}

const pathOf = (outlines: number[][]) => outlines.map((o) => `M${o.join(" ")}Z`).join("");

/** The body, as far on its way as `share` says, 0 to 1. */
export function Moving(props: { drawing: Drawing; share: number; words: string }) {
  const { drawing } = props;
  // A sixtieth is finer than a phone shows.
  const step = Math.round(props.share * 60) / 60;
  const shapes = useMemo(
    () => drawing.shapes.map((shape) => ({ role: shape.role, pictures: picturesOf(shape) })),
    [drawing],
  );
  const paths = shapes.map(({ role, pictures }) => ({
    role,
    d: pathOf(outlinesAt(pictures, step * (drawing.count - 1))),
  }));
  return (
    <svg
      role="img"
      aria-label={props.words}
      viewBox={`${drawing.left} ${drawing.top} ${drawing.width} ${drawing.height}`}
      preserveAspectRatio="xMidYMax meet"
    >
      {paths.map((p, i) => (
        <path key={i} className={p.role} d={p.d} />
      ))}
    </svg>
  );
}
