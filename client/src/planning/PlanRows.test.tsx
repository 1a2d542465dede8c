import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Dose, ForbiddenRung, Library, Plan, PlanItem, PlanWarning } from "../api/types";
import { show } from "../given/show";
import { say } from "../words/say";
import { PlanRows } from "./PlanRows";
import type { PlanDraft } from "./usePlanDraft";

const rung = (id: string, name: string, change: object = {}) => ({
  id,
  name,
  sides: "each",
  target: { hold: 0 },
  poses: { start: "a", end: "b" },
  ...change,
});
const library = {
  modifiers: [],
  settings: [],
  props: [],
  ladders: [
    {
      id: "B",
      name: "Limb lowering",
      trained: true,
      rungs: [
        rung("B1", "Foot float"),
        rung("B2", "Heel slide"),
        rung("B5", "Side plank", { target: { hold: 10 }, poses: { start: "a", end: "a" } }),
      ],
    },
  ],
} as unknown as Library;

const dose = (change: Partial<Dose> = {}): Dose =>
  ({ sets: 2, reps: 6, hold: 0, fewer: 1, range: 0.6, ...change }) as Dose;
const item = (change: Partial<PlanItem> = {}): PlanItem =>
  ({
    id: "i1",
    rungId: "B1",
    for: "left 42 % behind",
    doses: [
      { side: "left", dose: dose(), range: 0.6 },
      { side: "right", dose: dose({ sets: 3, reps: 8 }), range: 1 },
    ],
    changes: [],
    reasons: [{ ruleId: "P-DOSE", words: "one set more on the left" }],
    minutes: 3.25,
    ...change,
  }) as PlanItem;

afterEach(cleanup);

/** The row of an exercise, in a plan that has another one after it. */
function row(of = item(), change: { kept?: boolean; warnings?: PlanWarning[]; minutes?: number } = {}) {
  const doing = {
    change: vi.fn<PlanDraft["change"]>(),
    move: vi.fn<PlanDraft["move"]>(),
    keep: vi.fn<PlanDraft["keep"]>(),
  };
  const items = [of, item({ id: "i2", rungId: "B2" })];
  const draft = {
    ...doing,
    current: change.kept === undefined,
    items,
    isKept: () => change.kept === true,
    reorder: vi.fn(),
  } as unknown as PlanDraft;
  const plan = {
    items: items.map((one) => ({ ...one, minutes: change.minutes ?? one.minutes })),
    warnings: (change.warnings ?? []).map((w) => ({ ...w, itemId: of.id })),
  } as Plan;
  show(
    <PlanRows episodeId="e1" draft={draft} plan={plan} library={library} forbidden={[] as ForbiddenRung[]} />,
  );
  return doing;
}

const line = (name = "Foot float") => within(screen.getByRole("row", { name }));
const number = (label: string) => line().getByRole("button", { name: new RegExp(`^${label}:`) });

/** Opens a number of the row, and types another. */
const type = (label: string, value: string) => {
  fireEvent.click(number(label));
  const field = screen.getByRole("textbox", { name: label });
  fireEvent.change(field, { target: { value } });
  fireEvent.blur(field);
};
const open = (name = "Foot float") => {
  fireEvent.click(line(name).getByRole("button", { name: say("planning.more", { rung: name }) }));
  return within(screen.getByRole("dialog", { name }));
};

describe("an exercise of a plan", () => {
  it("changes one side's dose and leaves the other as it is", () => {
    const { change } = row();
    type(say("planning.reps-side", { side: "left" }), "5");
    expect(change).toHaveBeenCalledOnce();
    const next = change.mock.calls[0]![1]!;
    expect(next.doses.map((d) => d.dose.reps)).toEqual([5, 8]);
    expect(next.doses[1]).toEqual(item().doses[1]);
  });

  it("writes a range as a share, in the dose and beside it", () => {
    const { change } = row();
    const label = say("planning.range-in-percent-of-the", { side: "left" });
    expect(number(label).textContent).toBe("60 %");
    type(label, "45");
    const next = change.mock.calls[0]![1]!;
    expect(next.doses[0]).toMatchObject({ range: 0.45, dose: { range: 0.45, sets: 2, reps: 6 } });
    expect(next.doses[1]!.range).toBe(1);
  });

  it("keeps within what may be prescribed, and an emptied field changes nothing", () => {
    const { change } = row();
    type(say("planning.sets-side", { side: "left" }), "400");
    expect(change.mock.calls.map((c) => c[1]!.doses[0]!.dose.sets)).toEqual([10]);
    cleanup();
    const again = row();
    type(say("planning.reps-side", { side: "right" }), "");
    expect(again.change).not.toHaveBeenCalled();
  });

  it("says a whole range only where everything of it is shown", () => {
    row();
    const label = say("planning.range-in-percent-of-the", { side: "right" });
    expect(line().queryByRole("button", { name: new RegExp(`^${label}`) })).toBeNull();
    expect(open().getByRole("button", { name: `${label}: 100` })).toBeTruthy();
  });

  it("asks for a hold only where something is held, for a range only where something moves", () => {
    row();
    const hold = new RegExp(say("planning.hold-in-seconds-side", { side: "left" }));
    expect(line().queryByRole("button", { name: hold })).toBeNull();
    cleanup();
    row(
      item({
        rungId: "B5",
        doses: [{ side: "left", dose: dose({ hold: 10, sets: 1 }), range: 1 }] as PlanItem["doses"],
      }),
    );
    const whole = open("Side plank");
    expect(whole.getByRole("button", { name: hold }).textContent).toBe("10 s");
    const none = [
      say("planning.range-in-percent-of-the", { side: "left" }),
      // One set has no next set to be shorter.
      say("planning.reps-fewer-in-each-next", { side: "left" }),
    ];
    for (const label of none) expect(whole.queryByRole("button", { name: new RegExp(label) })).toBeNull();
  });

  it("is kept, moved and left out by its buttons", () => {
    const { change, move, keep } = row(item(), { kept: false });
    const first = open();
    expect(first.getByRole("button", { name: say("planning.earlier") })).toHaveProperty("disabled", true);
    fireEvent.click(first.getByRole("button", { name: say("planning.later") }));
    expect(move).toHaveBeenCalledExactlyOnceWith("B1", 1);
    fireEvent.click(
      first.getByRole("button", { name: say("planning.keep-rung-as-it-is", { rung: "Foot float" }) }),
    );
    expect(keep).toHaveBeenCalledExactlyOnceWith(expect.objectContaining({ id: "i1" }), true);
    fireEvent.click(first.getByRole("button", { name: say("planning.leave-out") }));
    expect(change).toHaveBeenCalledExactlyOnceWith(expect.objectContaining({ id: "i1" }), null);
  });

  it("says in the row what bars it, and that it is given in spite of that", () => {
    row(item({ barOverride: "tried it with the surgeon" }), {
      warnings: [{ ruleId: "P-BARRED", words: "Bends the back loaded.", blocks: true }] as PlanWarning[],
    });
    expect(line().getByText(/Bends the back loaded/)).toBeTruthy();
    expect(line().getByText(new RegExp(say("planning.despite-a-contraindication")))).toBeTruthy();
    const whole = open();
    expect(whole.getByText("tried it with the surgeon")).toBeTruthy();
    expect(whole.getByText(/one set more on the left/)).toBeTruthy();
    expect(whole.getByText("(P-DOSE)")).toBeTruthy();
  });

  it("says in the row what precautions change of it", () => {
    row(item({ changes: ["A pillow under the shin.", "Breathe out on the way up."] }));
    expect(line().getByText(/A pillow under the shin\..*Breathe out/)).toBeTruthy();
  });

  it("tells the minutes as they were weighed last", () => {
    row(item(), { minutes: 4.04 });
    expect(line().getByText("4.0")).toBeTruthy();
  });
});
