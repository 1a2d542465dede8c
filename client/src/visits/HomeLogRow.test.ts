import { describe, expect, it } from "vitest";
import type { HomeLogView, HomeRow } from "../api/types";
import { dayOf, typedOf } from "./HomeLogRow";

const columns: HomeLogView["columns"] = [
  { planItemId: "a", rungId: "B5", name: "Heel tap", side: "left", perDay: 16 },
];
const row: HomeRow = {
  day: "2026-03-02",
  planned: ["a"],
  log: {
    day: "2026-03-02",
    done: [{ planItemId: "a", side: "left", reps: 12 }],
    pain: 2,
    nextMorning: null,
    remark: null,
  },
  version: 1,
  reported: false,
};

describe("a row of the home log", () => {
  it("stores what it shows", () => {
    expect(dayOf(typedOf(row), row, columns)).toEqual({ day: row.log, wrong: [] });
  });

  it("tells apart nothing written and nothing done", () => {
    const typed = typedOf(row);
    expect(dayOf({ ...typed, reps: { "a left": "" } }, row, columns).day.done).toEqual([]);
    expect(dayOf({ ...typed, reps: { "a left": "0" } }, row, columns).day.done[0]?.reps).toBe(0);
  });

  it("names the cells that are no whole numbers", () => {
    const typed = { ...typedOf(row), reps: { "a left": "1o" }, nextMorning: "-2" };
    expect(dayOf(typed, row, columns).wrong).toEqual(["Heel tap", "next morning"]);
  });
});
