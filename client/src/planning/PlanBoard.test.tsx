import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { ForbiddenRung, PlanItem, RungSearch } from "../api/types";
import { smallLibrary } from "../given/library";
import { show } from "../given/show";
import { PlanBoard } from "./PlanBoard";
import { newItem } from "./itemOf";

const forbidden = [{ rungId: "B5", why: "sore wrist: leans on flat hands" }] as ForbiddenRung[];
const entries = [
  { ladderId: "B", side: "left", entryRungId: "B1", trialIds: ["t"] },
] as unknown as RungSearch[];

function board(bars: ForbiddenRung[] = []) {
  const item = newItem("B1", null, smallLibrary);
  const onChange = vi.fn<(item: PlanItem, next: PlanItem | null) => void>();
  const onAdd = vi.fn<(item: PlanItem) => void>();
  show(
    <PlanBoard
      items={[item]}
      library={smallLibrary}
      forbidden={bars}
      entries={entries}
      onChange={onChange}
      onAdd={onAdd}
    />,
  );
  return { item, onChange, onAdd };
}

afterEach(cleanup);

describe("the ladders of a plan", () => {
  it("stand with the hardest on top, the peg on what is prescribed, and where it was entered in words", () => {
    board();
    const rungs = screen.getAllByRole("radio");
    expect(rungs.map((r) => (r as HTMLInputElement).value)).toEqual(["B5", "B1"]);
    expect((rungs[1] as HTMLInputElement).checked).toBe(true);
    expect(screen.getByText("left entered here")).toBeDefined();
  });

  it("prescribe what the peg is moved to", () => {
    const { item, onChange } = board();
    fireEvent.click(screen.getAllByRole("radio")[0]!);
    expect(onChange).toHaveBeenCalledOnce();
    const [before, next] = onChange.mock.calls[0]!;
    expect(before).toBe(item);
    expect(next).toMatchObject({ id: item.id, rungId: "B5", barOverride: null });
  });

  it("ask for a reason before a barred rung, and prescribe nothing until it is written", () => {
    const { onChange } = board(forbidden);
    expect(screen.getByText(/contraindicated · sore wrist/)).toBeDefined();
    fireEvent.click(screen.getAllByRole("radio")[0]!);
    expect(onChange).not.toHaveBeenCalled();
    expect(screen.getByText("Heel tap is contraindicated")).toBeDefined();
    expect(screen.getByRole("button", { name: "Prescribe despite the contraindication" })).toHaveProperty(
      "disabled",
      true,
    );
  });

  it("add an exercise of a ladder that is not in the plan", () => {
    const { onAdd } = board();
    fireEvent.click(screen.getByText("All ladders"));
    fireEvent.click(screen.getAllByRole("radio").at(-1)!);
    expect(onAdd.mock.calls[0]![0].rungId).toBe("N1");
  });
});
