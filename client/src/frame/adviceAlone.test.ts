import { describe, expect, it } from "vitest";
import type { CheckIn, EpisodeView, LegReport, Policy, SessionAdvice } from "../api/types";
import { adviceAlone, legBefore } from "./adviceAlone";

/** What the core says of the same answers (AdviceAloneTests.cs). */
interface AdviceCase {
  policyId: string;
  noTrainingFrom: number;
  unasked: SessionAdvice;
  checkIn: CheckIn;
  legBefore: LegReport | null;
  noTraining: boolean;
  half: boolean;
}

const [cases] = Object.values(
  import.meta.glob<AdviceCase[]>("../../../tests/advice/advice.json", { eager: true, import: "default" }),
) as [AdviceCase[]];

const policyOf = (noTrainingFrom: number) => ({ judgement: { noTrainingFrom } }) as Policy;
const alone = (told: AdviceCase) => adviceAlone({ ...told, policy: policyOf(told.noTrainingFrom) })!;

const unasked = {
  reference: { value: 3, words: "median" },
  noTraining: false,
  half: false,
  lines: [
    { ruleId: "D-PAIN-NOW", words: "Pain now was not asked." },
    { ruleId: "D-AWAY", words: "Three weeks away." },
  ],
  eased: [],
} as unknown as SessionAdvice;

const answers = (checkIn: Partial<CheckIn>, before: LegReport | null = null) =>
  adviceAlone({ unasked, checkIn: checkIn as CheckIn, legBefore: before, policy: policyOf(8) })!;

describe("the advice of a tablet without the server", () => {
  it("is never less careful than the core", () => {
    expect(cases.length).toBe(400);
    for (const told of cases) {
      const said = alone(told);
      if (told.noTraining) expect(said, JSON.stringify(told.checkIn)).toMatchObject({ noTraining: true });
      if (told.half) expect(said.half || said.noTraining, JSON.stringify(told.checkIn)).toBe(true);
      // Time away eases whatever was answered.
      expect(said.eased).toEqual(told.unasked.eased);
    }
  });

  it("is never milder for more pain, now or the morning after, from a pain that was not told on", () => {
    const holds = (told: AdviceCase) => (alone(told).noTraining ? 2 : alone(told).half ? 1 : 0);
    for (const told of cases)
      for (const of of ["painNow", "nextDayPain"] as const) {
        let least = 0;
        for (const pain of [null, 0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10]) {
          const now = holds({ ...told, checkIn: { ...told.checkIn, [of]: pain } });
          expect(now, `${of} ${pain} of ${JSON.stringify(told.checkIn)}`).toBeGreaterThanOrEqual(least);
          least = now;
        }
      }
  });

  it("does not hold back everybody: a calm day is a whole one", () => {
    expect(cases.filter((told) => !alone(told).half && !alone(told).noTraining).length).toBeGreaterThan(20);
    expect(answers({ painNow: 3, nextDayPain: 2, settled: "same-day" })).toMatchObject({
      noTraining: false,
      half: false,
    });
  });

  it.each<[string, Partial<CheckIn>]>([
    ["more pain than usual", { painNow: 4 }],
    ["more the morning after", { painNow: 1, nextDayPain: 4 }],
    ["that settled late", { painNow: 1, settled: "next-morning" }],
    ["that settled in more than a day", { painNow: 1, settled: "longer-than-a-day" }],
    ["a night that it woke in", { painNow: 1, wakesAtNight: true }],
  ])("halves after %s", (_, checkIn) => {
    expect(answers(checkIn)).toMatchObject({ half: true, noTraining: false });
  });

  it.each<[string, Partial<CheckIn>, LegReport | null]>([
    ["pain from the policy's limit on", { painNow: 8 }, null],
    [
      "pain further down a leg",
      { painNow: 1, leg: { left: "thigh", right: null } },
      { left: "buttock", right: "none" },
    ],
    [
      "pain down a leg that was never asked about",
      { painNow: 1, leg: { left: null, right: "buttock" } },
      null,
    ],
  ])("lets nobody train with %s", (_, checkIn, before) => {
    expect(answers(checkIn, before)).toMatchObject({ noTraining: true, half: false });
  });

  it("minds a leg only where it is further down", () => {
    const leg: LegReport = { left: "thigh", right: "none" };
    expect(answers({ painNow: 1, leg }, leg).noTraining).toBe(false);
    expect(answers({ painNow: 1, leg: { left: "buttock", right: "none" } }, leg).noTraining).toBe(false);
  });

  it("says that nobody has weighed the answers, and what held before they were given", () => {
    const words = answers({ painNow: 1 }).lines.map((line) => line.words);
    expect(words[0]).toMatch(/nobody has weighed/);
    expect(words).toContain("Three weeks away.");
    expect(words).not.toContain("Pain now was not asked.");
  });

  it.each([
    [{ noTraining: true }, { noTraining: true, half: false }],
    [{ half: true }, { noTraining: false, half: true }],
  ])("lets go of nothing that held before anything was answered: %o", (held, still) => {
    const said = adviceAlone({
      unasked: { ...unasked, ...held },
      checkIn: { painNow: 0 } as CheckIn,
      legBefore: null,
      policy: policyOf(8),
    });
    expect(said).toMatchObject(still);
  });

  it("still asks what nobody has answered", () => {
    expect(answers({ nextDayPain: 1 }).lines.map((l) => l.words)).toContain("Pain now was not asked.");
  });

  it("is none where nothing came along to compare with", () => {
    expect(
      adviceAlone({ unasked: null, checkIn: {} as CheckIn, legBefore: null, policy: policyOf(8) }),
    ).toBeNull();
  });

  it("takes any pain for too much under a policy that it does not know", () => {
    const told = { unasked, checkIn: { painNow: 1 } as CheckIn, legBefore: null, policy: undefined };
    expect(adviceAlone(told)!.noTraining).toBe(true);
  });
});

describe("what was said of the legs last", () => {
  it("is of the last check-in before that asked, and of no later one", () => {
    const leg: LegReport = { left: "thigh", right: null };
    const visits = [
      { id: "a", checkIn: { leg } },
      { id: "b", checkIn: { leg: null } },
      { id: "c" },
      { id: "d", checkIn: { leg: { left: "none", right: null } } },
    ];
    expect(legBefore({ visits } as unknown as EpisodeView, "c")).toEqual(leg);
    expect(legBefore({ visits } as unknown as EpisodeView, "a")).toBeNull();
  });
});
