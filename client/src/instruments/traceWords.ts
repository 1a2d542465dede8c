import type { TraceView } from "../api/types";
import { say } from "../words/say";

/** "The trace of pressure: control was lost once; 2 reps seen", for who does not see the picture. */
export function traceWords(view: TraceView) {
  const { losses, reps } = view.reading;
  const times =
    losses.length === 1
      ? say("instruments.once")
      : say("instruments.losses-times", { losses: losses.length });
  const lost =
    losses.length === 0
      ? say("instruments.control-was-not-lost")
      : say("instruments.control-was-lost-times", { times });
  return say("instruments.the-trace-of-channels-lost", {
    channels: view.setup.channels.map((c) => c.name.toLowerCase()).join(", "),
    lost,
    reps: reps.length,
  });
}
