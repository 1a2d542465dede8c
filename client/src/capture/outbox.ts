import { api, type Answer as ServerAnswer, type Problem } from "../api/client";
import type { CaptureEvent } from "../api/types";
import { say } from "../words/say";
import { BackOff } from "./backOff";
import { locksUp, type TabletKey } from "./sealing";
import { openTabletStore, type Kept, type Sealed, type TabletStore } from "./tabletStore";

export interface OutboxStatus {
  queued: number;
  refused: string[];
  /** True when the last try to send failed. */
  offline: boolean;
  signedOut: boolean;
  /** Not sent, and in the memory of this page alone: the browser could not keep it. Gone when the page is closed. */
  inMemory: number;
  /** False where the browser keeps nothing at all. */
  lasting: boolean;
  /** Tapped on this tablet by somebody else, locked up, and not sent yet. */
  theirs: number;
}

type Answer =
  | { kind: "taken" }
  | { kind: "refused"; byIndex: Map<number, string> }
  | { kind: "later"; signedOut?: boolean };
export type Send = (visitId: string, events: CaptureEvent[]) => Promise<Answer>;
/** Sends what somebody else tapped as it is locked up: all of one visit and one key. */
export type SendSealed = (visitId: string, rows: Sealed[]) => Promise<Answer>;

/** Another tab tries first. */
const otherTabMs = 2000;

/** A request that hangs longer is given up; what it carried is sent again. */
const patienceMs = 15_000;

/** What the server has is kept here a little longer, so that a visit can be shown while the server is away. */
const keepSentMs = 3 * 86_400_000;

const batchMax = 200;

const byTap = (a: Kept, b: Kept) =>
  a.event.at === b.event.at ? (a.id < b.id ? -1 : 1) : a.event.at < b.event.at ? -1 : 1;

/** How soon the browser is asked again to keep what it could not. */
const keepAgainMs = 3000;

/**
 * Everything tapped goes here first: into memory at once, into the browser's store in the same breath, to the server when it
 * answers. The server knows ids it has seen, so sending twice does no harm. Tabs of one browser share what is kept, and one of
 * them sends at a time.
 */
export class Outbox {
  private readonly kept = new Map<string, Kept>();
  private readonly listeners = new Set<() => void>();
  private readonly takenListeners = new Set<(visitId: string) => void>();
  private sending: Promise<void> | null = null;
  private following: Promise<void> | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private readonly backOff = new BackOff();
  /** Rows, by id, that the browser could not keep as they are now. */
  private readonly unkept = new Set<string>();
  /** Rows, by id, that whoever was here before tapped: not sent in another name. */
  private readonly foreign = new Set<string>();
  private keepingAgain: ReturnType<typeof setTimeout> | null = null;
  private key: TabletKey | null = null;
  private status: OutboxStatus;
  private versions = new Map<string, CaptureEvent[]>();

  private constructor(
    private readonly store: TabletStore,
    private readonly send: Send,
    private readonly sendSealed: SendSealed,
  ) {
    this.status = {
      queued: 0,
      refused: [],
      offline: false,
      signedOut: false,
      inMemory: 0,
      lasting: store.lasting,
      theirs: 0,
    };
  }

  /** @param sealing what the browser keeps is locked up, with the key of who is signed in */
  static async open(
    send: Send = sendToServer,
    name = "palaestra",
    sealing = locksUp(),
    sendSealed: SendSealed = sendSealedToServer,
  ): Promise<Outbox> {
    const outbox = new Outbox(await openTabletStore(name, sealing), send, sendSealed);
    outbox.takeIn(outbox.store.rows);
    outbox.store.onOther((told) => {
      if ("put" in told) outbox.putByOther(told.put, told.kept);
      else outbox.removedByOther(told.removed);
    });
    globalThis.addEventListener("beforeunload", (leaving) => {
      if (outbox.status.inMemory > 0) leaving.preventDefault();
    });
    // The network is back: no need to wait any longer.
    globalThis.addEventListener("online", () => void outbox.flush());
    void outbox.flush();
    return outbox;
  }

  private takeIn(rows: readonly Kept[]) {
    const old: string[] = [];
    for (const row of rows) {
      if (row.state === "sent" && Date.now() - Date.parse(row.event.at) > keepSentMs) old.push(row.id);
      else if (!this.kept.has(row.id)) this.kept.set(row.id, row);
    }
    this.inOrder();
    this.drop(old);
  }

  /**
   * Somebody is here, with the key of this tablet: what they left on it is there again, and what others left is sent as theirs.
   * Whatever is only in memory of before stays there.
   */
  async begin(key: TabletKey) {
    if (this.key?.id === key.id) return this.flush();
    this.handOver();
    this.key = key;
    this.takeIn(await this.store.use(key));
    await this.flush();
  }

  /** Nobody is here: what the server has is gone from the tablet, and what it has not is locked up. */
  async leave() {
    this.key = null;
    this.letGo();
    this.store.leave();
    await this.store.clear();
  }

  /** The sign-in has ended by itself: what the server has goes from the browser; what is on the page goes on. */
  clear = () => this.store.clear();

  private letGo() {
    for (const id of [...this.kept.keys()]) if (!this.unkept.has(id)) this.kept.delete(id);
    this.foreign.clear();
    this.changed();
  }

  /**
   * Somebody else is here, whose key is on its way. What runs goes on; what whoever was here before tapped lies in the store, and
   * is sent in their name; what is tapped from now on waits for the new key.
   */
  handOver() {
    if (!this.key) return;
    this.key = null;
    this.store.leave();
    for (const row of this.kept.values())
      if (row.state === "queued" && !this.unkept.has(row.id)) this.foreign.add(row.id);
    this.changed();
  }

  /** Shown at once, written at once, sent soon. */
  add(visitId: string, event: CaptureEvent) {
    this.put({ id: event.id, visitId, event, state: "queued" });
    this.changed(visitId);
    void this.flush();
  }

  eventsOf(visitId: string): CaptureEvent[] {
    let list = this.versions.get(visitId);
    if (!list) {
      // A refused event is kept and told about, but it does not count.
      list = [...this.kept.values()]
        .filter((k) => k.visitId === visitId && k.state !== "refused")
        .map((k) => k.event);
      this.versions.set(visitId, list);
    }
    return list;
  }

  getStatus = () => this.status;

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  onTaken(listener: (visitId: string) => void) {
    this.takenListeners.add(listener);
    return () => void this.takenListeners.delete(listener);
  }

  /** Lets go of refused events after somebody has read about them. */
  dismissRefused() {
    this.drop(this.refusedRows().map((row) => row.id));
  }

  /** What the server did not accept, with its reasons, for whoever wants to keep it. */
  refusedRows = (): Kept[] => [...this.kept.values()].filter((k) => k.state === "refused");

  /** Lets go of all that is kept of some visits: their clients were erased. */
  forget(visits: ReadonlySet<string>) {
    this.drop([...this.kept.values()].filter((k) => visits.has(k.visitId)).map((row) => row.id));
  }

  private drop(ids: string[]) {
    for (const id of ids) {
      this.kept.delete(id);
      this.unkept.delete(id);
    }
    if (ids.length > 0) void this.store.remove(ids).catch(() => {});
    this.changed();
  }

  private removedByOther(ids: string[]) {
    for (const id of ids) {
      this.kept.delete(id);
      this.unkept.delete(id);
    }
    this.changed();
  }

  private putByOther(row: Kept, stored: boolean) {
    const before = this.kept.get(row.id);
    // What this tab knows to be sent, or refused, is not waiting again.
    if (!before || before.state === "queued") this.kept.set(row.id, row);
    if (!before) this.inOrder();
    if (stored) this.unkept.delete(row.id);
    else this.unkept.add(row.id);
    // Whether it goes through is to be known here too; that tab tries first.
    if (row.state === "queued" && !this.timer) this.flushIn(otherTabMs);
    this.changed(row.visitId);
    if (row.state === "sent") this.takenListeners.forEach((listener) => listener(row.visitId));
  }

  /** Tries to send what waits; whoever asks while something is sent is answered after a try of their own. */
  flush(): Promise<void> {
    if (!this.sending)
      return (this.sending = this.sendOnce().finally(() => {
        this.sending = null;
        this.changed();
      }));
    return (this.following ??= this.sending.then(() => {
      this.following = null;
      return this.flush();
    }));
  }

  private async sendOnce(): Promise<void> {
    const theirs = this.store.others();
    this.status = { ...this.status, theirs: theirs.length };
    if (this.nextBatch() || theirs.length > 0)
      await this.store.alone(async () => {
        // What was tapped before first: a trial of theirs may go on in another name.
        if (await this.sendTheirs()) await this.sendOwn();
      });
    else this.status = { ...this.status, offline: false, signedOut: false };
  }

  /** @returns whether the server takes more */
  private async sendTheirs() {
    for (let rows = this.store.others(); rows.length > 0; rows = this.store.others()) {
      const { visitId, key } = rows[0]!;
      const batch = rows.filter((r) => r.visitId === visitId && r.key === key).slice(0, batchMax);
      const answer = await this.sendSealed(visitId, batch);
      if (answer.kind === "later") {
        this.tellWaiting(answer.signedOut ?? false);
        return false;
      }
      const not = batch.filter((_, i) => answer.kind === "refused" && answer.byIndex.has(i));
      if (answer.kind === "taken") await this.store.remove(batch.map((r) => r.id));
      await this.store.refuse(not.map((r) => r.id));
      for (const { id } of answer.kind === "taken" ? batch : not) this.isSettled(id, answer.kind);
      this.status = { ...this.status, theirs: rows.length - batch.length };
      if (answer.kind === "taken") this.takenListeners.forEach((listener) => listener(visitId));
    }
    return true;
  }

  /** What somebody else tapped, where it is still on the page. */
  private isSettled(id: string, as: "taken" | "refused") {
    const row = this.kept.get(id);
    this.foreign.delete(id);
    if (row) this.kept.set(id, { ...row, state: as === "taken" ? "sent" : "refused" });
  }

  private async sendOwn() {
    for (let next = this.nextBatch(); next; next = this.nextBatch()) {
      const answer = await this.send(
        next.visitId,
        next.rows.map((r) => r.event),
      );
      if (answer.kind === "later") {
        this.tellWaiting(answer.signedOut ?? false);
        return false;
      }
      this.backOff.over();
      this.settle(next.visitId, next.rows, answer);
    }
    this.status = { ...this.status, offline: false, signedOut: false };
    return true;
  }

  private settle(visitId: string, rows: Kept[], answer: Exclude<Answer, { kind: "later" }>) {
    rows.forEach((row, i) => {
      const why = answer.kind === "refused" ? answer.byIndex.get(i) : undefined;
      if (why !== undefined) this.put({ ...row, state: "refused", why });
      else if (answer.kind === "taken") this.put({ ...row, state: "sent" });
    });
    this.status = { ...this.status, offline: false, signedOut: false };
    this.changed(visitId);
    if (answer.kind === "taken") this.takenListeners.forEach((listener) => listener(visitId));
  }

  /** As they were tapped, whichever tab: a store gives them by their ids, which say nothing of it. */
  private inOrder() {
    const rows = [...this.kept.values()].sort(byTap);
    this.kept.clear();
    for (const row of rows) this.kept.set(row.id, row);
  }

  private tellWaiting(signedOut: boolean) {
    this.status = { ...this.status, offline: !signedOut, signedOut };
    this.flushIn(this.backOff.next());
  }

  private flushIn(ms: number) {
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      this.timer = null;
      void this.flush();
    }, ms);
  }

  private nextBatch() {
    const queued = [...this.kept.values()].filter((k) => k.state === "queued" && !this.foreign.has(k.id));
    const first = queued[0];
    if (!first) return null;
    return {
      visitId: first.visitId,
      rows: queued.filter((k) => k.visitId === first.visitId).slice(0, batchMax),
    };
  }

  private put(row: Kept) {
    this.kept.set(row.id, row);
    void this.keep(row);
  }

  /** Into the browser's store; where it cannot be kept that is told, and tried again. */
  private async keep(row: Kept) {
    try {
      await this.store.put(row);
      // What was put since has its own turn.
      if (this.kept.get(row.id) === row && this.unkept.delete(row.id)) this.changed();
    } catch {
      if (this.kept.get(row.id) !== row) return;
      this.unkept.add(row.id);
      this.changed();
      if (this.store.lasting) this.keepingAgain ??= setTimeout(() => this.keepAgain(), keepAgainMs);
    }
  }

  private keepAgain() {
    this.keepingAgain = null;
    for (const id of this.unkept) {
      const row = this.kept.get(id);
      if (row) void this.keep(row);
      else this.unkept.delete(id);
    }
  }

  private changed(visitId?: string) {
    if (visitId) this.versions.delete(visitId);
    else this.versions.clear();
    const rows = [...this.kept.values()];
    this.status = {
      ...this.status,
      queued: rows.filter((k) => k.state === "queued" && !this.foreign.has(k.id)).length,
      inMemory: rows.filter((k) => k.state === "queued" && this.unkept.has(k.id)).length,
      refused: rows.filter((k) => k.state === "refused").map((k) => k.why ?? say("capture.not-accepted")),
    };
    this.listeners.forEach((listener) => listener());
  }
}

const sendToServer: Send = (visitId, events) =>
  answerOf(
    events.length,
    api.POST("/api/visits/{visitId}/events", {
      params: { path: { visitId } },
      body: { events },
      signal: AbortSignal.timeout(patienceMs),
    }),
  );

const sendSealedToServer: SendSealed = (visitId, rows) =>
  answerOf(
    rows.length,
    api.POST("/api/visits/{visitId}/sealed-events", {
      params: { path: { visitId } },
      body: { sealed: rows[0]!.by, events: rows.map((row) => row.event) },
      signal: AbortSignal.timeout(patienceMs),
    }),
  );

async function answerOf(count: number, asked: Promise<ServerAnswer<unknown>>): Promise<Answer> {
  try {
    const { response, error } = await asked;
    if (response.ok) return { kind: "taken" };
    // Signed out, or locked: it waits until somebody is here.
    if (response.status === 401 || response.status === 423) return { kind: "later", signedOut: true };
    if (response.status === 422 || response.status === 400) return refusal(count, error);
    if (response.status === 404) return all(count, say("capture.this-visit-is-no-longer"));
    return { kind: "later" };
  } catch {
    return { kind: "later" };
  }
}

const all = (count: number, why: string): Answer => ({
  kind: "refused",
  byIndex: new Map(Array.from({ length: count }, (_, i) => [i, why])),
});

/** Which events of the batch were named; when none was, all of them, so that nothing blocks the rest for ever. */
function refusal(count: number, problem: Partial<Problem> | undefined): Answer {
  const byIndex = new Map<number, string>();
  const errors = problem?.errors ?? [];
  for (const error of errors) {
    const index = /^events\[(\d+)\]/.exec(error.field)?.[1];
    if (index !== undefined) byIndex.set(Number(index), error.message);
  }
  return byIndex.size === 0
    ? all(count, errors[0]?.message ?? say("capture.not-accepted"))
    : { kind: "refused", byIndex };
}
