// @vitest-environment node
import "fake-indexeddb/auto";
import { openDB } from "idb";
import { describe, expect, it, vi } from "vitest";
import { Outbox, type Send, type SendSealed } from "./outbox";
import { unlockText } from "./sealing";
import type { Kept, Sealed } from "./tabletStore";
import { tape } from "./testLibrary";
import { eachOnNewTablet, tabletKey } from "./testTablet";

let name = "";
eachOnNewTablet((fresh) => (name = fresh));

const settle = () => new Promise((resolve) => setTimeout(resolve, 30));
const away: Send = () => Promise.resolve({ kind: "later" });
const rowsIn = async () => (await (await openDB(name, 1)).getAll("events")) as (Kept | Sealed)[];
const noneOfOthers: SendSealed = () => Promise.reject(new Error("There is nothing of others."));

const open = (send: Send, sendSealed = noneOfOthers) => Outbox.open(send, name, true, sendSealed);

describe("an outbox that locks up", () => {
  it("keeps nothing readable, and has it all for the same person after a reload", async () => {
    const key = await tabletKey("mine");
    const outbox = await open(away);
    await outbox.begin(key);
    const { events, tap } = tape();
    tap("rep-done");
    for (const e of events) outbox.add("v1", e);
    await settle();
    expect(outbox.getStatus()).toMatchObject({ queued: 2, inMemory: 0 });
    expect(JSON.stringify(await rowsIn())).not.toContain("rep-done");

    const again = await open(away);
    expect(again.eventsOf("v1")).toEqual([]);
    await again.begin(key);
    expect(again.eventsOf("v1").map((e) => e.id)).toEqual(events.map((e) => e.id));
    expect(again.getStatus().queued).toBe(2);
  });

  it("takes what is tapped before the key is there, and keeps it once it is", async () => {
    const outbox = await open(away);
    const { events } = tape();
    outbox.add("v1", events[0]!);
    expect(outbox.eventsOf("v1")).toEqual(events);
    expect(await rowsIn()).toEqual([]);
    await outbox.begin(await tabletKey("mine"));
    await settle();
    expect((await rowsIn()).map((row) => row.id)).toEqual([events[0]!.id]);
    expect(outbox.getStatus()).toMatchObject({ queued: 1, inMemory: 0 });
  });

  it("sends at once what waited for a sign-in, when the same person is signed in again", async () => {
    const key = await tabletKey("mine");
    let signedIn = false;
    const sent: string[] = [];
    const outbox = await open((_visit, events) => {
      if (!signedIn) return Promise.resolve({ kind: "later", signedOut: true });
      sent.push(...events.map((e) => e.id));
      return Promise.resolve({ kind: "taken" });
    });
    await outbox.begin(key);
    const { events } = tape();
    outbox.add("v1", events[0]!);
    await settle();
    expect(outbox.getStatus()).toMatchObject({ queued: 1, signedOut: true });
    signedIn = true;
    await outbox.begin({ ...key });
    expect(sent).toEqual([events[0]!.id]);
    expect(outbox.getStatus()).toMatchObject({ queued: 0, signedOut: false });
  });

  it("locks up what a version before it left open", async () => {
    const { events } = tape();
    const open = await Outbox.open(away, name, false);
    open.add("v1", events[0]!);
    await settle();
    expect(JSON.stringify(await rowsIn())).toContain("trial-started");
    const outbox = await Outbox.open(away, name, true, noneOfOthers);
    expect(outbox.eventsOf("v1")).toEqual(events);
    await outbox.begin(await tabletKey("mine"));
    await settle();
    expect(JSON.stringify(await rowsIn())).not.toContain("trial-started");
    expect(outbox.getStatus().queued).toBe(1);
  });

  it("sends what somebody else left as it lies there, and keeps it until the server has it", async () => {
    const [ines, bram] = [await tabletKey("ines"), await tabletKey("bram")];
    const before = await open(away);
    await before.begin(ines);
    const { events, tap } = tape();
    tap("rep-done");
    for (const e of events) before.add("v1", e);
    await settle();
    await before.leave();
    expect(before.eventsOf("v1")).toEqual([]);
    expect((await rowsIn()).length).toBe(2);

    let reached = false;
    const sent: Sealed[] = [];
    const next = await open(
      () => Promise.resolve({ kind: "taken" }),
      (visit, rows) => {
        expect(visit).toBe("v1");
        if (!reached) return Promise.resolve({ kind: "later" });
        sent.push(...rows);
        return Promise.resolve({ kind: "taken" });
      },
    );
    await next.begin(bram);
    expect(next.eventsOf("v1")).toEqual([]);
    expect(next.getStatus()).toMatchObject({ theirs: 2, queued: 0 });
    reached = true;
    await next.flush();
    expect(next.getStatus().theirs).toBe(0);
    expect(await rowsIn()).toEqual([]);
    expect(new Set(sent.map((row) => row.by))).toEqual(new Set(["sealed ines"]));
    const read = await Promise.all(sent.map((row) => unlockText(ines.key, row.event, "v1")));
    expect(read).toEqual(expect.arrayContaining(events));
    await expect(unlockText(ines.key, sent[0]!.event, "v2")).rejects.toThrow();
  });

  it("goes on with what runs where the tablet is handed over, and sends each tap in the name of who tapped it", async () => {
    const [ines, bram] = [await tabletKey("ines"), await tabletKey("bram")];
    const state = { away: true };
    const [own, theirs]: [string[], string[]] = [[], []];
    const outbox = await open(
      (_, events) => {
        if (state.away) return Promise.resolve({ kind: "later" });
        own.push(...events.map((e) => e.id));
        return Promise.resolve({ kind: "taken" });
      },
      (_, rows) => {
        if (state.away) return Promise.resolve({ kind: "later" });
        theirs.push(...rows.map((row) => row.id));
        return Promise.resolve({ kind: "taken" });
      },
    );
    await outbox.begin(ines);
    const { events, tap } = tape();
    outbox.add("v1", events[0]!);
    await settle();
    outbox.handOver();
    expect(outbox.eventsOf("v1")).toEqual([events[0]]);
    // Before the key of the next one is there.
    tap("rep-done");
    outbox.add("v1", events[1]!);
    await outbox.begin(bram);
    await settle();
    const [first, second] = events.map(
      async (e) => (await rowsIn()).find((row) => row.id === e.id) as Sealed,
    );
    expect([(await first!).key, (await second!).key]).toEqual(["ines", "bram"]);
    expect(outbox.getStatus()).toMatchObject({ queued: 1 });
    state.away = false;
    await outbox.flush();
    expect([own, theirs]).toEqual([[events[1]!.id], [events[0]!.id]]);
    expect(outbox.eventsOf("v1")).toEqual(events);
    expect(outbox.getStatus()).toMatchObject({ queued: 0, theirs: 0 });
  });

  it("does not ask again and again for what the server will not take of somebody else; they see it when they are back", async () => {
    const [ines, bram] = [await tabletKey("ines"), await tabletKey("bram")];
    const before = await open(away);
    await before.begin(ines);
    const { events } = tape();
    before.add("v1", events[0]!);
    await settle();
    await before.leave();
    let asked = 0;
    const next = await open(away, () => {
      asked += 1;
      return Promise.resolve({ kind: "refused", byIndex: new Map([[0, "not like this"]]) });
    });
    await next.begin(bram);
    await next.flush();
    expect(asked).toBe(1);
    expect(next.getStatus().theirs).toBe(0);
    const back = await open(away);
    await back.begin(ines);
    expect(back.refusedRows().map((row) => row.id)).toEqual([events[0]!.id]);
  });

  it("has what the server knows gone with the sign-out, and nothing that it does not know", async () => {
    const key = await tabletKey("mine");
    const { events, tap } = tape();
    tap("rep-done");
    let taken = 0;
    const outbox = await open(() => Promise.resolve(taken++ === 0 ? { kind: "taken" } : { kind: "later" }));
    await outbox.begin(key);
    outbox.add("v1", events[0]!);
    await settle();
    outbox.add("v1", events[1]!);
    await settle();
    await outbox.leave();
    expect((await rowsIn()).map((row) => row.id)).toEqual([events[1]!.id]);
  });

  it("writes the last of two versions of a row, however long locking up takes", async () => {
    const outbox = await open(() => Promise.resolve({ kind: "taken" }));
    await outbox.begin(await tabletKey("mine"));
    const all = Array.from({ length: 40 }, () => tape().events[0]!);
    for (const e of all) outbox.add("v1", e);
    await outbox.flush();
    await vi.waitFor(async () => {
      const rows = await rowsIn();
      expect(rows.length).toBe(40);
      expect(rows.every((row) => row.state === "sent")).toBe(true);
    });
  });
});
