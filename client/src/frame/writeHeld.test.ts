import { afterEach, describe, expect, it, vi } from "vitest";
import type { CheckIn, EpisodeView, IntakeForm } from "../api/types";
import type { HeldAnswer } from "../capture/heldAnswers";
import { answering, Refusal } from "../given/server";
import { writeHeld } from "./writeHeld";

afterEach(() => vi.restoreAllMocks());

const who = { id: "x", episodeId: "e1", visitId: "v2", name: "Ines", at: "2026-12-01T09:00:00Z" };
const answers = { painNow: 4, usualPain: 3 } as CheckIn;
const checkIn = (before: CheckIn | null = null): HeldAnswer => ({
  ...who,
  kind: "check-in",
  checkIn: answers,
  version: 2,
  before,
});
const form = {
  complaint: "stiff",
  pain: { now: 3, worst: 5, usual: 3 },
  version: 7,
  visitId: "v2",
} as IntakeForm;
const stands = { ...form, complaint: "sore", visitId: null } as IntakeForm;
const intake: HeldAnswer = { ...who, kind: "intake", form, before: stands };

const put = { checkIn: "PUT /api/visits/{visitId}/check-in", intake: "PUT /api/episodes/{id}/intake" };
const conflict = (current: unknown) =>
  new Refusal(409, { title: "Stored meanwhile.", current: current as never });

describe("writing what was held", () => {
  it("writes it on the version that was read", async () => {
    const server = answering({ [put.checkIn]: () => ({}) });
    expect(await writeHeld(checkIn())).toEqual({ kind: "taken" });
    expect(server.bodies(put.checkIn)).toEqual([{ checkIn: answers, version: 2 }]);
  });

  it("takes its own answer for written where only the answer of the server was lost", async () => {
    const server = answering({
      [put.checkIn]: () => conflict({ checkIn: { ...answers, home: null }, version: 3 }),
    });
    expect(await writeHeld(checkIn())).toEqual({ kind: "taken" });
    expect(server.calls.length).toBe(1);
  });

  it("writes again where something else of the visit was stored, and none of these answers", async () => {
    const server = answering({
      [put.checkIn]: (asked) =>
        (asked.body as { version: number }).version === 5 ? {} : conflict({ checkIn: null, version: 5 }),
    });
    expect(await writeHeld(checkIn())).toEqual({ kind: "taken" });
    expect(server.bodies(put.checkIn).map((body) => (body as { version: number }).version)).toEqual([2, 5]);
  });

  it("writes nothing over what somebody else answered, and says so", async () => {
    const server = answering({ [put.checkIn]: () => conflict({ checkIn: { painNow: 8 }, version: 5 }) });
    expect(await writeHeld(checkIn())).toEqual({ kind: "refused", why: "Stored meanwhile." });
    expect(server.calls.length).toBe(1);
  });

  it.each([
    ["is this already", form, 1, "taken"],
    ["is as it was before", stands, 2, "taken"],
    ["is of somebody else", { ...form, complaint: "numb" }, 1, "refused"],
  ])("an intake that %s", async (_, current, calls, kind) => {
    const server = answering({
      [put.intake]: (asked) =>
        (asked.body as IntakeForm).version === 9
          ? {}
          : conflict({
              intake: { ...current, visitId: null, version: 9 },
              version: 9,
            } as unknown as EpisodeView),
    });
    expect((await writeHeld(intake)).kind).toBe(kind);
    expect(server.calls.length).toBe(calls);
  });

  it("tries again later where the server is away, signed nobody in, or is broken", async () => {
    for (const status of [401, 423, 500, 503]) {
      answering({ [put.checkIn]: () => new Refusal(status, {}) });
      expect(await writeHeld(checkIn())).toEqual({ kind: "later" });
    }
    answering({
      [put.checkIn]: () => {
        throw new TypeError("Failed to fetch");
      },
    });
    expect(await writeHeld(checkIn())).toEqual({ kind: "later" });
  });

  it("is told the fields that were refused", async () => {
    answering({
      [put.checkIn]: () =>
        new Refusal(422, {
          title: "Not like this.",
          errors: [{ field: "checkIn.painNow", message: "0 to 10." }],
        }),
    });
    expect(await writeHeld(checkIn())).toEqual({ kind: "refused", why: "Not like this. 0 to 10." });
  });
});
