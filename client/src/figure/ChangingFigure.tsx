import { useEffect, useState } from "react";
import { useChangeFrames } from "../api/queries";
import type { Side } from "../api/types";
import { FigureView } from "./FigureView";
import { changeFrameAt, reducedMotion } from "./motion";

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
  const index = useOnce(frames?.length ?? 0, `${before} ${rungId} ${side}`);
  const frame = index === null ? undefined : frames?.[index];
  if (!frame) return props.children;
  return (
    <div style={{ width: props.width, height: props.height, maxWidth: "100%" }}>
      <FigureView figure={frame} />
    </div>
  );
}

/** Which of `count` pictures shows; null before they are there and after the last. */
function useOnce(count: number, what: string) {
  const [shown, setShown] = useState<{ what: string; index: number | null }>({ what, index: 0 });
  useEffect(() => {
    if (count === 0) return;
    const began = performance.now();
    let request = requestAnimationFrame(function tick(now) {
      const index = changeFrameAt((now - began) / 1000, count);
      setShown({ what, index });
      if (index !== null) request = requestAnimationFrame(tick);
    });
    return () => cancelAnimationFrame(request);
  }, [count, what]);
  return count === 0 ? null : shown.what === what ? shown.index : 0;
}
