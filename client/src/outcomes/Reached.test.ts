import { describe, expect, it } from "vitest";
import type { Library, PlanRevision } from "../api/types";
import { waysOf } from "./Reached";

const library = {
  ladders: [
    { id: "A", name: "Bridge", rungs: [{ id: "A1" }, { id: "A2" }, { id: "A3" }] },
    { id: "B", name: "Limb lowering", rungs: [{ id: "B1" }, { id: "B2" }] },
  ],
} as unknown as Library;

const plan = (acceptedAt: string, ...rungs: string[]) =>
  ({ acceptedAt, plan: { items: rungs.map((rungId) => ({ rungId })) } }) as PlanRevision;

describe("the way through the ladders", () => {
  it("is each rung since the plan that brought it, up and down as it was", () =>
    expect(
      waysOf([plan("1", "A1", "B1"), plan("2", "A2", "B1"), plan("3", "A3"), plan("4", "A2")], library),
    ).toEqual([
      {
        ladderId: "A",
        steps: [
          { rungId: "A1", since: "1" },
          { rungId: "A2", since: "2" },
          { rungId: "A3", since: "3" },
          { rungId: "A2", since: "4" },
        ],
      },
      { ladderId: "B", steps: [{ rungId: "B1", since: "1" }] },
    ]));

  it("of no plan is none", () => expect(waysOf([], library)).toEqual([]));
});
