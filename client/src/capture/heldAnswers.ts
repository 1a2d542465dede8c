import type { IDBPDatabase } from "idb";
import type { CheckIn, IntakeForm } from "../api/types";
import { BackOff } from "./backOff";
import { openBrowserStore } from "./browserStore";
import { lockUpText, unlockText, type Locked, type TabletKey } from "./sealing";

/** What was answered, and what stood there then. */
type Answered =
  | { kind: "check-in"; checkIn: CheckIn; version: number; before: CheckIn | null }
  | { kind: "intake"; form: IntakeForm; before: IntakeForm }
  | { kind: "red-flags"; dangerSigns: string[] };

/** What was answered while the server was away, to be written there as soon as it is back. */
export type HeldAnswer = {
  /** One of a kind for each visit: what is answered again takes its place. */
  id: string;
  episodeId: string;
  visitId: string;
  /** Who answered, and when. */
  name: string;
  at: string;
} & Answered;

export type HeldCheckIn = Extract<HeldAnswer, { kind: "check-in" }>;
export type HeldIntake = Extract<HeldAnswer, { kind: "intake" }>;

/** Why the server did not take it; "later": it was not there. */
export type Written = { kind: "taken" } | { kind: "later" } | { kind: "refused"; why: string };
export type Write = (answer: HeldAnswer) => Promise<Written>;

/** A red flag of somebody who left, as it lies in the browser: the server alone can read it. */
export interface SealedFlag extends Locked {
  sealed: string;
  about: string;
}
export type WriteSealed = (flag: SealedFlag) => Promise<Written>;

export interface HeldStatus {
  waiting: number;
  refused: { answer: HeldAnswer; why: string }[];
  /** Of somebody else, who has to sign in on this tablet. */
  theirs: number;
  /** True when the last try to write failed. */
  offline: boolean;
}

/** As it is known on the page. */
interface Held {
  answer: HeldAnswer;
  why: string | null;
}

/** As it lies in the browser: what was answered, and why it was refused, only with the key of who answered. */
interface Row {
  id: string;
  key: string;
  locked: Locked;
  /** Of a red flag: the key as the server reads it, so that it reaches it whoever signs in here next. */
  sealed?: string;
}

/**
 * Answers of the ask and the check-in, and red flags, that wait for the server. Locked up with the key of who answered: they are
 * written in nobody else's name. Somebody who left comes back to their answers; a red flag of theirs does not wait for that.
 */
export class HeldAnswers {
  private key: TabletKey | null = null;
  private readonly held = new Map<string, Held>();
  /** The row of each, by a name that says nothing of what was answered. */
  private readonly rows = new Map<string, string>();
  /** Flags of others that the server would refuse again: they wait for who noted them. */
  private readonly refusedOfOthers = new Set<string>();
  private readonly listeners = new Set<() => void>();
  private status: HeldStatus = { waiting: 0, refused: [], theirs: 0, offline: false };
  private timer: ReturnType<typeof setTimeout> | null = null;
  private readonly backOff = new BackOff();
  private offline = false;
  private writing: Promise<void> | null = null;

  private constructor(
    private readonly db: IDBPDatabase | null,
    private readonly writes: { own: Write; sealed: WriteSealed },
    private readonly onWritten: () => void,
  ) {}

  static async open(
    writes: { own: Write; sealed: WriteSealed },
    onWritten: () => void = () => undefined,
    name = "palaestra-held",
  ) {
    let db: IDBPDatabase | null = null;
    try {
      db = await openBrowserStore(name, (created) => {
        created.createObjectStore("held", { keyPath: "id" });
      });
    } catch {
      // Nothing can be held here: what is answered has to wait for the server.
    }
    const held = new HeldAnswers(db, writes, onWritten);
    globalThis.addEventListener("online", () => void held.flush());
    return held;
  }

  getStatus = () => this.status;

  /** In the order they were answered. */
  waiting = () => [...this.held.values()].filter((h) => h.why === null).map((h) => h.answer);

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  /** Whoever is here: what they answered on this tablet before is written now. */
  async begin(key: TabletKey) {
    if (this.key?.id === key.id) return this.flush();
    this.key = key;
    this.held.clear();
    this.rows.clear();
    const rows = await this.all();
    for (const row of rows.filter((r) => r.key === key.id)) {
      const told = (await unlockText(key.key, row.locked, row.id).catch(() => null)) as Held | null;
      if (!told) continue;
      this.held.set(told.answer.id, told);
      this.rows.set(told.answer.id, row.id);
    }
    this.tell(rows.filter((r) => r.key !== key.id).length);
    await this.flush();
  }

  leave() {
    this.key = null;
    this.held.clear();
    this.rows.clear();
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.tell(0);
  }

  /** @throws where it cannot be kept: nothing is pretended */
  async hold(answer: HeldAnswer) {
    if (!this.db || !this.key) throw new Error("This tablet cannot keep it.");
    this.offline = true;
    await this.put(since(this.held.get(answer.id)?.answer, answer), null);
    this.later();
  }

  async letGo() {
    for (const { answer, why } of [...this.held.values()]) if (why !== null) await this.remove(answer.id);
  }

  flush(): Promise<void> {
    return (this.writing ??= this.writeAll().finally(() => {
      this.writing = null;
    }));
  }

  private async writeAll() {
    await this.writeFlagsOfOthers();
    const waiting = this.waiting();
    // A red flag before all else, then as they were answered.
    waiting.sort((a, b) => rank(a) - rank(b) || (a.at < b.at ? -1 : 1));
    for (const answer of waiting) {
      const written = await this.writes.own(answer);
      this.offline = written.kind === "later";
      this.tell();
      if (this.offline) return this.later();
      this.backOff.over();
      // Answered again meanwhile: that one has its own turn.
      if (this.held.get(answer.id)?.answer.at !== answer.at) continue;
      if (written.kind === "refused") await this.put(answer, written.why);
      else await this.remove(answer.id);
      this.onWritten();
    }
  }

  private async writeFlagsOfOthers() {
    const mine = this.key?.id;
    if (mine === undefined) return;
    const flags = (await this.all()).filter((row) => row.key !== mine && row.sealed);
    for (const { id, locked, sealed } of flags) {
      if (this.refusedOfOthers.has(id)) continue;
      const written = await this.writes.sealed({ ...locked, sealed: sealed!, about: id });
      // What whoever is here answered does not wait for it.
      if (written.kind === "later") this.later();
      if (written.kind === "refused") this.refusedOfOthers.add(id);
      if (written.kind !== "taken") continue;
      await this.db?.delete("held", id).catch(() => undefined);
      this.onWritten();
    }
    if (flags.length > 0 && this.key?.id === mine)
      this.tell((await this.all()).filter((row) => row.key !== mine).length);
  }

  private later() {
    if (this.timer) return;
    this.timer = setTimeout(() => {
      this.timer = null;
      void this.flush();
    }, this.backOff.next());
  }

  private async put(answer: HeldAnswer, why: string | null) {
    const { id: key, key: by, sealed } = this.key!;
    const id = this.rows.get(answer.id) ?? crypto.randomUUID();
    this.rows.set(answer.id, id);
    const locked = await lockUpText(by, { answer, why }, id);
    const row: Row = { id, key, locked, ...(answer.kind === "red-flags" && { sealed }) };
    await this.db!.put("held", row);
    this.held.set(answer.id, { answer, why });
    this.tell();
  }

  private async remove(id: string) {
    const row = this.rows.get(id);
    this.held.delete(id);
    this.rows.delete(id);
    if (row) await this.db?.delete("held", row).catch(() => undefined);
    this.tell();
  }

  private all = async () => ((await this.db?.getAll("held").catch(() => [])) ?? []) as Row[];

  private tell(theirs = this.status.theirs) {
    const all = [...this.held.values()];
    this.status = {
      waiting: all.filter((h) => h.why === null).length,
      refused: all.flatMap(({ answer, why }) => (why === null ? [] : [{ answer, why }])),
      theirs,
      offline: this.offline,
    };
    this.listeners.forEach((listener) => listener());
  }
}

const rank = (answer: HeldAnswer) => (answer.kind === "red-flags" ? 0 : 1);

/** Answered twice before it was written: what stood on the server is what stood there the first time. */
function since(earlier: HeldAnswer | undefined, answer: HeldAnswer): HeldAnswer {
  if (earlier?.kind === "check-in" && answer.kind === "check-in")
    return { ...answer, before: earlier.before };
  if (earlier?.kind === "intake" && answer.kind === "intake") return { ...answer, before: earlier.before };
  return answer;
}
