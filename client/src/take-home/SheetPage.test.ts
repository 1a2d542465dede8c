import { describe, expect, it } from "vitest";
import { daysToTick } from "./SheetPage";

describe("the boxes to tick", () => {
  const today = new Date(2026, 2, 2, 15);

  it("run from tomorrow to the day before the next visit", () => {
    const days = daysToTick(today, new Date(2026, 2, 9, 10));
    expect(days[0]?.getDate()).toBe(3);
    expect(days.at(-1)?.getDate()).toBe(8);
  });

  it("are a week when no visit is planned, one when it is tomorrow, fourteen at most", () => {
    expect(daysToTick(today, null)).toHaveLength(7);
    expect(daysToTick(today, new Date(2026, 2, 3, 10))).toHaveLength(1);
    expect(daysToTick(today, new Date(2026, 5, 1))).toHaveLength(14);
  });

  it("cross a month's end", () => {
    expect(daysToTick(new Date(2026, 1, 27), null).map((d) => d.getDate())).toEqual([28, 1, 2, 3, 4, 5, 6]);
  });
});
