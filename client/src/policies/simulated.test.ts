import { describe, expect, it } from "vitest";
import type { Simulated } from "../api/types";
import { simulatedNote, triedWords } from "./simulated";

const figures = (up12: number) => ({
  up12,
  up12Error: 0.02,
  flared: 0.2,
  flaredError: 0.02,
  tooEarly: up12 === 0 ? null : 0.09,
  tooEarlyError: 0.01,
});

const run: Simulated = {
  nature: "typical",
  clients: 333,
  seed: 1,
  policyId: "mastery",
  asItIs: figures(0.7),
  changed: [
    { path: "judgement.readyVisits", value: 1, figures: figures(0.74) },
    { path: "judgement.readyVisits", value: 3, figures: figures(0.6) },
    { path: "weeklyGrowth", value: 0.1, figures: figures(0) },
  ],
};

describe("what simulation says of a choice", () => {
  it("tells each value that was tried, with its figures", () =>
    expect(triedWords(run, "judgement.readyVisits", "visits")).toBe(
      "In simulation: 1 visit: 74 % up, 20 % flared, 9 % of steps too early; 3 visits: 60 % up, 20 % flared, 9 % of steps too early.",
    ));
  it("leaves out what nobody did", () =>
    expect(triedWords(run, "weeklyGrowth", "")).toBe("In simulation: 0.1: 0 % up, 20 % flared."));
  it("says nothing where nothing was tried", () =>
    expect(triedWords(run, "settleHours", "hours")).toBeNull());
  it("says how large a difference has to be", () =>
    expect(simulatedNote(run)).toContain("under 8 % may be chance"));
});
