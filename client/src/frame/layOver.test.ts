import { QueryClient } from "@tanstack/react-query";
import { beforeEach, describe, expect, it } from "vitest";
import { keys } from "../api/queries";
import type { CheckIn, EpisodeView, IntakeForm, Library, SessionAdvice, SessionView } from "../api/types";
import type { HeldAnswer } from "../capture/heldAnswers";
import { say } from "../words/say";
import { layOver } from "./layOver";

let queries: QueryClient;
const who = { id: "x", episodeId: "e1", visitId: "v2", name: "Ines", at: "2026-12-01T09:00:00Z" };
const intake = { complaint: "sore", pain: { now: 3 }, precautions: [], policyId: "p", dangerSigns: [] };

const episode = (change: Partial<EpisodeView> = {}) =>
  ({
    id: "e1",
    version: 4,
    intake,
    asked: true,
    held: null,
    closed: false,
    openDrawingId: null,
    dischargedOn: null,
    dangerReports: [],
    visits: [{ id: "v1" }, { id: "v2", checkIn: null, pain: null }],
    ...change,
  }) as unknown as EpisodeView;

const shown = () => queries.getQueryData<EpisodeView>(keys.episode("e1"))!;
const session = () => queries.getQueryData<SessionView>(keys.session("v2"))!;

beforeEach(() => {
  queries = new QueryClient();
  queries.setQueryData(keys.library, {
    dangerSigns: [{ id: "saddle", words: "Numb between the legs", sameDay: true }],
    policies: [{ id: "p", judgement: { noTrainingFrom: 8 } }],
  } as unknown as Library);
  queries.setQueryData(keys.episode("e1"), episode());
  queries.setQueryData(keys.session("v2"), { painNow: null, ready: [{}], advice: null });
  queries.setQueryData(keys.unasked("v2"), {
    reference: { value: 3, words: "" },
    noTraining: false,
    half: false,
    lines: [],
    eased: [],
  } as unknown as SessionAdvice);
});

const twice = (answer: HeldAnswer) => {
  layOver(queries, answer);
  const once = JSON.stringify([shown(), session()]);
  layOver(queries, answer);
  expect(JSON.stringify([shown(), session()])).toBe(once);
};

const told = (form: Partial<IntakeForm>): HeldAnswer => ({
  ...who,
  kind: "intake",
  form: { ...intake, ...form } as IntakeForm,
  before: intake as unknown as IntakeForm,
});

describe("an answer that is held", () => {
  it("of a check-in is shown, offers nothing one up and halves a worse day", () => {
    twice({ ...who, kind: "check-in", checkIn: { painNow: 6 } as CheckIn, version: 1, before: null });
    expect(shown().visits[1]).toMatchObject({ checkIn: { painNow: 6 }, pain: 6 });
    expect(session()).toMatchObject({ painNow: 6, ready: [], advice: { half: true, noTraining: false } });
  });

  it("of a check-in takes nothing back that was said before, where nothing came along to weigh it by", () => {
    const before = { noTraining: true, half: false, lines: [], eased: [] };
    queries.setQueryData(keys.unasked("v2"), null);
    queries.setQueryData(keys.session("v2"), { painNow: 8, ready: [], advice: before });
    twice({ ...who, kind: "check-in", checkIn: { painNow: 2 } as CheckIn, version: 1, before: null });
    expect(session().advice).toEqual(before);
  });

  it("of a red flag closes the episode once, in the name of who told it", () => {
    twice({ ...who, kind: "red-flags", dangerSigns: ["saddle"] });
    expect(shown().closed).toBe(true);
    expect(shown().dangerReports).toMatchObject([
      { signId: "saddle", words: "Numb between the legs", sameDay: true, notedBy: "Ines", clearedAt: null },
    ]);
  });

  it("of a red flag that was dealt with before closes it again", () => {
    const before = [{ signId: "saddle", clearedAt: "2026-11-01T09:00:00Z" }];
    queries.setQueryData(
      keys.episode("e1"),
      episode({ dangerReports: before as EpisodeView["dangerReports"] }),
    );
    twice({ ...who, kind: "red-flags", dangerSigns: ["saddle"] });
    expect(shown().closed).toBe(true);
    expect(shown().dangerReports.length).toBe(2);
  });

  it("of an intake opens the visit that nobody had asked at", () => {
    queries.setQueryData(
      keys.episode("e1"),
      episode({ asked: false, held: "Nobody has asked yet." as never }),
    );
    twice(told({ complaint: "stiff", pain: { now: 5, worst: 6, usual: 4 } }));
    expect(shown()).toMatchObject({ asked: true, held: null, closed: false, intake: { complaint: "stiff" } });
    expect(shown().visits[1]).toMatchObject({ pain: 5, intake: { complaint: "stiff" } });
  });

  it.each<[string, Partial<IntakeForm>]>([
    ["another precaution", { precautions: [{ id: "fragile-bone" }] as IntakeForm["precautions"] }],
    ["another policy", { policyId: "q" }],
  ])("of an intake with %s holds what comes after it", (_, form) => {
    twice(told(form));
    expect(shown().held).toBe(say("frame.precautions-wait"));
  });

  it("of an intake lets nothing go that was held for another reason", () => {
    const held = "A drawing asks." as never;
    queries.setQueryData(keys.episode("e1"), episode({ asked: false, held, openDrawingId: "v1" }));
    twice(told({}));
    expect(shown().held).toBe(held);
    queries.setQueryData(keys.episode("e1"), episode({ held, dischargedOn: "2026-11-01" }));
    twice(told({}));
    expect(shown().held).toBe(held);
  });

  it("of an intake with a red flag closes it", () => {
    twice(told({ dangerSigns: ["saddle"] }));
    expect(shown().closed).toBe(true);
    expect(shown().dangerReports.length).toBe(1);
  });

  it("is no fresher than what it lies over", () => {
    queries.setQueryData(keys.episode("e1"), episode(), { updatedAt: 1000 });
    layOver(queries, { ...who, kind: "red-flags", dangerSigns: ["saddle"] });
    expect(queries.getQueryState(keys.episode("e1"))!.dataUpdatedAt).toBe(1000);
  });
});
