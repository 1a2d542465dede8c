import { openDB, type IDBPDatabase } from "idb";
import { api, type Problem } from "../api/client";
import type { CaptureEvent } from "../api/types";
import { say } from "../words/say";

/** An event as the tablet keeps it: until it is sent, and some days after. */
interface Kept {
  id: string;
  visitId: string;
  event: CaptureEvent;
  state: "queued" | "sent" | "refused";
  why?: string;
}

export interface OutboxStatus {
  queued: number;
  refused: string[];
  /** True when the last try to send failed. */
  offline: boolean;
  signedOut: boolean;
}

type Answer =
  | { kind: "taken" }
  | { kind: "refused"; byIndex: Map<number, string> }
  | { kind: "later"; signedOut?: boolean };
export type Send = (visitId: string, events: CaptureEvent[]) => Promise<Answer>;

/** The first try again comes soon, each later one after twice as long, so that a server that comes back is not run over. */
const retryMs = 2000;
const retryMostMs = 10_000;

/** A request that hangs longer is given up; what it carried is sent again. */
const patienceMs = 15_000;

/** What the server has is kept here a little longer, so that a visit can be shown while the server is away. */
const keepSentMs = 3 * 86_400_000;

const batchMax = 200;

/**
 * Everything tapped goes here first: into memory at once, into IndexedDB in the same breath, to the server when it
 * answers. The server knows ids it has seen, so sending twice does no harm.
 */
export class Outbox {
  private readonly kept = new Map<string, Kept>();
  private readonly listeners = new Set<() => void>();
  private readonly takenListeners = new Set<(visitId: string) => void>();
  private sending = false;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private tries = 0;
  private status: OutboxStatus = { queued: 0, refused: [], offline: false, signedOut: false };
  private versions = new Map<string, CaptureEvent[]>();

  private constructor(
    private readonly db: IDBPDatabase,
    private readonly send: Send,
  ) {}

  static async open(send: Send = sendToServer, name = "palaestra"): Promise<Outbox> {
    const db = await openDB(name, 1, {
      upgrade: (created) => {
        created.createObjectStore("events", { keyPath: "id" });
      },
    });
    const outbox = new Outbox(db, send);
    for (const row of (await db.getAll("events")) as Kept[]) {
      if (row.state === "sent" && Date.now() - Date.parse(row.event.at) > keepSentMs)
        void db.delete("events", row.id);
      else outbox.kept.set(row.id, row);
    }
    outbox.changed();
    // The network is back: no need to wait any longer.
    globalThis.addEventListener("online", () => void outbox.flush());
    void outbox.flush();
    return outbox;
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
    for (const row of [...this.kept.values()].filter((k) => k.state === "refused")) {
      this.kept.delete(row.id);
      void this.db.delete("events", row.id);
    }
    this.changed();
  }

  /** Lets go of all that is kept of some visits: their clients were erased. */
  forget(visits: ReadonlySet<string>) {
    for (const row of [...this.kept.values()].filter((k) => visits.has(k.visitId))) {
      this.kept.delete(row.id);
      void this.db.delete("events", row.id);
    }
    this.changed();
  }

  async flush(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    try {
      let next = this.nextBatch();
      while (next) {
        const answer = await this.send(
          next.visitId,
          next.rows.map((r) => r.event),
        );
        if (answer.kind === "later") {
          this.tellWaiting(answer.signedOut ?? false);
          return;
        }
        this.tries = 0;
        this.settle(next.visitId, next.rows, answer);
        next = this.nextBatch();
      }
      this.status = { ...this.status, offline: false, signedOut: false };
    } finally {
      this.sending = false;
      this.changed();
    }
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

  private tellWaiting(signedOut: boolean) {
    this.status = { ...this.status, offline: !signedOut, signedOut };
    if (this.timer) clearTimeout(this.timer);
    const wait = Math.min(retryMs * 2 ** this.tries, retryMostMs);
    this.tries += 1;
    // Tablets that lost the server together do not come back all at once.
    this.timer = setTimeout(() => void this.flush(), wait * (0.75 + 0.25 * Math.random()));
  }

  private nextBatch() {
    const queued = [...this.kept.values()].filter((k) => k.state === "queued");
    const first = queued[0];
    if (!first) return null;
    return {
      visitId: first.visitId,
      rows: queued.filter((k) => k.visitId === first.visitId).slice(0, batchMax),
    };
  }

  private put(row: Kept) {
    this.kept.set(row.id, row);
    void this.db.put("events", row);
  }

  private changed(visitId?: string) {
    if (visitId) this.versions.delete(visitId);
    else this.versions.clear();
    const rows = [...this.kept.values()];
    this.status = {
      ...this.status,
      queued: rows.filter((k) => k.state === "queued").length,
      refused: rows.filter((k) => k.state === "refused").map((k) => k.why ?? say("capture.not-accepted")),
    };
    this.listeners.forEach((listener) => listener());
  }
}

async function sendToServer(visitId: string, events: CaptureEvent[]): Promise<Answer> {
  try {
    const { response, error } = await api.POST("/api/visits/{visitId}/events", {
      params: { path: { visitId } },
      body: { events },
      signal: AbortSignal.timeout(patienceMs),
    });
    if (response.ok) return { kind: "taken" };
    // Signed out, or locked: it waits until somebody is here.
    if (response.status === 401 || response.status === 423) return { kind: "later", signedOut: true };
    if (response.status === 422 || response.status === 400) return refusal(events, error);
    if (response.status === 404)
      return {
        kind: "refused",
        byIndex: new Map(events.map((_, i) => [i, say("capture.this-visit-is-no-longer")])),
      };
    return { kind: "later" };
  } catch {
    return { kind: "later" };
  }
}

/** Which events of the batch were named; when none was, all of them, so that nothing blocks the rest for ever. */
function refusal(events: CaptureEvent[], problem: Partial<Problem> | undefined): Answer {
  const byIndex = new Map<number, string>();
  const errors = problem?.errors ?? [];
  for (const error of errors) {
    const index = /^events\[(\d+)\]/.exec(error.field)?.[1];
    if (index !== undefined) byIndex.set(Number(index), error.message);
  }
  if (byIndex.size === 0) events.forEach((_, i) => byIndex.set(i, errors[0]?.message ?? "not accepted"));
  return { kind: "refused", byIndex };
}
