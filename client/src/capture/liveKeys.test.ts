import { describe, expect, it } from "vitest";
import content from "../../../content/faults.json";
import type { Fault } from "../api/types";
import type { Actions } from "./actions";
import { keysOf } from "./liveKeys";
import type { LiveTrialState } from "./liveTrial";

const faults = content.faults as unknown as Fault[];

const trial = { pain: { last: null, before: null }, range: null } as unknown as LiveTrialState;

function pressed(with_: Fault[]) {
  const log: string[] = [];
  const actions = new Proxy({} as Actions, {
    get: (_, name) => (what: unknown) => void log.push(`${String(name)} ${String(what)}`),
  });
  const keys = keysOf({
    actions,
    faults: with_,
    trial,
    task: null,
    main: () => void log.push("main"),
    end: () => void log.push("end"),
  });
  return { keys, log };
}

describe("keys of a live screen", () => {
  it("keep their own meaning beside every fault of the library", () => {
    const own = [...pressed([]).keys.keys()];
    expect(faults.map((f) => f.key).filter((key) => own.includes(key))).toEqual([]);
    expect(new Set(faults.map((f) => f.key)).size).toBe(faults.length);
  });

  it("mark each fault, and with shift one that stays", () => {
    const { keys, log } = pressed(faults);
    for (const fault of faults) {
      keys.get(fault.key)!();
      expect(log.at(-1)).toBe(`mark ${fault.code}`);
    }
    expect(keys.size).toBe(10 + 2 * faults.length);
  });
});
