import "fake-indexeddb/auto";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Outbox, type Send } from "./outbox";
import { tape } from "./testLibrary";

let name = "";
let databases = 0;

beforeEach(() => {
  databases += 1;
  name = `test-${databases}`;
});

afterEach(() => vi.useRealTimers());

/** A server that can be away, and remembers what it took. */
function server() {
  const taken: string[] = [];
  const state = { away: false };
  const send: Send = async (_visit, events) => {
    if (state.away) return { kind: "later" };
    for (const e of events) if (!taken.includes(e.id)) taken.push(e.id);
    return { kind: "taken" };
  };
  return { taken, state, send };
}

const settle = () => new Promise((resolve) => setTimeout(resolve, 20));

describe("the outbox", () => {
  it("shows an event at once and sends it soon", async () => {
    const { taken, send } = server();
    const outbox = await Outbox.open(send, name);
    const { events } = tape();
    outbox.add("v1", events[0]!);
    expect(outbox.eventsOf("v1")).toEqual(events);
    expect(outbox.getStatus().queued).toBe(1);
    await settle();
    expect(taken).toEqual([events[0]!.id]);
    expect(outbox.getStatus().queued).toBe(0);
  });

  it("forgets the visits of clients who were erased, here and after a reload, and no others", async () => {
    const { state, send } = server();
    state.away = true;
    const outbox = await Outbox.open(send, name);
    const [gone, stays] = [tape(), tape()];
    outbox.add("gone", gone.events[0]!);
    outbox.add("stays", stays.events[0]!);
    outbox.forget(new Set(["gone"]));
    expect(outbox.eventsOf("gone")).toEqual([]);
    expect(outbox.getStatus().queued).toBe(1);
    await settle();
    const again = await Outbox.open(send, name);
    expect(again.eventsOf("gone")).toEqual([]);
    expect(again.eventsOf("stays")).toEqual(stays.events);
  });

  it("keeps everything while the server is away and sends it in order when it is back", async () => {
    const { taken, state, send } = server();
    state.away = true;
    const outbox = await Outbox.open(send, name);
    const { events, tap } = tape();
    tap("rep-done");
    tap("rep-done");
    for (const e of events) outbox.add("v1", e);
    await settle();
    expect(outbox.getStatus()).toMatchObject({ queued: 3, offline: true });
    state.away = false;
    await outbox.flush();
    expect(taken).toEqual(events.map((e) => e.id));
    expect(outbox.getStatus()).toMatchObject({ queued: 0, offline: false });
  });

  it("has everything after a reload, sent or not", async () => {
    const { taken, state, send } = server();
    const { events, tap } = tape();
    tap("rep-done");
    const first = await Outbox.open(send, name);
    first.add("v1", events[0]!);
    await settle();
    state.away = true;
    first.add("v1", events[1]!);
    await settle();
    const second = await Outbox.open(send, name);
    expect(
      second
        .eventsOf("v1")
        .map((e) => e.id)
        .sort(),
    ).toEqual(events.map((e) => e.id));
    expect(second.getStatus().queued).toBe(1);
    state.away = false;
    await second.flush();
    expect(taken).toEqual(events.map((e) => e.id));
  });

  it("puts a refused event aside with its reason and lets the others through", async () => {
    const { events, tap } = tape();
    tap("rep-done");
    tap("rep-done");
    const bad = events[1]!.id;
    const taken: string[] = [];
    const send: Send = async (_visit, batch) => {
      const index = batch.findIndex((e) => e.id === bad);
      if (index >= 0) return { kind: "refused", byIndex: new Map([[index, "not like this"]]) };
      taken.push(...batch.map((e) => e.id));
      return { kind: "taken" };
    };
    const outbox = await Outbox.open(send, name);
    for (const e of events) outbox.add("v1", e);
    await settle();
    expect(taken).toEqual([events[0]!.id, events[2]!.id]);
    expect(outbox.getStatus()).toMatchObject({ queued: 0, refused: ["not like this"] });
    expect(outbox.eventsOf("v1").map((e) => e.id)).not.toContain(bad);
    outbox.dismissRefused();
    expect(outbox.getStatus().refused).toEqual([]);
  });

  it("never mixes the events of two visits in one batch", async () => {
    const batches: string[] = [];
    const send: Send = async (visit, events) => {
      batches.push(`${visit}:${events.length}`);
      return { kind: "taken" };
    };
    const outbox = await Outbox.open(send, name);
    const one = tape("t1");
    const other = tape("t2");
    outbox.add("v1", one.events[0]!);
    outbox.add("v2", other.events[0]!);
    await settle();
    expect(batches).toEqual(["v1:1", "v2:1"]);
  });

  it("lets go of what was sent days ago, never of what was not", async () => {
    const { state, send } = server();
    const old = { ...tape().events[0]!, at: new Date(Date.now() - 5 * 86_400_000).toISOString() };
    const sent = await Outbox.open(send, name);
    sent.add("v1", old);
    await settle();
    state.away = true;
    const unsent = { ...old, id: "unsent" };
    sent.add("v1", unsent);
    await settle();
    const later = await Outbox.open(send, name);
    expect(later.eventsOf("v1").map((e) => e.id)).toEqual(["unsent"]);
  });

  it("tries again by itself", async () => {
    vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout"] });
    const { taken, state, send } = server();
    state.away = true;
    const outbox = await Outbox.open(send, name);
    outbox.add("v1", tape().events[0]!);
    await vi.advanceTimersByTimeAsync(100);
    expect(taken).toHaveLength(0);
    state.away = false;
    await vi.advanceTimersByTimeAsync(2500);
    expect(taken).toHaveLength(1);
  });

  it("says at once that the browser could not keep a tap, and keeps it as soon as it can", async () => {
    const { state, send, taken } = server();
    state.away = true;
    const outbox = await Outbox.open(send, name);
    vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout"] });
    const put = vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    const { events } = tape();
    outbox.add("v1", events[0]!);
    await vi.waitFor(() => expect(outbox.getStatus().inMemory).toBe(1));
    // It is shown and counts all the same.
    expect(outbox.eventsOf("v1")).toEqual(events);
    const leaving = new Event("beforeunload", { cancelable: true });
    globalThis.dispatchEvent(leaving);
    expect(leaving.defaultPrevented).toBe(true);
    put.mockRestore();
    await vi.advanceTimersByTimeAsync(3500);
    await vi.waitFor(() => expect(outbox.getStatus().inMemory).toBe(0));
    vi.useRealTimers();
    state.away = false;
    const again = await Outbox.open(send, name);
    await again.flush();
    expect(taken).toEqual([events[0]!.id]);
  });

  it("says in the other tab too that a tap is in no store", async () => {
    const { state, send } = server();
    state.away = true;
    const [one, other] = [await Outbox.open(send, name), await Outbox.open(send, name)];
    const put = vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    one.add("v1", tape().events[0]!);
    await vi.waitFor(() => expect(other.getStatus()).toMatchObject({ queued: 1, inMemory: 1 }));
    put.mockRestore();
    await vi.waitFor(() => expect(other.getStatus()).toMatchObject({ queued: 1, inMemory: 0 }), 6000);
    expect(one.getStatus().inMemory).toBe(0);
  });

  it("does not wait for ever for a tab that is asleep", async () => {
    const { taken, send } = server();
    // Another tab has its turn and does not end it: a request for one is only ever given up.
    const request = (_: string, { signal }: { signal: AbortSignal }) =>
      new Promise((_given, givenUp) => {
        signal.addEventListener("abort", () => givenUp(signal.reason as Error));
      });
    Object.defineProperty(navigator, "locks", { value: { request }, configurable: true });
    const patience = new AbortController();
    const timeout = vi.spyOn(AbortSignal, "timeout").mockReturnValue(patience.signal);
    const outbox = await Outbox.open(send, name);
    outbox.add("v1", tape().events[0]!);
    await settle();
    expect(taken).toHaveLength(0);
    patience.abort(new DOMException("late", "TimeoutError"));
    await vi.waitFor(() => expect(taken).toHaveLength(1));
    timeout.mockRestore();
    Reflect.deleteProperty(navigator, "locks");
  });

  it("works where the browser keeps nothing, and says so from the start", async () => {
    const { send, taken, state } = server();
    const open = vi.spyOn(indexedDB, "open").mockImplementation(() => {
      throw new DOMException("denied", "SecurityError");
    });
    const outbox = await Outbox.open(send, name);
    expect(outbox.getStatus().lasting).toBe(false);
    state.away = true;
    const { events } = tape();
    outbox.add("v1", events[0]!);
    await settle();
    expect(outbox.getStatus()).toMatchObject({ queued: 1, inMemory: 1 });
    state.away = false;
    await outbox.flush();
    expect(taken).toEqual([events[0]!.id]);
    expect(outbox.getStatus()).toMatchObject({ queued: 0, inMemory: 0 });
    open.mockRestore();
  });

  it("is one for two tabs: what one taps the other shows, and sends where the first cannot", async () => {
    const { state, send, taken } = server();
    state.away = true;
    const [one, other] = [await Outbox.open(send, name), await Outbox.open(send, name)];
    const { events, tap } = tape();
    tap("rep-done");
    one.add("v1", events[0]!);
    other.add("v1", events[1]!);
    await vi.waitFor(() => {
      expect(other.eventsOf("v1").map((e) => e.id)).toEqual(events.map((e) => e.id));
      expect(one.eventsOf("v1").map((e) => e.id)).toEqual(events.map((e) => e.id));
    });
    state.away = false;
    await other.flush();
    expect(taken).toEqual(events.map((e) => e.id));
    await vi.waitFor(() => expect(one.getStatus().queued).toBe(0));
  });

  describe("while the server is away", () => {
    beforeEach(() => {
      vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout"] });
      vi.spyOn(Math, "random").mockReturnValue(1);
    });
    afterEach(() => vi.restoreAllMocks());

    const away = async () => {
      let tries = 0;
      const state = { away: true };
      const send: Send = async () => {
        tries += 1;
        return state.away ? { kind: "later" } : { kind: "taken" };
      };
      const outbox = await Outbox.open(send, name);
      outbox.add("v1", tape().events[0]!);
      await vi.advanceTimersByTimeAsync(0);
      return { outbox, state, tries: () => tries };
    };

    it("waits twice as long after each try, and thirty seconds at most", async () => {
      const { tries } = await away();
      for (const wait of [2, 4, 8, 16, 30, 30]) {
        const before = tries();
        await vi.advanceTimersByTimeAsync(wait * 1000 - 1);
        expect(tries(), `before ${wait} s`).toBe(before);
        await vi.advanceTimersByTimeAsync(1);
        expect(tries(), `after ${wait} s`).toBe(before + 1);
      }
    });

    it("does not wait when the network comes back, and begins to wait anew when it goes again", async () => {
      const { outbox, state, tries } = await away();
      await vi.advanceTimersByTimeAsync(40_000);
      state.away = false;
      const before = tries();
      globalThis.dispatchEvent(new Event("online"));
      await vi.advanceTimersByTimeAsync(0);
      expect(tries()).toBe(before + 1);
      expect(outbox.getStatus()).toMatchObject({ queued: 0, offline: false });
      state.away = true;
      outbox.add("v1", tape("t2").events[0]!);
      await vi.advanceTimersByTimeAsync(0);
      const again = tries();
      await vi.advanceTimersByTimeAsync(2000);
      expect(tries()).toBe(again + 1);
    });

    it("does not ask in step with the other tablets", async () => {
      vi.spyOn(Math, "random").mockReturnValue(0);
      const { tries } = await away();
      await vi.advanceTimersByTimeAsync(1500);
      expect(tries()).toBe(2);
    });
  });
});
