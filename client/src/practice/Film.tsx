import { useEffect, useMemo, useRef } from "react";
import { useTheme } from "styled-components";
import type { ClipFrame, ClipPictures } from "../api/types";
import { pathOf, useLook } from "../figure/FigureView";
import { between, filled, placeAt } from "./film";

/** A page out of sight draws nothing: what passes meanwhile beyond this is not played, seconds. */
const gapMost = 0.25;

/** Shows a clip, as many pictures a second as the screen has. Drawn past React: nothing else on the page changes with it. */
export function Film(props: {
  clip: ClipPictures;
  /** The same with nothing giving way, as an outline over it. */
  clean?: ClipFrame[] | null;
  playing: boolean;
  /** 1: as fast as it was. */
  speed: number;
  loops?: boolean;
  /** Seconds of the clip that have been shown; written here, read by who marks. */
  clock: React.RefObject<number>;
  onEnd?: () => void;
}) {
  const { clip, clean, playing, speed, loops, clock, onEnd } = props;
  const { colour } = useTheme();
  const look = useLook();
  const shapes = useRef<(SVGPathElement | null)[]>([]);
  const ghosts = useRef<(SVGPathElement | null)[]>([]);
  const first = useMemo(() => clip.figure.shapes.map((shape) => shape.outlines), [clip]);
  const pictures = useMemo(() => filled(clip.frames, first), [clip, first]);
  // Only rims: sections within the trunk would be lines through it.
  const outline = useMemo(
    () => clean && filled(clean, first).map((shapes) => shapes.map((outlines) => outlines.slice(0, 1))),
    [clean, first],
  );
  const body = clip.figure.shapes.map((shape) => shape.role !== "floor" && shape.role !== "prop");
  useEffect(() => {
    const count = pictures.length;
    const draw = () => {
      const { first, second, part } = placeAt(clock.current, clip.perSecond, count);
      clip.figure.shapes.forEach((_, i) => {
        const of = (all: number[][][][]) => pathOf(between(all[first]![i]!, all[second]![i]!, part));
        shapes.current[i]?.setAttribute("d", of(pictures));
        if (outline) ghosts.current[i]?.setAttribute("d", of(outline));
      });
    };
    draw();
    if (!playing) return;
    let before = performance.now();
    let request = requestAnimationFrame(function tick(now) {
      clock.current += Math.min(gapMost, Math.max(0, now - before) / 1000) * speed;
      before = now;
      const over = clock.current >= (count - 1) / clip.perSecond;
      if (over && loops) clock.current = 0;
      draw();
      if (over && !loops) onEnd?.();
      else request = requestAnimationFrame(tick);
    });
    return () => cancelAnimationFrame(request);
  }, [clip, pictures, outline, playing, speed, loops, clock, onEnd]);
  return (
    <>
      {clip.figure.shapes.map((shape, i) => (
        <path
          key={shape.part}
          ref={(path) => {
            shapes.current[i] = path;
          }}
          paintOrder="stroke"
          strokeLinejoin="round"
          {...look[shape.role]}
        />
      ))}
      {outline &&
        clip.figure.shapes.map(
          (shape, i) =>
            body[i] && (
              <path
                key={`clean-${shape.part}`}
                ref={(path) => {
                  ghosts.current[i] = path;
                }}
                fill="none"
                stroke={colour.clay}
                strokeWidth={6}
                strokeDasharray="18 12"
                strokeLinejoin="round"
              />
            ),
        )}
    </>
  );
}
