import { useEffect } from "react";

const touches = ["pointerdown", "keydown", "wheel"] as const;

/** Calls when nothing was touched for so long; a tablet that slept meanwhile says so when it wakes. */
export function useIdle(minutes: number, enabled: boolean, onIdle: () => void) {
  useEffect(() => {
    if (!enabled) return;
    let last = Date.now();
    const touched = () => {
      last = Date.now();
    };
    const look = () => {
      if (Date.now() - last >= minutes * 60_000) onIdle();
    };
    for (const touch of touches) window.addEventListener(touch, touched, true);
    document.addEventListener("visibilitychange", look);
    const timer = setInterval(look, 1000);
    return () => {
      for (const touch of touches) window.removeEventListener(touch, touched, true);
      document.removeEventListener("visibilitychange", look);
      clearInterval(timer);
    };
  }, [minutes, enabled, onIdle]);
}
