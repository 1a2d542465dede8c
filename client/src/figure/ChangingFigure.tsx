import { useState } from "react";
import { useChangeFrames } from "../api/queries";
import type { Side } from "../api/types";
import { FigureView } from "./FigureView";
import { changeFrameAt, changeRest, changeSeconds, reducedMotion } from "./motion";
import { useElapsed } from "./useElapsed";

/**
 * Moves once from the rung that was to the one that takes its place, then shows what stands there at rest; at once where there
 * was none, where motion is to be reduced, and where the body would have to turn over.
 */
export function ChangingFigure(props: {
  before: string | null;
  rungId: string;
  side: Side;
  width: number | string;
  height: number | string;
  children: React.ReactNode;
}) {
  const { rungId, side } = props;
  const before = reducedMotion() ? null : props.before;
  const { data: frames } = useChangeFrames(before, rungId, side);
  const way = `${before} ${rungId} ${side}`;
  const [over, setOver] = useState<string | null>(null);
  const elapsed = useElapsed(frames !== undefined && frames.length > 0 && over !== way, way);
  if (over !== way && elapsed >= changeRest + changeSeconds) setOver(way);
  const frame = over === way ? undefined : frames?.[changeFrameAt(elapsed, frames.length)];
  if (!frame) return props.children;
  return (
    <div style={{ width: props.width, height: props.height, maxWidth: "100%" }}>
      <FigureView figure={frame} />
    </div>
  );
}
