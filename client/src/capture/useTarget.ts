import { useEffect } from "react";
import type { LiveTrialState } from "./liveTrial";
import { signalTarget } from "./signals";
import { clock } from "./useCapture";

/**
 * Tells when a hold has lasted as long as asked, and does what is done then. A hold that was past that when it came here (its
 * end was undone, the page loaded anew, something else was asked meanwhile) waits for a hand.
 *
 * @param atTarget null: it is told, and nothing is done
 */
export function useTarget(trial: LiveTrialState, atTarget: (() => void) | null) {
  const { holdSince } = trial;
  const { hold } = trial.target;
  const acts = atTarget !== null;
  useEffect(() => {
    if (holdSince === null || hold <= 0) return;
    const left = holdSince + hold * 1000 - clock.now();
    if (left <= 0) return;
    const timer = setTimeout(() => {
      signalTarget();
      atTarget?.();
    }, left);
    return () => clearTimeout(timer);
    // A timer belongs to one hold; a new "atTarget" does the same as the old one.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [holdSince, hold, acts]);
}
