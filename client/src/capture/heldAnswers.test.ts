// @vitest-environment node
import "fake-indexeddb/auto";
import { openDB } from "idb";
import { describe, expect, it, vi } from "vitest";
import { eachOnNewTablet, tabletKey } from "./testTablet";
import type { CheckIn } from "../api/types";
import { unlockText } from "./sealing";
import {
  HeldAnswers,
  type HeldAnswer,
  type HeldCheckIn,
  type Write,
  type SealedFlag,
  type WriteSealed,
  type Written,
} from "./heldAnswers";

let name = "";
eachOnNewTablet((fresh) => (name = fresh));

const answer = (visitId: string, painNow = 4): HeldCheckIn => ({
  id: `check-in ${visitId}`,
  kind: "check-in",
  episodeId: "e1",
  visitId,
  name: "Ines",
  at: new Date(Date.UTC(2026, 11, 1, 8, painNow)).toISOString(),
  checkIn: { painNow } as CheckIn,
  version: 1,
  before: null,
});

const flag = (): HeldAnswer => ({
  id: "red-flags v1",
  kind: "red-flags",
  episodeId: "e1",
  visitId: "v1",
  name: "Ines",
  at: "2026-12-01T12:00:00Z",
  dangerSigns: ["saddle"],
});

/** Writes what whoever is here answered; nobody else left anything. */
const only = (own: Write) => ({ own, sealed: vi.fn<WriteSealed>(() => Promise.resolve({ kind: "later" })) });

/** A server that is away until it is let back. */
function server() {
  const state = { away: true, refuses: "" };
  const written: HeldAnswer[] = [];
  const write: Write = (told) => {
    if (state.away) return Promise.resolve({ kind: "later" });
    if (state.refuses) return Promise.resolve({ kind: "refused", why: state.refuses });
    written.push(told);
    return Promise.resolve({ kind: "taken" });
  };
  return { state, written, write };
}

describe("answers that wait for the server", () => {
  it("outlive the page, lie nowhere readable, and are written once when it is back, a red flag first", async () => {
    const { state, written, write } = server();
    const key = await tabletKey("mine");
    const held = await HeldAnswers.open(only(write), undefined, name);
    await held.begin(key);
    await held.hold(answer("v1", 7));
    await held.hold(flag());
    expect(held.getStatus()).toMatchObject({ waiting: 2, offline: true });
    const db = await openDB(name);
    expect(JSON.stringify(await db.getAll("held"))).not.toMatch(/painNow|saddle|check-in|red-flags|"v1["/]/);

    const again = await HeldAnswers.open(only(write), undefined, name);
    await again.begin(key);
    expect(again.getStatus().waiting).toBe(2);
    state.away = false;
    await again.flush();
    expect(written.map((w) => w.kind)).toEqual(["red-flags", "check-in"]);
    expect(again.getStatus()).toMatchObject({ waiting: 0, offline: false });
    expect(await db.getAll("held")).toEqual([]);
  });

  it("give way to what is answered again, and to nothing of another visit", async () => {
    const { state, written, write } = server();
    const held = await HeldAnswers.open(only(write), undefined, name);
    await held.begin(await tabletKey("mine"));
    await held.hold(answer("v1", 7));
    await held.hold(answer("v10", 8));
    await held.hold({ ...answer("v1", 9), before: answer("v1", 7).checkIn });
    state.away = false;
    await held.flush();
    expect(written.map((w) => w.id)).toEqual(["check-in v10", "check-in v1"]);
    // Compared with what stood on the server, not with what was shown over it.
    expect(written.at(-1)).toMatchObject({ checkIn: { painNow: 9 }, before: null });
  });

  it("are written once though their owner is told to be here again while they are on their way", async () => {
    const key = await tabletKey("mine");
    let letThrough = () => {};
    const slow = new Promise<void>((resolve) => (letThrough = resolve));
    const state = { away: true };
    let writes = 0;
    const held = await HeldAnswers.open(
      only(async () => {
        if (state.away) return { kind: "later" };
        writes += 1;
        await slow;
        return { kind: "taken" };
      }),
      undefined,
      name,
    );
    await held.begin(key);
    await held.hold(answer("v1"));
    state.away = false;
    const writing = held.flush();
    const again = held.begin({ ...key });
    letThrough();
    await Promise.all([writing, again]);
    expect(writes).toBe(1);
    expect(held.getStatus()).toMatchObject({ waiting: 0, offline: false });
  });

  it("are not written under another name: they wait for who answered", async () => {
    const { state, written, write } = server();
    const [ines, bram] = [await tabletKey("ines"), await tabletKey("bram")];
    const held = await HeldAnswers.open(only(write), undefined, name);
    await held.begin(ines);
    await held.hold(answer("v1"));
    held.leave();
    state.away = false;
    await held.begin(bram);
    expect(held.getStatus()).toMatchObject({ waiting: 0, theirs: 1 });
    expect(written).toEqual([]);
    await held.begin(ines);
    expect(written.length).toBe(1);
    expect(held.getStatus()).toMatchObject({ waiting: 0, theirs: 0 });
  });

  it("of somebody who left do not keep a red flag of theirs waiting: it is sent as it lies there, once", async () => {
    const { state, written, write } = server();
    const [ines, bram] = [await tabletKey("ines"), await tabletKey("bram")];
    const sent: SealedFlag[] = [];
    const answers: Written[] = [{ kind: "later" }, { kind: "taken" }];
    const sealed = vi.fn<WriteSealed>((told) => {
      sent.push(told);
      return Promise.resolve(answers.shift()!);
    });
    const held = await HeldAnswers.open({ own: write, sealed }, undefined, name);
    await held.begin(ines);
    await held.hold(answer("v1"));
    await held.hold(flag());
    // Whoever noted it sends it as it is.
    await held.flush();
    expect(sealed).not.toHaveBeenCalled();
    held.leave();
    await held.flush();
    expect(sealed).not.toHaveBeenCalled();
    await held.begin(bram);
    expect(held.getStatus().theirs).toBe(2);
    state.away = false;
    await held.flush();
    await held.flush();
    expect(held.getStatus().theirs).toBe(1);
    expect(sent.length).toBe(2);
    expect(sent[1]).toMatchObject({ sealed: "sealed ines" });
    expect(await unlockText(ines.key, sent[1]!, sent[1]!.about)).toEqual({ answer: flag(), why: null });
    // Her answers wait for her.
    expect(written).toEqual([]);
    await held.begin(ines);
    expect(written.map((w) => w.kind)).toEqual(["check-in"]);
  });

  it("are written though a red flag of somebody else is not taken, and that one is not lost", async () => {
    const { state, written, write } = server();
    const [ines, bram] = [await tabletKey("ines"), await tabletKey("bram")];
    const sealed = vi.fn<WriteSealed>(() => Promise.resolve({ kind: "refused", why: "Not known." }));
    const held = await HeldAnswers.open({ own: write, sealed }, undefined, name);
    await held.begin(ines);
    await held.hold(flag());
    held.leave();
    state.away = false;
    await held.begin(bram);
    await held.hold(answer("v2"));
    await held.flush();
    await held.flush();
    expect(written.map((w) => w.kind)).toEqual(["check-in"]);
    expect(sealed).toHaveBeenCalledTimes(1);
    expect(held.getStatus().theirs).toBe(1);
    await held.begin(ines);
    expect(written.map((w) => w.kind)).toEqual(["check-in", "red-flags"]);
  });

  it("that are refused stay, with the reason, until somebody lets go of them", async () => {
    const { state, write } = server();
    const key = await tabletKey("mine");
    const held = await HeldAnswers.open(only(write), undefined, name);
    await held.begin(key);
    await held.hold(answer("v1"));
    state.away = false;
    state.refuses = "Somebody else has answered.";
    await held.flush();
    const again = await HeldAnswers.open(only(write), undefined, name);
    await again.begin(key);
    expect(again.getStatus().refused.map((r) => r.why)).toEqual(["Somebody else has answered."]);
    expect(again.waiting()).toEqual([]);
    await again.letGo();
    expect(again.getStatus().refused).toEqual([]);
  });

  it("are not pretended where nobody's key is there", async () => {
    const held = await HeldAnswers.open(only(server().write), undefined, name);
    await expect(held.hold(flag())).rejects.toThrow();
    expect(held.getStatus().waiting).toBe(0);
  });
});
