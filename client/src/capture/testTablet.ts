import { afterEach, beforeEach, vi } from "vitest";
import { newKey, type TabletKey } from "./sealing";

let databases = 0;

/** A browser of Node's parts, with a store of its own for each test: calls with its name. */
export function eachOnNewTablet(named: (name: string) => void) {
  beforeEach(() => {
    vi.stubGlobal("navigator", {});
    vi.stubGlobal("addEventListener", () => undefined);
    vi.stubGlobal("isSecureContext", true);
    databases += 1;
    named(`tablet-${databases}`);
  });
  afterEach(() => vi.unstubAllGlobals());
}

/** A key as it is open in memory. */
export const tabletKey = async (id: string): Promise<TabletKey> => ({
  id,
  sealed: `sealed ${id}`,
  key: await newKey(),
});
