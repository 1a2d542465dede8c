import { describe, expect, it } from "vitest";
import { StampClock } from "./clock";

function clocks() {
  const at = { wall: 1_000_000, steady: 500 };
  const clock = new StampClock({ wall: () => at.wall, steady: () => at.steady });
  const pass = (ms: number) => {
    at.wall += ms;
    at.steady += ms;
  };
  return { at, clock, pass };
}

describe("stamps", () => {
  it("are as far apart as the time that passed", () => {
    const { clock, pass } = clocks();
    const first = clock.stamp();
    pass(7300);
    expect(clock.stamp() - first).toBe(7300);
  });

  it("stay so when somebody sets the clock back an hour in the middle of a hold", () => {
    const { at, clock, pass } = clocks();
    const first = clock.stamp();
    pass(4000);
    at.wall -= 3_600_000;
    pass(6000);
    expect(clock.stamp() - first).toBe(10_000);
    pass(2000);
    expect(clock.stamp() - first).toBe(12_000);
  });

  it("count the time a tablet slept, in which only the wall clock goes on", () => {
    const { at, clock, pass } = clocks();
    const first = clock.stamp();
    at.wall += 45_000;
    pass(500);
    expect(clock.stamp() - first).toBe(45_500);
  });

  it("are never before what another tablet with a faster clock has noted, and durations go on from there", () => {
    const { clock, pass } = clocks();
    const theirs = 1_000_000 + 300_000;
    const taken = clock.stamp(theirs);
    expect(taken).toBeGreaterThan(theirs);
    pass(3000);
    expect(clock.stamp(taken) - taken).toBe(3000);
  });

  it("never repeat, so that two taps in one millisecond keep their order", () => {
    const { clock } = clocks();
    const stamps = [clock.stamp(), clock.stamp(), clock.stamp()];
    expect(new Set(stamps).size).toBe(3);
    expect([...stamps].sort((a, b) => a - b)).toEqual(stamps);
  });
});
