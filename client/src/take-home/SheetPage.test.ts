import { describe, expect, it } from "vitest";
import { daysToTick } from "./SheetPage";

describe("the boxes to tick", () => {
  it("run from tomorrow to the day before the next visit", () => {
    const days = daysToTick("2026-03-02", "2026-03-09");
    expect([days[0], days.at(-1)]).toEqual(["2026-03-03", "2026-03-08"]);
  });

  it("are a week when no visit is planned, one when it is tomorrow, fourteen at most", () => {
    expect(daysToTick("2026-03-02", null)).toHaveLength(7);
    expect(daysToTick("2026-03-02", "2026-03-03")).toHaveLength(1);
    expect(daysToTick("2026-03-02", "2026-06-01")).toHaveLength(14);
  });

  it("cross a month's end and the change of clocks", () => {
    expect(daysToTick("2026-03-27", null)).toEqual(
      [28, 29, 30, 31, 1, 2, 3].map((d, i) => `2026-0${i < 4 ? 3 : 4}-${String(d).padStart(2, "0")}`),
    );
  });
});
