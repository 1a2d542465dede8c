import { act, renderHook } from "@testing-library/react";
import { QueryClientProvider } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { describe, expect, it } from "vitest";
import type { Plan, PlanItem, PlanView } from "../api/types";
import { quietQueries } from "../given/show";
import { usePlanDraft } from "./usePlanDraft";

const item = (id: string, rungId: string) =>
  ({
    id,
    rungId,
    for: "",
    doses: [{ side: "both", dose: { reps: 5, sets: 1, hold: 0, fewer: 0, range: 1 }, range: 1 }],
    reasons: [],
    changes: [],
    cue: "",
  }) as unknown as PlanItem;

const plan = (...items: PlanItem[]) =>
  ({ items, strategy: "neutral", switchOn: "brace", warnings: [] }) as unknown as Plan;

const proposed = plan(item("1", "A5"), item("2", "B1"), item("3", "E1"));
const view = (...inForce: Plan[]) =>
  ({
    revisions: inForce.map((p, i) => ({ revision: i + 1, plan: p })),
    proposal: { plan: proposed, notes: [] },
    forbidden: [],
    entries: [],
  }) as unknown as PlanView;

function draftOf(given: PlanView) {
  const queries = quietQueries();
  const wrapper = (props: { children: ReactNode }) => (
    <QueryClientProvider client={queries}>{props.children}</QueryClientProvider>
  );
  return renderHook(() => usePlanDraft("e", given, 15)!, { wrapper }).result;
}

const rungs = (draft: { current: { items: PlanItem[] } }) => draft.current.items.map((i) => i.rungId);

describe("a plan being made", () => {
  it("begins with the proposal, or with the plan in force where there is one", () => {
    expect(rungs(draftOf(view()))).toEqual(["A5", "B1", "E1"]);
    const edited = draftOf(view(plan(item("9", "K1"))));
    expect(rungs(edited)).toEqual(["K1"]);
    expect(edited.current.changed).toBe(false);
    act(() => edited.current.propose());
    expect(rungs(edited)).toEqual(["A5", "B1", "E1"]);
    act(() => edited.current.backToCurrent());
    expect(rungs(edited)).toEqual(["K1"]);
  });

  it("keeps what was changed by hand, and remembers what was left out", () => {
    const draft = draftOf(view());
    const changed = { ...proposed.items[1]!, cue: "slower" };
    act(() => draft.current.change(proposed.items[1]!, changed));
    expect(draft.current.isKept(changed)).toBe(true);
    expect(draft.current.isKept(proposed.items[0]!)).toBe(false);
    act(() => draft.current.keep(changed, false));
    expect(draft.current.isKept(changed)).toBe(false);
  });

  it("edits the plan in force exercise by exercise", () => {
    const draft = draftOf(view(plan(item("1", "A5"), item("2", "B1"))));
    act(() => draft.current.change(draft.current.items[1]!, item("2", "B2")));
    expect(rungs(draft)).toEqual(["A5", "B2"]);
    act(() => draft.current.change(draft.current.items[0]!, null));
    expect(rungs(draft)).toEqual(["B2"]);
    act(() => draft.current.add(item("7", "E1")));
    expect(rungs(draft)).toEqual(["B2", "E1"]);
    expect(draft.current.changed).toBe(true);
  });

  it("keeps an order by hand, also for an exercise that takes another one's place", () => {
    const draft = draftOf(view(plan(item("1", "A5"), item("2", "B1"), item("3", "E1"))));
    act(() => draft.current.reorder(["E1", "A5", "B1"]));
    expect(rungs(draft)).toEqual(["E1", "A5", "B1"]);
    act(() => draft.current.change(draft.current.items[0]!, item("3", "E2")));
    expect(rungs(draft)).toEqual(["E2", "A5", "B1"]);
  });
});
