import { useEffect } from "react";
import { lastTouched, touchedNow } from "./tabletState";

const touches = ["pointerdown", "keydown", "wheel"] as const;

/** Calls when no tab was touched for so long; a tablet that slept meanwhile says so when it wakes. */
export function useIdle(minutes: number, enabled: boolean, onIdle: () => void) {
  useEffect(() => {
    if (!enabled) return;
    const look = () => {
      if (Date.now() - lastTouched() >= minutes * 60_000) onIdle();
    };
    // Loaded anew after so long it is as if it had been open all the while.
    if (lastTouched() === 0) touchedNow();
    else look();
    for (const touch of touches) window.addEventListener(touch, touchedNow, true);
    document.addEventListener("visibilitychange", look);
    const timer = setInterval(look, 1000);
    return () => {
      for (const touch of touches) window.removeEventListener(touch, touchedNow, true);
      document.removeEventListener("visibilitychange", look);
      clearInterval(timer);
    };
  }, [minutes, enabled, onIdle]);
}
