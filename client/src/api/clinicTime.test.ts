import { afterEach, describe, expect, it } from "vitest";
import type { ClinicTime } from "./types";
import {
  addDays,
  dayOf,
  daysBetween,
  dayWords,
  keepClinicTime,
  momentWords,
  timeWords,
  wallHours,
  weekdayWords,
} from "./clinicTime";

const at = (zone: string, dateOrder: ClinicTime["dateOrder"] = "day-month-year") =>
  keepClinicTime({ zone, dateOrder, weekStart: "monday" });

afterEach(() => at("UTC"));

describe("times are the clinic's, wherever the tablet is", () => {
  const instant = "2026-03-28T23:30:00Z";

  it("another day on the other side of midnight", () => {
    at("Europe/Berlin");
    expect([dayOf(instant), timeWords(instant), dayWords(instant)]).toEqual([
      "2026-03-29",
      "00:30",
      "Sun 29 Mar",
    ]);
    at("America/New_York");
    expect([dayOf(instant), timeWords(instant), dayWords(instant)]).toEqual([
      "2026-03-28",
      "19:30",
      "Sat 28 Mar",
    ]);
    expect(wallHours(instant)).toBe(19.5);
  });

  it("summer time from the night on", () => {
    at("Europe/Berlin");
    expect(timeWords("2026-03-29T08:00:00Z")).toBe("10:00");
    expect(timeWords("2026-03-28T08:00:00Z")).toBe("09:00");
  });

  it("a day without a time is that day in every zone", () => {
    for (const zone of ["Pacific/Kiritimati", "Pacific/Pago_Pago", "UTC"]) {
      at(zone);
      expect(dayWords("2026-11-29")).toBe("Sun 29 Nov");
      expect(weekdayWords("2026-11-29")).toBe("Sun 29");
    }
  });
});

it("dates stand in the clinic's order", () => {
  at("UTC", "month-day-year");
  expect(dayWords("2026-11-29")).toBe("Sun, Nov 29");
  expect(momentWords("2026-11-29T02:30:00Z")).toBe("Nov 29, 02:30");
  at("UTC");
  expect(momentWords("2026-11-29T02:30:00Z")).toBe("29 Nov, 02:30");
});

it("days are counted over the change of clocks and the month's end", () => {
  expect(addDays("2026-03-28", 2)).toBe("2026-03-30");
  expect(addDays("2026-02-27", 3)).toBe("2026-03-02");
  expect(daysBetween("2026-10-24", "2026-10-26")).toBe(2);
});
