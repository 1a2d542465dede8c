import { useFrames } from "../api/queries";
import type { Side } from "../api/types";
import { FigureView } from "./FigureView";
import { frameAt, reducedMotion } from "./motion";
import { useElapsed } from "./useElapsed";

/** The movement out and back at its own slow pace; where motion is to be reduced, one picture at a time by a slider. */
export function MovingFigure(props: {
  rungId: string;
  side: Side;
  /** Seconds out and back, without the hold. */
  moveSeconds: number;
  playing: boolean;
  /** Share of the movement shown while it does not play. */
  share: number;
}) {
  const { data: frames } = useFrames(props.rungId, props.side, true);
  const index = useFrameIndex(frames?.length ?? 0, props.moveSeconds, props.playing, props.share);
  const frame = frames?.[index];
  return frame ? <FigureView figure={frame} /> : null;
}

function useFrameIndex(count: number, moveSeconds: number, playing: boolean, share: number) {
  const moves = playing && !reducedMotion();
  const elapsed = useElapsed(moves);
  if (count === 0) return 0;
  return moves ? frameAt(elapsed, moveSeconds, count) : Math.round(share * (count - 1));
}
