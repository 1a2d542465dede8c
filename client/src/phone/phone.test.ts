import { create } from "qrcode";
import jsQR from "jsqr";
import { describe, expect, it } from "vitest";
import given from "../given/homeCodes.json";
import { base45, codesOf } from "./codes";
import {
  dayBefore,
  emptyDiary,
  isDone,
  morningToAsk,
  nextSet,
  repsOf,
  restsAfter,
  told,
  withSet,
  type Diary,
} from "./diary";
import { bytesMost, bytesOf, pack } from "./pack";
import { exercisesOn, setsOf, type Programme, type ProgrammeSide } from "./programme";
import { countIn, momentAt } from "./timeline";
import { isWhole, noParts, partsIn, withPart } from "../visits/logParts";

/** Random numbers by a seed (mulberry32). */
function random(seed: number) {
  let a = seed;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

function randomDiary(next: () => number): Diary {
  const int = (most: number) => Math.floor(next() * (most + 1));
  const maybe = () => (next() < 0.3 ? null : int(10));
  const days: Diary["days"] = {};
  for (let d = 1 + int(13); d > 0; d--) {
    const sets = Array.from({ length: int(36) }, (_, i) => ({
      column: i % 12,
      set: Math.floor(i / 12),
      reps: int(30),
      effort: maybe(),
      pain: maybe(),
    }));
    days[`2026-12-${String(d).padStart(2, "0")}`] = {
      sets,
      pain: maybe(),
      morning: maybe(),
      stopped: next() < 0.1,
      smaller: [],
      left: [],
    };
  }
  return { ...emptyDiary, days };
}

/** A code as a picture, with as many modules of it turned over as are asked for. */
function seen(text: string, damaged: number, next: () => number) {
  const { modules } = create(text, { errorCorrectionLevel: "M" });
  const { size } = modules;
  const dark = Array.from({ length: size * size }, (_, i) =>
    Boolean(modules.get(Math.floor(i / size), i % size)),
  );
  for (let d = 0; d < damaged; d++) {
    // Not where the finder and timing patterns are: damage there is another kind.
    const [x, y] = [10 + Math.floor(next() * (size - 20)), 10 + Math.floor(next() * (size - 20))];
    dark[y * size + x] = !dark[y * size + x];
  }
  const scale = 3;
  const wide = (size + 8) * scale;
  const data = new Uint8ClampedArray(wide * wide * 4).fill(255);
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++)
      if (dark[y * size + x])
        for (let i = 0; i < scale * scale; i++) {
          const at = 4 * (((y + 4) * scale + Math.floor(i / scale)) * wide + (x + 4) * scale + (i % scale));
          data[at] = data[at + 1] = data[at + 2] = 0;
        }
  return { version: (size - 17) / 4, read: jsQR(data, wide, wide)?.data ?? null };
}

const side = (column: number, of: ProgrammeSide["side"], reps: number[]): ProgrammeSide => ({
  column,
  side: of,
  sideMeans: "",
  reps,
  hold: 5,
  out: 3,
  back: 2,
  rest: 30,
  minutes: false,
  figures: "",
  written: "",
  drawing: { left: 0, top: 0, width: 1, height: 1, count: 1, shapes: [] },
});

const programme = {
  exercises: [
    { days: ["2026-12-01", "2026-12-03"], sides: [side(0, "left", [5, 4]), side(1, "right", [5])] },
    { days: ["2026-12-02"], sides: [side(2, "both", [8, 8])] },
  ],
} as unknown as Programme;

describe("the letters of a code", () => {
  it("are those of RFC 9285, by its examples (from memory)", () => {
    const of = (text: string) => base45(new TextEncoder().encode(text));
    expect([of("AB"), of("Hello!!"), of("base-45"), of("ietf!")]).toEqual([
      "BB8",
      "%69 VD92EX0",
      "UJCLQE7W581",
      "QED8WEX0",
    ]);
  });
});

describe("a log", () => {
  it("is packed as the server reads it", () => {
    for (const { diary, bytes, codes } of given.logs) {
      const packed = pack(given, { ...emptyDiary, days: diary.days as unknown as Diary["days"] });
      expect([...packed]).toEqual([...bytesOf(bytes)]);
      expect(codesOf(packed)).toEqual(codes);
    }
  });

  it("gives its latest days where there are more than four codes hold", () => {
    const full = randomDiary(random(3));
    const day = {
      ...Object.values(full.days)[0]!,
      sets: Array.from({ length: 200 }, (_, i) => ({
        column: i % 20,
        set: Math.floor(i / 20),
        reps: 9,
        effort: 5,
        pain: 1,
      })),
    };
    const diary = {
      ...emptyDiary,
      days: { "2026-12-01": day, "2026-12-02": day, "2026-12-03": day },
    };
    const packed = pack(given, diary);
    expect(packed.length).toBeLessThanOrEqual(bytesMost);
    expect(packed[29]).toBe(2);
    expect(codesOf(packed).length).toBeLessThanOrEqual(4);
  });

  it("comes through any decoder in any order, with damage up to what the code corrects; five hundred of them", () => {
    const next = random(45);
    let worst = 0;
    for (let n = 0; n < 500; n++) {
      const codes = codesOf(pack(given, randomDiary(next)));
      const order = codes.map((code) => ({ code, at: next() })).sort((a, b) => a.at - b.at);
      let parts = noParts;
      for (const { code } of order) {
        // A few damaged modules in a code's data; M corrects about one word in seven.
        const { version, read } = seen(code, n % 5 === 0 ? 8 : 0, next);
        worst = Math.max(worst, version);
        expect(read).toBe(code);
        parts = withPart(parts, read!);
      }
      expect(isWhole(parts)).toBe(true);
      expect(Object.values(parts.codes)).toEqual(codes);
    }
    expect(worst).toBeLessThanOrEqual(20);
  }, 240_000);

  it("begins anew with a part of another log, and takes no part for two", () => {
    const [a, b] = [given.logs[3]!.codes, given.logs[1]!.codes];
    const half = withPart(noParts, a[0]!);
    expect(withPart(half, a[0]!)).toBe(half);
    expect(isWhole(half)).toBe(false);
    expect(withPart(half, b[0]!).codes).toEqual({ 1: b[0] });
    expect(withPart(half, "https://clinic.example")).toBe(half);
    expect(partsIn(`${a.join("\r\n")}\r\nsomething else\n`)).toEqual(a);
  });
});

describe("a day at home", () => {
  it("asks for the exercises of the day, and for all once the days of the plan are over", () => {
    expect(exercisesOn(programme, "2026-12-01")).toEqual([0]);
    expect(exercisesOn(programme, "2026-12-02")).toEqual([1]);
    expect(exercisesOn(programme, "2026-11-30")).toEqual([]);
    expect(exercisesOn(programme, "2026-12-09")).toEqual([0, 1]);
  });

  it("goes set by set, the sides in turn, and on where it was left", () => {
    expect(setsOf(programme, 0).map((s) => `${s.side.side} ${s.set}`)).toEqual([
      "left 0",
      "right 0",
      "left 1",
    ]);
    let diary = emptyDiary;
    const day = "2026-12-01";
    for (const expected of ["left 0", "right 0", "left 1"]) {
      const set = nextSet(
        programme,
        [0],
        diary.days[day] ?? { sets: [], pain: null, morning: null, stopped: false, smaller: [], left: [] },
      )!;
      expect(`${set.side.side} ${set.set}`).toBe(expected);
      diary = withSet(diary, day, { column: set.side.column, set: set.set, reps: 5, effort: 5, pain: null });
      expect(isDone(diary.days[day]!, set)).toBe(true);
    }
    expect(nextSet(programme, [0], diary.days[day]!)).toBeNull();
    // Done again: the last word on it, and no set more.
    expect(
      withSet(diary, day, { column: 0, set: 0, reps: 2, effort: null, pain: 4 }).days[day]!.sets,
    ).toHaveLength(3);
  });

  it("is half of the reps where it was made smaller, one at least, and nothing where it was left out", () => {
    const day = told(emptyDiary, "2026-12-01", { smaller: [0] }).days["2026-12-01"]!;
    expect(setsOf(programme, 0).map((set) => repsOf(day, set))).toEqual([2, 2, 2]);
    expect(nextSet(programme, [0], { ...day, left: [0] })).toBeNull();
  });

  it("asks once how the morning after was, and only of yesterday", () => {
    const diary = withSet(emptyDiary, "2026-02-28", { column: 0, set: 0, reps: 5, effort: null, pain: null });
    expect(morningToAsk(diary, dayBefore("2026-03-01"))).toBe(true);
    expect(morningToAsk(diary, dayBefore("2026-03-02"))).toBe(false);
    expect(morningToAsk(told(diary, "2026-02-28", { morning: 0 }), "2026-02-28")).toBe(false);
    // Stopped before anything was done: that morning above all is asked about.
    expect(morningToAsk(told(emptyDiary, "2026-02-28", { stopped: true, pain: 9 }), "2026-02-28")).toBe(true);
    expect(morningToAsk(told(emptyDiary, "2026-02-28", { smaller: [0] }), "2026-02-28")).toBe(false);
    expect(dayBefore("2028-03-01")).toBe("2028-02-29");
  });
});

describe("what a morning lets be done", () => {
  it("is never more for more pain, and nothing from the policy's limit on", () => {
    for (let stopFrom = 1; stopFrom <= 10; stopFrom++) {
      const rests = Array.from({ length: 11 }, (_, morning) =>
        restsAfter(told(emptyDiary, "2026-12-01", { morning }), "2026-12-01", stopFrom),
      );
      expect(rests.lastIndexOf(false)).toBe(stopFrom - 1);
      expect(rests.indexOf(true)).toBe(stopFrom);
    }
    // Not told is not bad; another day's morning is another day's.
    expect(restsAfter(emptyDiary, "2026-12-01", 8)).toBe(false);
    expect(restsAfter(told(emptyDiary, "2026-11-30", { morning: 10 }), "2026-12-01", 8)).toBe(false);
  });
});

describe("a set", () => {
  const one = side(0, "left", [2]);

  it("is counted in, goes out, holds, comes back, and is over after its reps", () => {
    expect(momentAt(one, 2, 0)).toMatchObject({ phase: "in", left: 3, done: 0 });
    expect(momentAt(one, 2, countIn + 1.5)).toMatchObject({ phase: "out", share: 0.5, done: 0 });
    expect(momentAt(one, 2, countIn + 4)).toMatchObject({ phase: "hold", share: 1, left: 4 });
    expect(momentAt(one, 2, countIn + 9)).toMatchObject({ phase: "back", share: 0.5 });
    expect(momentAt(one, 2, countIn + 10)).toMatchObject({ phase: "out", done: 1 });
    expect(momentAt(one, 2, countIn + 20)).toMatchObject({ phase: "done", done: 2 });
  });

  it("counts no rep that is not whole, at any moment, and never goes back", () => {
    for (const of of [
      one,
      { ...one, out: 0, back: 0 },
      { ...one, hold: 0 },
      { ...one, hold: 0, out: 0, back: 0 },
      { ...one, minutes: true },
    ]) {
      let before = 0;
      for (let t = 0; t < 200; t += 0.1) {
        const { done, share } = momentAt(of, 2, t);
        expect(done).toBeGreaterThanOrEqual(before);
        expect(share).toBeGreaterThanOrEqual(0);
        expect(share).toBeLessThanOrEqual(1);
        before = done;
      }
      expect(before).toBe(2);
    }
  });
});
