import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Dose, ForbiddenRung, Library, PlanItem, PlanWarning } from "../api/types";
import { show } from "../given/show";
import { say } from "../words/say";
import { PlanItemRow } from "./PlanItemRow";

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

function row(of = item(), change: Partial<Parameters<typeof PlanItemRow>[0]> = {}) {
  const onChange = vi.fn<(item: PlanItem | null) => void>();
  const onMove = vi.fn<(by: number) => void>();
  const onKeep = vi.fn<(kept: boolean) => void>();
  const element = (
    <PlanItemRow
      episodeId="e1"
      item={of}
      warnings={[]}
      library={library}
      forbidden={[] as ForbiddenRung[]}
      first
      last={false}
      onChange={onChange}
      onMove={onMove}
      onKeep={onKeep}
      {...change}
    />
  );
  show(element);
  return { onChange, onMove, onKeep };
}

const field = (name: string) => screen.getByRole("textbox", { name });
const type = (name: string, value: string) => {
  fireEvent.change(field(name), { target: { value } });
  fireEvent.blur(field(name));
};

describe("an exercise of a plan", () => {
  it("changes one side's dose and leaves the other as it is", () => {
    const { onChange } = row();
    type(say("planning.reps-side", { side: "left" }), "5");
    expect(onChange).toHaveBeenCalledOnce();
    const next = onChange.mock.calls[0]![0]!;
    expect(next.doses.map((d) => d.dose.reps)).toEqual([5, 8]);
    expect(next.doses[1]).toEqual(item().doses[1]);
  });

  it("writes a range as a share, in the dose and beside it", () => {
    const { onChange } = row();
    expect(field(say("planning.range-in-percent-of-the", { side: "left" }))).toHaveProperty("value", "60");
    type(say("planning.range-in-percent-of-the", { side: "left" }), "45");
    const next = onChange.mock.calls[0]![0]!;
    expect(next.doses[0]).toMatchObject({ range: 0.45, dose: { range: 0.45, sets: 2, reps: 6 } });
    expect(next.doses[1]!.range).toBe(1);
  });

  it("keeps within what may be prescribed, and an emptied field changes nothing", () => {
    const { onChange } = row();
    type(say("planning.sets-side", { side: "left" }), "400");
    expect(onChange.mock.calls.map((c) => c[0]!.doses[0]!.dose.sets)).toEqual([10]);
    onChange.mockClear();
    type(say("planning.reps-side", { side: "right" }), "");
    expect(onChange).not.toHaveBeenCalled();
  });

  it("asks for a hold only where something is held, for a range only where something moves", () => {
    row();
    expect(
      screen.queryByRole("textbox", { name: say("planning.hold-in-seconds-side", { side: "left" }) }),
    ).toBeNull();
    cleanup();
    row(
      item({
        rungId: "B5",
        doses: [{ side: "left", dose: dose({ hold: 10, sets: 1 }), range: 1 }] as PlanItem["doses"],
      }),
    );
    expect(field(say("planning.hold-in-seconds-side", { side: "left" }))).toHaveProperty("value", "10");
    expect(
      screen.queryByRole("textbox", { name: say("planning.range-in-percent-of-the", { side: "left" }) }),
    ).toBeNull();
    // One set has no next set to be shorter.
    expect(
      screen.queryByRole("textbox", { name: say("planning.reps-fewer-in-each-next", { side: "left" }) }),
    ).toBeNull();
  });

  it("is kept, moved and left out by its buttons", () => {
    const { onChange, onMove, onKeep } = row(item(), { kept: false });
    expect(
      screen.getByRole("button", { name: say("planning.rung-earlier", { rung: "Foot float" }) }),
    ).toHaveProperty("disabled", true);
    fireEvent.click(screen.getByRole("button", { name: say("planning.rung-later", { rung: "Foot float" }) }));
    expect(onMove).toHaveBeenCalledExactlyOnceWith(1);
    fireEvent.click(
      screen.getByRole("button", { name: say("planning.keep-rung-as-it-is", { rung: "Foot float" }) }),
    );
    expect(onKeep).toHaveBeenCalledExactlyOnceWith(true);
    fireEvent.click(screen.getByRole("button", { name: say("planning.leave-out") }));
    expect(onChange).toHaveBeenCalledExactlyOnceWith(null);
  });

  it("shows warnings, what bars it, and why it is here with the rule", () => {
    row(item({ barOverride: "tried it with the surgeon" }), {
      warnings: [{ ruleId: "P-BARRED", words: "Bends the back loaded.", blocks: true }] as PlanWarning[],
    });
    const line = screen.getByRole("region", { name: "Foot float" });
    expect(within(line).getByText(/Bends the back loaded/)).toBeTruthy();
    expect(within(line).getByText("tried it with the surgeon")).toBeTruthy();
    const why = () => within(line).getByText(/one set more on the left/);
    expect(why().closest("[hidden]")).not.toBeNull();
    fireEvent.click(within(line).getByRole("button", { name: say("planning.why-this") }));
    expect(why().closest("[hidden]")).toBeNull();
    expect(within(line).getByText("(P-DOSE)")).toBeTruthy();
  });

  it("tells the minutes as they were weighed last", () => {
    row(item(), { weighed: item({ minutes: 4.04 }) });
    expect(screen.getByText(say("planning.minutes-min", { minutes: "4.0" }))).toBeTruthy();
  });
});
