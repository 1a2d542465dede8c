import { describe, expect, it } from "vitest";
import type { Decision, ReplayView } from "../api/types";
import { differs, replayLines } from "./replay";

const decision = (outcome: Decision["outcome"]) => ({ planItemId: "a", side: "left", outcome }) as Decision;
const view = (chosen: Decision[], ...policies: Decision["outcome"][]) =>
  ({
    policies: policies.map((_, i) => ({ id: `p${i}` })),
    chosen: [{ visit: 2, chosen }],
    visits: [
      {
        visit: 2,
        date: "2026-03-09",
        policies: policies.map((o, i) => ({ policyId: `p${i}`, decisions: [decision(o)] })),
      },
    ],
  }) as unknown as ReplayView;

const apart = (v: ReplayView) => replayLines(v.visits[0]!, v).map(differs);

describe("lines of a replay", () => {
  it("differ where a policy decides otherwise, or where something else was chosen", () => {
    expect(apart(view([decision("add")], "add", "add"))).toEqual([false]);
    expect(apart(view([decision("add")], "add", "stay"))).toEqual([true]);
    expect(apart(view([decision("stay")], "add", "add"))).toEqual([true]);
    expect(apart(view([], "add", "add"))).toEqual([false]);
  });
});
