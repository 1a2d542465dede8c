import type { RepGuide } from "../api/types";

export type Phase = "out" | "hold" | "back" | "check" | "ready";

/** Where a rep at the asked tempo is by now. */
export interface TempoNow {
  phase: Phase;
  /** Of the phase, 0 to 1. */
  done: number;
  /** Seconds left of the phase; 0 where it waits. */
  left: number;
  /** Of the movement, 0 at its start, 1 at its end. */
  share: number;
}

/**
 * @param since seconds since the last rep was counted, or since the set began
 * @param held seconds of the hold that runs; null outside one
 * @param first no rep was counted yet
 */
export function tempoAt(guide: RepGuide, since: number, held: number | null, first: boolean): TempoNow {
  if (guide.hold > 0) return heldTempo(guide, since, held, first);
  const round = guide.out + guide.back + guide.check;
  if (round <= 0) return { phase: "ready", done: 0, left: 0, share: 0 };
  // After one round it waits for the rep to be counted instead of running ahead of the client.
  if (since >= round) return { phase: "ready", done: 1, left: 0, share: 0 };
  if (since < guide.out) return out(guide, since);
  return since < guide.out + guide.back
    ? back(guide, since - guide.out)
    : check(guide, since - guide.out - guide.back);
}

function heldTempo(guide: RepGuide, since: number, held: number | null, first: boolean): TempoNow {
  if (held !== null) {
    return {
      phase: "hold",
      done: Math.min(1, held / guide.hold),
      left: Math.max(0, guide.hold - held),
      share: 1,
    };
  }
  // A counted rep ends its hold: the way back comes first, then the next way out.
  const returning = first ? 0 : guide.back + guide.check;
  if (since < returning) {
    return since < guide.back ? back(guide, since) : check(guide, since - guide.back);
  }
  if (since < returning + guide.out) return out(guide, since - returning);
  return { phase: "ready", done: 1, left: 0, share: 1 };
}

const out = (guide: RepGuide, t: number): TempoNow => ({
  phase: "out",
  done: t / guide.out,
  left: guide.out - t,
  share: t / guide.out,
});

const back = (guide: RepGuide, t: number): TempoNow => ({
  phase: "back",
  done: t / guide.back,
  left: guide.back - t,
  share: 1 - t / guide.back,
});

/** The beat at the return: is the back where it was? */
const check = (guide: RepGuide, t: number): TempoNow => ({
  phase: "check",
  done: t / guide.check,
  left: guide.check - t,
  share: 0,
});

/** A rep in less than half its tempo is rushed; common practice. */
export const isRushed = (guide: RepGuide, tookSeconds: number) =>
  guide.out + guide.back > 0 && tookSeconds < (guide.out + guide.hold + guide.back + guide.check) / 2;
