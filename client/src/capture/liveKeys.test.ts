import { describe, expect, it } from "vitest";
import content from "../../../content/faults.json";
import type { Fault, ScreenTask } from "../api/types";
import type { Actions } from "./actions";
import { keysOf } from "./liveKeys";
import type { LiveTrialState } from "./liveTrial";

const faults = content.faults as unknown as Fault[];

const trial = { pain: { last: null, before: null }, range: null } as unknown as LiveTrialState;

function pressed(with_: Fault[], task: ScreenTask | null = null) {
  const log: string[] = [];
  const actions = new Proxy({} as Actions, {
    get: (_, name) => (what: unknown) => void log.push(`${String(name)} ${String(what)}`),
  });
  const list = keysOf({
    actions,
    faults: with_,
    trial,
    task,
    main: () => void log.push("main"),
    end: () => void log.push("end"),
  });
  return { list, keys: new Map(list.map((k) => [k.key, k.run])), log };
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

  it("mean one thing each: where digits answer how hard it was, no fault has one", () => {
    const effort = {
      measure: "effort",
      full: 5,
      points: ["0", "1", "2", "3", "4", "5"],
    } as unknown as ScreenTask;
    const { list, keys, log } = pressed(faults, effort);
    expect(new Set(list.map((k) => k.key)).size).toBe(list.length);
    keys.get("2")!();
    expect(log).toEqual(["measure 2"]);
    expect(list.filter((k) => k.key === "2").map((k) => k.words)).toEqual(["2"]);
  });
});
