// @vitest-environment node
import { beforeEach, describe, expect, it, vi } from "vitest";
import { forgetPin, isPin, keepPin, opensAlone } from "./pinVerifier";

const kept = new Map<string, string>();

beforeEach(() => {
  kept.clear();
  vi.stubGlobal("isSecureContext", true);
  vi.stubGlobal("localStorage", {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => kept.set(key, value),
    removeItem: (key: string) => kept.delete(key),
  });
});

describe("a PIN this tablet knows", () => {
  it("opens it for its user, and is kept nowhere as it is", async () => {
    await keepPin("Bram", "482917");
    expect([...kept.values()].join()).not.toContain("482917");
    expect(opensAlone("Bram")).toBe(true);
    expect(opensAlone("Ines")).toBe(false);
    expect(await isPin("Bram", "482917")).toBe(true);
    expect(await isPin("Bram", "482918")).toBe(false);
    expect(await isPin("Ines", "482917")).toBe(false);
  });

  it("is forgotten after five wrong ones in a row, and not after four and a right one", async () => {
    await keepPin("Bram", "482917");
    for (let i = 0; i < 4; i++) expect(await isPin("Bram", `00000${i}`)).toBe(false);
    expect(await isPin("Bram", "482917")).toBe(true);
    for (let i = 0; i < 5; i++) expect(await isPin("Bram", `00000${i}`)).toBe(false);
    expect(opensAlone("Bram")).toBe(false);
    expect(await isPin("Bram", "482917")).toBe(false);
  }, 60_000);

  it("is another with each tablet, and not kept where the browser cannot hash", async () => {
    await keepPin("Bram", "482917");
    const first = kept.get("palaestra-pin");
    await keepPin("Bram", "482917");
    expect(kept.get("palaestra-pin")).not.toBe(first);
    forgetPin();
    vi.stubGlobal("isSecureContext", false);
    await keepPin("Bram", "482917");
    expect(opensAlone("Bram")).toBe(false);
  });
});
