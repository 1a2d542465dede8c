import type { IDBPDatabase } from "idb";
import type { CaptureEvent } from "../api/types";
import { openBrowserStore } from "./browserStore";
import { lockUpText, unlockText, type Locked, type TabletKey } from "./sealing";

/** An event as the tablet keeps it: until it is sent, and some days after. */
export interface Kept {
  id: string;
  visitId: string;
  event: CaptureEvent;
  state: "queued" | "sent" | "refused";
  why?: string;
}

/** An event as it lies in the browser: the event itself only with the key of who tapped it, or by the server. */
export interface Sealed {
  id: string;
  visitId: string;
  state: Kept["state"];
  at: string;
  /** Which key, and the same as the server sealed it. */
  key: string;
  by: string;
  event: Locked;
  why: Locked | null;
}

/** What outlives the page, and what other tabs of this browser are told. */
export interface TabletStore {
  /** False where the browser keeps nothing: a private window, a device that does not allow it. */
  readonly lasting: boolean;
  /** What could be read when it was opened: all of it where this browser locks nothing up. */
  readonly rows: readonly Kept[];
  /**
   * Everything is locked up with this key from now on; what lay open before too.
   * @returns what is locked up with it
   */
  use(key: TabletKey): Promise<Kept[]>;
  /** What waits to be sent and is locked up with another key: somebody else tapped it. */
  others(): Sealed[];
  /** The server does not take it: it stays for who tapped it. */
  refuse(ids: string[]): Promise<void>;
  /** Whoever was here leaves: what is put from now on waits for the next one's key. */
  leave(): void;
  /** What the server has goes. */
  clear(): Promise<void>;
  /** @throws where the browser could not keep it, as when its storage is full */
  put(row: Kept): Promise<void>;
  remove(ids: string[]): Promise<void>;
  /** What another tab has put, and whether it could be kept, or removed. */
  onOther(told: (told: Told) => void): void;
  /** One tab at a time; where the others take too long, without them: what is sent twice is there once. */
  alone<T>(work: () => Promise<T>): Promise<T>;
}

/** What one tab tells the others. */
export type Told = { put: Kept; kept: boolean } | { removed: string[] };

/** A tab that is asleep may hold on to its turn. Longer than a request takes until it is given up. */
const turnMs = 20_000;

/** The key comes with the sign-in; what is tapped before it waits so long. */
const keyMs = 3000;

/** None where it does not open, or cannot be read: what lies in it waits for a better day. */
async function opened(name: string): Promise<{ db: IDBPDatabase; rows: Kept[] } | null> {
  try {
    const db = await openBrowserStore(name, (created) => {
      created.createObjectStore("events", { keyPath: "id" });
    });
    const all = (await db.getAll("events")) as (Kept | Sealed)[];
    return { db, rows: all.filter((row): row is Kept => !isSealed(row)) };
  } catch {
    return null;
  }
}

const isSealed = (row: Kept | Sealed): row is Sealed => "key" in row;

/** Bound to its visit: nobody files it under another client. */
async function sealed(row: Kept, { id: key, sealed: by, key: with_ }: TabletKey): Promise<Sealed> {
  return {
    id: row.id,
    visitId: row.visitId,
    state: row.state,
    at: row.event.at,
    key,
    by,
    event: await lockUpText(with_, row.event, row.visitId),
    why: row.why === undefined ? null : await lockUpText(with_, row.why),
  };
}

/** Null: it cannot be read with this key, and stays as it is. */
async function unsealed(row: Sealed, { key }: TabletKey): Promise<Kept | null> {
  try {
    const event = (await unlockText(key, row.event, row.visitId)) as CaptureEvent;
    const why = row.why ? ((await unlockText(key, row.why)) as string) : undefined;
    return {
      id: row.id,
      visitId: row.visitId,
      event,
      state: row.state,
      ...(why === undefined ? {} : { why }),
    };
  } catch {
    return null;
  }
}

/** @param locksUp what is kept is locked up, once there is a key: until then it waits */
export async function openTabletStore(name: string, locksUp = false): Promise<TabletStore> {
  const { db, rows } = (await opened(name)) ?? { db: null, rows: [] };
  const others = "BroadcastChannel" in globalThis ? new BroadcastChannel(name) : null;
  const tell = (told: Told) => others?.postMessage(told);
  const locks = "locks" in navigator ? navigator.locks : null;
  let key: TabletKey | null = null;
  let foreign: Sealed[] = [];
  const waiting = new Set<(key: TabletKey) => void>();

  const now = () =>
    key ??
    new Promise<TabletKey>((resolve, reject) => {
      waiting.add(resolve);
      setTimeout(() => reject(new Error("Nobody is signed in here.")), keyMs);
    });
  // One after the other: locking up takes longer for one than for the next.
  let last: Promise<unknown> = Promise.resolve();
  const inTurn = (work: () => Promise<unknown>) => {
    const done = last.then(work);
    last = done.catch(() => undefined);
    return done;
  };
  const write = async (row: Kept) => {
    if (!db) throw new Error("The browser keeps nothing.");
    const by = locksUp ? await now() : null;
    await inTurn(async () => db.put("events", by ? await sealed(row, by) : row));
  };
  const all = async () => (db ? ((await db.getAll("events")) as (Kept | Sealed)[]) : []);
  const remove = async (ids: string[]) => {
    if (!db) return;
    await inTurn(async () => {
      const change = db.transaction("events", "readwrite");
      await Promise.all([...ids.map((id) => change.store.delete(id)), change.done]);
    });
  };

  return {
    lasting: db !== null,
    rows,
    use: async (given) => {
      key = given;
      waiting.forEach((keyed) => keyed(given));
      waiting.clear();
      // What is on its way into the store is there first.
      await inTurn(() => Promise.resolve());
      const found = await all();
      foreign = found.filter(isSealed).filter((row) => row.key !== given.id && row.state === "queued");
      const mine = await Promise.all(
        found.map((row) => (isSealed(row) ? (row.key === given.id ? unsealed(row, given) : null) : row)),
      );
      for (const row of found) if (!isSealed(row)) await write(row);
      return mine.filter((row) => row !== null);
    },
    others: () => foreign,
    refuse: async (ids) => {
      foreign = foreign.filter((row) => !ids.includes(row.id));
      for (const row of (await all()).filter(isSealed))
        if (ids.includes(row.id)) await db?.put("events", { ...row, state: "refused" });
    },
    leave: () => {
      key = null;
      foreign = [];
    },
    clear: async () => {
      await remove((await all()).filter((row) => row.state === "sent").map((row) => row.id));
    },
    put: async (row) => {
      try {
        await write(row);
        tell({ put: row, kept: true });
      } catch (error) {
        tell({ put: row, kept: false });
        throw error;
      }
    },
    remove: async (ids) => {
      foreign = foreign.filter((row) => !ids.includes(row.id));
      tell({ removed: ids });
      await remove(ids);
    },
    onOther: (told) => others?.addEventListener("message", ({ data }: MessageEvent<Told>) => told(data)),
    alone: async (work) => {
      let begun = false;
      const begin = () => {
        begun = true;
        return work();
      };
      if (!locks) return await begin();
      try {
        return await locks.request(`${name}-sending`, { signal: AbortSignal.timeout(turnMs) }, begin);
      } catch (error) {
        if (begun) throw error;
        return await begin();
      }
    },
  };
}
