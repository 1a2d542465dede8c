import { useEffect, useState } from "react";

/** A page out of sight draws nothing: what passes meanwhile beyond this counts for nothing, seconds. */
const gapMost = 0.25;

/** Seconds that ran, picture by picture: not while it rests, and from 0 again where it is for something else. */
export function useElapsed(running: boolean, what = ""): number {
  const [ran, setRan] = useState({ what, seconds: 0 });
  if (ran.what !== what) setRan({ what, seconds: 0 });
  useEffect(() => {
    if (!running) return;
    let before = performance.now();
    let request = requestAnimationFrame(function tick(now) {
      const passed = Math.min(gapMost, Math.max(0, now - before) / 1000);
      before = now;
      setRan((r) => ({ what, seconds: (r.what === what ? r.seconds : 0) + passed }));
      request = requestAnimationFrame(tick);
    });
    return () => cancelAnimationFrame(request);
  }, [running, what]);
  return ran.what === what ? ran.seconds : 0;
}
