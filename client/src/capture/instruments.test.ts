import { describe, expect, it } from "vitest";
import type { LivePart } from "../api/types";
import { proposalsOf, repProposals } from "./proposals";
import { Ahead, append, next, type Loss, type SeenRep, type TraceState } from "./useTrace";

const part = (fields: Partial<LivePart> = {}): LivePart => ({
  now: "2026-03-02T09:00:10.000Z",
  connected: true,
  battery: 0.9,
  at: "2026-03-02T09:00:09.900Z",
  values: [],
  neutral: null,
  lost: false,
  losses: null,
  reps: null,
  ...fields,
});

const empty: TraceState = {
  connected: true,
  battery: 0.9,
  neutral: null,
  lost: false,
  losses: [],
  reps: [],
};

describe("the clock of the server against that of the tablet", () => {
  it("is told by the quickest message", () => {
    const ahead = new Ahead();
    expect(ahead.of(1000, 5250)).toBe(4250);
    expect(ahead.of(2000, 6020)).toBe(4020);
    expect(ahead.of(3000, 7900)).toBe(4020);
  });
});

describe("a batch of samples", () => {
  it("is laid out by its rate from its first moment on, in the tablet's time", () => {
    const samples = { at: [], values: [] };
    append(samples, part({ values: [[1], [2]] }), 500, 50);
    const first = Date.parse("2026-03-02T09:00:10.400Z");
    expect(samples.at).toEqual([first, first + 20]);
  });

  it("alone changes nothing that React has to draw", () => {
    expect(next(empty, part({ values: [[1], [2]] }), 0)).toBe(empty);
    expect(next(empty, part({ lost: true }), 0)).not.toBe(empty);
  });

  it("does not forget the losses when it has none to tell, or the connection goes, and does when neutral is taken anew", () => {
    const loss = {
      channel: "pitch",
      fault: "arch",
      means: null,
      onset: "2026-03-02T09:00:05.000Z",
      end: null,
      excursion: 8,
    } as const;
    const neutral = [0, 0, 0];
    const told = next(empty, part({ losses: [loss], neutral }), 1000);
    expect(told.losses[0]?.onset).toBe(Date.parse("2026-03-02T09:00:06.000Z"));
    expect(next(told, part({ neutral }), 1000).losses).toHaveLength(1);
    expect(next(told, part({ connected: false, losses: [] }), 1000).losses).toHaveLength(1);
    expect(next(told, part({ losses: [], neutral }), 1000).losses).toHaveLength(0);
  });
});

describe("marks proposed by an instrument", () => {
  const loss = (onset: number): Loss => ({ channel: "pitch", fault: "arch", onset, end: null, excursion: 8 });
  const trial = { startedAt: 10_000, endedAt: null, holdSince: 14_000, marks: [] };

  it("are those of the running trial only", () => {
    const ended = { ...trial, endedAt: 20_000 };
    const onsets = (t: typeof trial | typeof ended) =>
      proposalsOf([loss(9_000), loss(15_000), loss(21_000)], t, new Map()).map((p) => p.loss.onset);
    expect(onsets(trial)).toEqual([15_000, 21_000]);
    expect(onsets(ended)).toEqual([15_000]);
  });

  it("are not proposed again once they were kept, also after a reload and a little moved, nor when they were seen by eye", () => {
    const mark = {
      id: "m",
      fault: "arch",
      means: null,
      rep: 1,
      second: 1,
      breaking: true,
      spoils: true,
      persists: false,
      afterCue: false,
    };
    const kept = { ...trial, marks: [{ ...mark, at: 15_200, instrument: "tilt" as const }] };
    expect(proposalsOf([loss(15_000), loss(18_000)], kept, new Map()).map((p) => p.loss.onset)).toEqual([
      18_000,
    ]);
    const seen = { ...trial, marks: [{ ...mark, at: 15_900, instrument: null }] };
    expect(proposalsOf([loss(15_000)], seen, new Map())).toHaveLength(0);
    const other = { ...trial, marks: [{ ...mark, fault: "breath-hold", at: 15_200, instrument: null }] };
    expect(proposalsOf([loss(15_000)], other, new Map())).toHaveLength(1);
  });

  it("say where they fall and can be moved, but never before the trial", () => {
    expect(proposalsOf([loss(16_500)], trial, new Map())[0]?.words).toBe("2.5 s into the hold");
    expect(proposalsOf([loss(12_000)], trial, new Map())[0]?.words).toBe("2.0 s into the trial");
    expect(proposalsOf([loss(16_500)], trial, new Map([[16_500, -200]]))[0]?.at).toBe(16_300);
    expect(proposalsOf([loss(10_100)], trial, new Map([[10_100, -400]]))[0]?.at).toBe(10_001);
  });
});

describe("reps proposed by an instrument", () => {
  const rep: SeenRep = { start: 12_000, top: 13_000, leaves: 15_000, end: 16_000 };
  const trial = (reps: number[] = [], rushedAt?: number) => ({
    startedAt: 10_000,
    endedAt: null,
    reps: reps.map((at) => ({
      number: 1,
      held: 0,
      cleanHeld: 0,
      broken: false,
      cued: false,
      amount: null,
      range: null,
      took: null,
      at,
    })),
    marks:
      rushedAt === undefined
        ? []
        : [
            {
              id: "m",
              fault: "rush",
              means: "rush" as const,
              rep: 1,
              second: null,
              breaking: true,
              spoils: true,
              persists: false,
              afterCue: false,
              at: rushedAt,
              instrument: null,
            },
          ],
  });
  const kinds = (of: ReturnType<typeof trial>, asked = 0, now = 30_000) =>
    repProposals([rep], of, asked, now).map((p) => p.kind);

  it("are those nobody counted by hand, a little early or late", () => {
    expect(kinds(trial())).toEqual(["count"]);
    expect(kinds(trial([12_500]))).toEqual([]);
    expect(kinds(trial([17_000]))).toEqual([]);
    expect(kinds(trial([20_000]))).toEqual(["count"]);
  });

  it("wait for the hand that may still count them, and begin with the trial", () => {
    expect(kinds(trial(), 0, 17_000)).toEqual([]);
    expect(kinds({ ...trial(), startedAt: 13_000 })).toEqual([]);
  });

  it("are told as rushed once counted, in less than half the asked time, unless somebody marked it", () => {
    expect(kinds(trial([16_000]), 6)).toEqual([]);
    expect(kinds(trial([16_000]), 9)).toEqual(["rushed"]);
    expect(kinds(trial([16_000], 16_000), 9)).toEqual([]);
    expect(kinds(trial([16_000]), 0)).toEqual([]);
  });
});
