/** Clocks as the browser has them: the wall clock, and one that only goes forward while the page lives. */
export interface Clocks {
  wall: () => number;
  /** Milliseconds since the page began; stands still while some devices sleep, never goes back. */
  steady: () => number;
}

/** A jump of the wall clock by less than this is drift or sleep, not somebody setting the clock. */
const jumpMs = 1500;

/**
 * Stamps for events. Two stamps are as far apart as the time that passed, even when somebody sets the clock of the
 * tablet back or the device slept between them, and a stamp is never before one already known (another tablet's clock
 * may be ahead of this one's).
 */
export class StampClock {
  private offset = 0;
  private lastWall: number;
  private lastSteady: number;
  private lastStamp = 0;

  constructor(private readonly clocks: Clocks = { wall: () => Date.now(), steady: () => performance.now() }) {
    this.lastWall = clocks.wall();
    this.lastSteady = clocks.steady();
  }

  /** Milliseconds since 1970, for showing how long something has run by now. */
  now(): number {
    const wall = this.clocks.wall();
    const steady = this.clocks.steady();
    const passed = steady - this.lastSteady;
    // Set back: the steady clock says how much time passed. Ahead of it: the device slept, and the wall clock is right.
    if (wall - this.lastWall < passed - jumpMs) this.offset += passed - (wall - this.lastWall);
    this.lastWall = wall;
    this.lastSteady = steady;
    return wall + this.offset;
  }

  /** @param known the latest stamp of the visit, whichever tablet made it */
  stamp(known = 0): number {
    const now = this.now();
    const least = Math.max(known, this.lastStamp) + 1;
    // Behind another tablet: go on from there, so that durations from here on are right.
    if (now < least) this.offset += least - now;
    this.lastStamp = Math.max(now, least);
    return this.lastStamp;
  }
}
