import type { CaptureEvent, EventOf } from "../api/types";
import { effective } from "./liveTrial";

/** Trials that do not count, each with the event that said so. */
export function discardedOf(events: CaptureEvent[], purpose: EventOf<"trial-started">["purpose"]) {
  const standing = effective(events);
  return standing
    .filter((e) => e.kind === "trial-discarded")
    .flatMap((discard) => {
      const start = standing.find((e) => e.trialId === discard.trialId && e.kind === "trial-started");
      return start?.kind === "trial-started" && start.purpose === purpose ? [{ start, discard }] : [];
    });
}
