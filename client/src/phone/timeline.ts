import type { ProgrammeSide } from "./programme";

export type Phase = "in" | "out" | "hold" | "back" | "done";

/** Seconds counted in before the first rep. */
export const countIn = 3;

export interface Moment {
  phase: Phase;
  /** Whole reps done. */
  done: number;
  /** How far the movement has got, 0 to 1. */
  share: number;
  /** Whole seconds left of this phase, counted up. */
  left: number;
}

/** Seconds of one rep; where neither a hold nor a tempo is asked, three: slow enough to be seen. */
export const repSeconds = ({ minutes, hold, out, back }: ProgrammeSide) =>
  minutes ? 60 : out + hold + back || 3;

/** Where a set is, this long after its count-in began. */
export function momentAt(side: ProgrammeSide, reps: number, seconds: number): Moment {
  if (seconds < countIn) return { phase: "in", done: 0, share: 0, left: Math.ceil(countIn - seconds) };
  const whole = repSeconds(side);
  const since = seconds - countIn;
  const done = Math.floor(since / whole + 1e-9);
  if (done >= reps) return { phase: "done", done: reps, share: 0, left: 0 };
  const t = Math.max(0, since - done * whole);
  const [out, hold] = side.minutes
    ? [0, 60]
    : side.out + side.hold + side.back > 0
      ? [side.out, side.hold]
      : [1.5, 0];
  if (t < out) return { phase: "out", done, share: t / out, left: Math.ceil(out - t) };
  if (t < out + hold) return { phase: "hold", done, share: 1, left: Math.ceil(out + hold - t) };
  const back = whole - out - hold;
  return { phase: "back", done, share: Math.max(0, 1 - (t - out - hold) / back), left: Math.ceil(whole - t) };
}
