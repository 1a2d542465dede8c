import { parse } from "csv-parse/sync";
import ICAL from "ical.js";
import * as nodeIcal from "node-ical";
import Papa from "papaparse";
import { readFileSync } from "node:fs";
import { expect, test } from "vitest";

// Files as the server writes them (its own tests hold them to the same text), read by libraries that had no part in it.
const given = (name: string) => readFileSync(new URL(name, import.meta.url), "utf8");

const instants = {
  "s@quay.example": "2026-10-23T07:30:00.000Z",
  "w@quay.example": "2026-10-26T08:30:00.000Z",
};

test("visits on both sides of a change of the clocks are at the right moment for one library", () => {
  const calendar = new ICAL.Component(ICAL.parse(given("visits.ics")) as never);
  for (const zone of calendar.getAllSubcomponents("vtimezone"))
    ICAL.TimezoneService.register(new ICAL.Timezone(zone));
  const read = Object.fromEntries(
    calendar.getAllSubcomponents("vevent").map((component) => {
      const event = new ICAL.Event(component);
      return [event.uid, event.startDate.toJSDate().toISOString()];
    }),
  );
  expect(read).toEqual(instants);
});

test("and for another, with place, length and reminder", () => {
  const events = Object.values(nodeIcal.sync.parseICS(given("visits.ics"))).filter(
    (e) => e?.type === "VEVENT",
  );
  const read = Object.fromEntries(events.map((event) => [event.uid, event.start.toISOString()]));
  expect(read).toEqual(instants);
  for (const event of events) {
    expect(event.end!.valueOf() - event.start.valueOf()).toBe(45 * 60_000);
    expect(event.location).toBe("1 Quay Lane, Saltmere");
  }
});

test("the home log is the same table for two other readers, and no cell of it begins as a formula", () => {
  const text = given("homeLog.csv");
  const one = parse(text) as string[][];
  const other = Papa.parse<string[]>(text, { skipEmptyLines: true }).data;
  expect(one).toEqual(other);
  expect(one).toHaveLength(9);
  for (const row of one) {
    expect(row).toHaveLength(7);
    for (const cell of row) expect(cell).not.toMatch(/^[=+\-@\t\r]/);
  }
  expect(one[8]![6]).toBe("semi;colon, and comma");
});
