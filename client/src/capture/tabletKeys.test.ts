// @vitest-environment node
import "fake-indexeddb/auto";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { lockUpText, newKey, toBase64, unlockText } from "./sealing";
import { eachOnNewTablet } from "./testTablet";
import { TabletKeys, type GivenKey } from "./tabletKeys";

let name = "";
const forgotten = vi.fn();
eachOnNewTablet((fresh) => (name = fresh));
beforeEach(() => vi.stubGlobal("localStorage", { removeItem: forgotten }));

/** A server that seals by writing down: what it sealed it knows again. */
function server() {
  const made = new Map<string, GivenKey>();
  return {
    made,
    ask: (sealed: string | null): Promise<GivenKey> => {
      const known = sealed === null ? undefined : made.get(sealed);
      if (known) return Promise.resolve(known);
      const secret = toBase64(crypto.getRandomValues(new Uint8Array(32)));
      const given = { id: `key-${made.size}`, secret, sealed: `sealed-${made.size}` };
      made.set(given.sealed, given);
      return Promise.resolve(given);
    },
  };
}

const everythingIn = async (database: string) => {
  const { openDB } = await import("idb");
  const db = await openDB(database);
  return JSON.stringify([await db.getAll("kept"), await db.getAllKeys("kept")]);
};

describe("what is locked up", () => {
  it("opens with its key, bound to what it is about, and with no other", async () => {
    const [mine, other] = [await newKey(), await newKey()];
    const locked = await lockUpText(mine, { pain: 4 }, "visit");
    expect(JSON.stringify(locked)).not.toContain("pain");
    expect(await unlockText(mine, locked, "visit")).toEqual({ pain: 4 });
    await expect(unlockText(mine, locked, "another visit")).rejects.toThrow();
    await expect(unlockText(other, locked, "visit")).rejects.toThrow();
  });

  it("is never twice the same", async () => {
    const key = await newKey();
    expect(await lockUpText(key, "x")).not.toEqual(await lockUpText(key, "x"));
  });
});

describe("the key of a tablet", () => {
  it("opens by the PIN without the server, after the browser was closed, and is kept nowhere as it is", async () => {
    const { ask, made } = server();
    const keys = await TabletKeys.open(name);
    const begun = (await keys.begin("Bram", "m1", ask))!;
    await keys.keepPin("482917", "m1", ask);
    const locked = await lockUpText(begun.key, "tapped");
    const kept = await everythingIn(name);
    expect(kept).not.toContain("482917");
    expect(kept).not.toContain([...made.values()][0]!.secret);

    const later = await TabletKeys.open(name);
    expect(later.who).toEqual({ name: "Bram", byPin: true });
    expect(later.opensAlone("Ines")).toBe(false);
    const opened = (await later.openByPin("482917"))!;
    expect(opened.id).toBe(begun.id);
    expect(await unlockText(opened.key, locked)).toBe("tapped");
  }, 60_000);

  it("does not open by the PIN after five wrong ones, in whatever tab and over whatever reload, and then by the server alone", async () => {
    const { ask } = server();
    const keys = await TabletKeys.open(name);
    const begun = (await keys.begin("Bram", "m1", ask))!;
    await keys.keepPin("482917", "m1", ask);
    const other = await TabletKeys.open(name);
    for (const wrong of ["000001", "000002"]) expect(await keys.openByPin(wrong)).toBeNull();
    for (const wrong of ["000003", "000004"]) expect(await other.openByPin(wrong)).toBeNull();
    expect(await keys.openByPin("482917")).not.toBeNull();
    for (let i = 0; i < 3; i++) expect(await other.openByPin(`00001${i}`)).toBeNull();
    const reloaded = await TabletKeys.open(name);
    for (let i = 0; i < 2; i++) expect(await reloaded.openByPin(`00002${i}`)).toBeNull();
    expect(await reloaded.openByPin("482917")).toBeNull();
    expect((await TabletKeys.open(name)).who).toEqual({ name: "Bram", byPin: false });
    // Nothing is lost: the same key comes from the server.
    expect((await reloaded.begin("Bram", "m1", ask))!.id).toBe(begun.id);
  }, 120_000);

  it("no longer opens by a PIN that was changed on another tablet", async () => {
    const { ask } = server();
    const keys = await TabletKeys.open(name);
    const begun = (await keys.begin("Bram", "m1", ask))!;
    await keys.keepPin("482917", "m1", ask);
    expect((await keys.begin("Bram", "m2", ask))!.id).toBe(begun.id);
    expect(keys.opensAlone("Bram")).toBe(false);
    expect(await keys.openByPin("482917")).toBeNull();
  }, 60_000);

  it("keeps a PIN that is set while the server is asked for the key", async () => {
    const { ask } = server();
    const keys = await TabletKeys.open(name);
    await keys.begin("Bram", null, ask);
    let answer = () => {};
    const slow = new Promise<void>((resolve) => (answer = resolve));
    const again = keys.begin("Bram", "m1", async (sealed) => {
      await slow;
      return ask(sealed);
    });
    await keys.keepPin("482917", "m1", ask);
    answer();
    await again;
    expect((await TabletKeys.open(name)).who).toEqual({ name: "Bram", byPin: true });
  }, 60_000);

  it("is the same when somebody comes back, another for somebody else, and opens for nobody in between", async () => {
    const { ask } = server();
    const keys = await TabletKeys.open(name);
    const mine = (await keys.begin("Bram", null, ask))!;
    await keys.leave();
    expect(keys.who).toBeNull();
    expect((await TabletKeys.open(name)).who).toBeNull();
    expect((await keys.begin("Ines", null, ask))!.id).not.toBe(mine.id);
    expect((await keys.begin("Bram", null, ask))!.id).toBe(mine.id);
  });

  it("is not there where the browser may not lock up", async () => {
    vi.stubGlobal("isSecureContext", false);
    const keys = await TabletKeys.open(name);
    expect(keys.works).toBe(false);
    expect(await keys.begin("Bram", null, server().ask)).toBeNull();
    expect(keys.opensAlone("Bram")).toBe(false);
  });

  it("leaves nothing of a PIN that a version before it kept", async () => {
    await TabletKeys.open(name);
    expect(forgotten).toHaveBeenCalledWith("palaestra-pin");
  });

  it("is waited for by what needs it", async () => {
    const { ask } = server();
    const keys = await TabletKeys.open(name);
    const waited = keys.opened();
    const begun = await keys.begin("Bram", null, ask);
    expect(await waited).toBe(begun);
    expect(await keys.opened()).toBe(begun);
  });
});
