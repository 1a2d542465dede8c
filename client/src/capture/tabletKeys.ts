import type { IDBPDatabase } from "idb";
import { openBrowserStore } from "./browserStore";
import {
  fromBase64,
  keyOf,
  locksUp,
  lockUp,
  newKey,
  toBase64,
  unlock,
  type Locked,
  type TabletKey,
} from "./sealing";

/** PBKDF2 with SHA-256: rounds by the OWASP password storage cheat sheet of 2023, from memory. */
const rounds = 600_000;
const saltBytes = 16;
const wrongMost = 5;

/** A key as the server gives it. */
export interface GivenKey {
  id: string;
  secret: string;
  sealed: string;
}

/** The key locked up by the PIN and, over that, by a key that does not leave this browser. */
interface KeptPin {
  salt: string;
  locked: Locked;
  wrong: number;
  /** Of the PIN, as the server marks it: another one is set with another mark. */
  mark: string | null;
}

/** Who was signed in here last, and what opens the tablet for them without the server. */
interface Here {
  name: string;
  id: string;
  sealed: string;
  pin: KeptPin | null;
}

/** Whoever is here, and how their tablet opens. */
export interface AtTablet {
  name: string;
  /** By the PIN, also without the server. */
  byPin: boolean;
}

/**
 * The key of this tablet. The server makes it and tells it to whoever is signed in; without the server the PIN opens it, five
 * wrong ones excepted. It outlives the sign-out, since what was not sent yet is locked up with it.
 */
export class TabletKeys {
  private constructor(
    private readonly db: IDBPDatabase | null,
    private here: Here | null,
    private readonly everyone: Map<string, Here>,
  ) {}

  /** Where the browser keeps nothing, or may not lock up, nobody is ever here. */
  static async open(name = "palaestra-keys"): Promise<TabletKeys> {
    // A version before this one kept a hash of the PIN.
    localStorage.removeItem("palaestra-pin");
    if (!locksUp()) return new TabletKeys(null, null, new Map());
    try {
      const db = await openBrowserStore(name, (created) => {
        created.createObjectStore("kept");
      });
      if (!(await db.get("kept", "device"))) await db.put("kept", await newKey(), "device");
      const everyone = new Map(
        (((await db.get("kept", "everyone")) ?? []) as Here[]).map((h) => [h.name, h]),
      );
      const who = (await db.get("kept", "here")) as string | undefined;
      return new TabletKeys(db, (who !== undefined && everyone.get(who)) || null, everyone);
    } catch {
      return new TabletKeys(null, null, new Map());
    }
  }

  private key: TabletKey | null = null;
  private readonly waiting = new Set<(key: TabletKey) => void>();

  /** The key of whoever is here, once it is open. */
  opened = () =>
    this.key
      ? Promise.resolve(this.key)
      : new Promise<TabletKey>((resolve) => void this.waiting.add(resolve));

  private hasOpened(key: TabletKey) {
    this.key = key;
    this.waiting.forEach((told) => told(key));
    this.waiting.clear();
    return key;
  }

  get works() {
    return this.db !== null;
  }

  get who(): AtTablet | null {
    return this.here && { name: this.here.name, byPin: this.here.pin !== null };
  }

  /** Whether this tablet opens for somebody by their PIN without the server. */
  opensAlone = (name: string) => this.here?.name === name && this.here.pin !== null;

  /**
   * Somebody is signed in: their key, from the server.
   * @param mark of their PIN, as the server marks it now: one that was set on another tablet ends the one that is kept here
   */
  async begin(
    name: string,
    mark: string | null,
    ask: (sealed: string | null) => Promise<GivenKey>,
  ): Promise<TabletKey | null> {
    if (!this.db) return null;
    const given = await ask(this.everyone.get(name)?.sealed ?? null);
    // As it is now: a PIN may have been set meanwhile.
    const before = this.everyone.get(name);
    const pin = before?.id === given.id && before.pin?.mark === mark ? before.pin : null;
    await this.keep({ name, id: given.id, sealed: given.sealed, pin });
    return this.hasOpened({
      id: given.id,
      sealed: given.sealed,
      key: await keyOf(fromBase64(given.secret)),
    });
  }

  /** From now on this PIN opens the tablet for whoever is here. */
  async keepPin(pin: string, mark: string | null, ask: (sealed: string | null) => Promise<GivenKey>) {
    const here = this.here;
    if (!this.db || !here || (here.pin?.mark === mark && here.pin.wrong === 0)) return;
    const given = await ask(here.sealed);
    const salt = crypto.getRandomValues(new Uint8Array(saltBytes));
    const inner = await lockUp(await byPin(pin, salt), fromBase64(given.secret));
    const locked = await lockUp(await this.device(), new TextEncoder().encode(JSON.stringify(inner)));
    await this.keep({
      ...here,
      id: given.id,
      sealed: given.sealed,
      pin: { salt: toBase64(salt), locked, wrong: 0, mark },
    });
  }

  /** The key by the PIN, without the server; null: it is wrong. After five wrong ones only the server opens the tablet. */
  async openByPin(pin: string): Promise<TabletKey | null> {
    await this.readAgain();
    const here = this.here;
    if (!this.db || !here?.pin) return null;
    const kept = here.pin;
    try {
      const inner = JSON.parse(
        new TextDecoder().decode(await unlock(await this.device(), kept.locked)),
      ) as Locked;
      const secret = await unlock(await byPin(pin, fromBase64(kept.salt)), inner);
      await this.keep({ ...here, pin: { ...kept, wrong: 0 } });
      return this.hasOpened({ id: here.id, sealed: here.sealed, key: await keyOf(secret) });
    } catch {
      const wrong = kept.wrong + 1;
      await this.keep({ ...here, pin: wrong >= wrongMost ? null : { ...kept, wrong } });
      return null;
    }
  }

  async forgetPin() {
    if (this.here) await this.keep({ ...this.here, pin: null });
  }

  /** Nobody is here any more. What is locked up with the key stays so, for whoever comes back and for the server. */
  async leave() {
    this.here = null;
    this.key = null;
    await this.db?.delete("kept", "here");
  }

  /** Another tab may have counted wrong ones too. */
  private async readAgain() {
    const everyone = ((await this.db?.get("kept", "everyone")) ?? []) as Here[];
    for (const one of everyone) this.everyone.set(one.name, one);
    if (this.here) this.here = this.everyone.get(this.here.name) ?? null;
  }

  private device = async () => (await this.db!.get("kept", "device")) as CryptoKey;

  private async keep(here: Here) {
    this.here = here;
    this.everyone.set(here.name, here);
    const change = this.db!.transaction("kept", "readwrite");
    await Promise.all([
      change.store.put([...this.everyone.values()], "everyone"),
      change.store.put(here.name, "here"),
      change.done,
    ]);
  }
}

async function byPin(pin: string, salt: Uint8Array<ArrayBuffer>) {
  const typed = await crypto.subtle.importKey("raw", new TextEncoder().encode(pin), "PBKDF2", false, [
    "deriveKey",
  ]);
  return crypto.subtle.deriveKey(
    { name: "PBKDF2", hash: "SHA-256", salt, iterations: rounds },
    typed,
    { name: "AES-GCM", length: 256 },
    false,
    ["encrypt", "decrypt"],
  );
}
