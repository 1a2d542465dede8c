import { useEffect } from "react";
import type { LiveTrialState } from "./liveTrial";
import { signalTarget } from "./signals";
import { clock } from "./useCapture";

/** Tells when a hold has lasted as long as asked; where seconds are the measure, that also ends it. */
export function useTarget(trial: LiveTrialState, atTarget: (() => void) | null) {
  const { holdSince } = trial;
  const { hold } = trial.target;
  useEffect(() => {
    if (holdSince === null || hold <= 0) return;
    const timer = setTimeout(
      () => {
        signalTarget();
        atTarget?.();
      },
      Math.max(0, holdSince + hold * 1000 - clock.now()),
    );
    return () => clearTimeout(timer);
    // A timer belongs to one hold; a new "atTarget" does the same as the old one.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [holdSince, hold]);
}
