import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { dayWords } from "../api/clinicTime";
import { keys } from "../api/queries";
import type { HomeLogView, HomeRow } from "../api/types";
import { smallLibrary } from "../given/library";
import { answering, Refusal } from "../given/server";
import { quietQueries, show } from "../given/show";
import { say } from "../words/say";
import { HomeLog } from "./HomeLog";

const columns: HomeLogView["columns"] = [
  { planItemId: "i1", name: "Foot float", side: "left", perDay: 10 },
  { planItemId: "i1", name: "Foot float", side: "right", perDay: 8 },
  { planItemId: "i2", name: "Hip hinge", side: "both", perDay: 12 },
] as HomeLogView["columns"];

const row = (day: string, change: Partial<HomeRow> = {}): HomeRow =>
  ({ day, planned: ["i1", "i2"], version: 0, log: null, ...change }) as HomeRow;

const put = "PUT /api/episodes/{id}/home-log";
const monday = "2026-11-23";
const tuesday = "2026-11-24";
const rest = "2026-11-25";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

function open(rows: HomeRow[], answer: () => unknown = () => ({}), folded = false) {
  const server = answering({ [put]: answer });
  const queries = quietQueries();
  queries.setQueryData(keys.homeLog("v2"), { from: monday, columns, rows } as HomeLogView);
  show(<HomeLog episodeId="e1" visitId="v2" library={smallLibrary} folded={folded} />, queries);
  return server;
}

const line = (day: string) => screen.getByRole("row", { name: new RegExp(dayWords(day)) });
const cell = (name: RegExp | string, day: string) => within(line(day)).getByRole("textbox", { name });
const write = (name: RegExp | string, day: string, value: string) =>
  fireEvent.change(cell(name, day), { target: { value } });
const leave = (day: string) => fireEvent.blur(cell(/^Hip hinge/, day), { relatedTarget: document.body });

describe("what was written down at home", () => {
  it("is not shown where no day was to be written", () => {
    open([]);
    expect(screen.queryByRole("region", { name: say("visits.home-log") })).toBeNull();
  });

  it("folded, says how many days are written", () => {
    open([row(monday, { log: { day: monday, done: [], pain: 2 } as never }), row(tuesday)], undefined, true);
    expect(
      screen.getByRole("button", {
        name: say("visits.home-log-written", {
          written: say("visits.written-of-rows-days", { written: 1, rows: 2 }),
        }),
      }),
    ).toBeTruthy();
  });

  it("is stored as soon as the row is left, an empty cell as not known and a nought as nothing done", async () => {
    const server = open([row(monday), row(tuesday)]);
    write(/^Foot float, left/, monday, "9");
    write(/^Foot float, right/, monday, "0");
    write(new RegExp("^" + say("visits.pain-words", { words: dayWords(monday) })), monday, "3");
    // Within the row nothing is sent yet.
    fireEvent.blur(cell(/^Foot float, left/, monday), { relatedTarget: cell(/^Hip hinge/, monday) });
    expect(server.bodies(put)).toEqual([]);
    leave(monday);
    await waitFor(() => expect(server.bodies(put)).toHaveLength(1));
    expect(server.bodies(put)[0]).toEqual({
      version: 0,
      log: {
        day: monday,
        done: [
          { planItemId: "i1", side: "left", reps: 9 },
          { planItemId: "i1", side: "right", reps: 0 },
        ],
        pain: 3,
        nextMorning: null,
        remark: null,
      },
    });
  });

  it("is not stored while a cell holds no whole number, and says which", () => {
    const server = open([row(monday)]);
    write(/^Foot float, left/, monday, "ten");
    leave(monday);
    expect(server.bodies(put)).toEqual([]);
    expect(
      within(line(monday)).getByText(say("visits.not-a-whole-number-wrong", { wrong: "Foot float" })),
    ).toBeTruthy();
    expect(cell(/^Foot float, left/, monday)).toHaveProperty("value", "ten");
  });

  it("asks before more than was planned is stored", async () => {
    const server = open([row(monday)]);
    write(/^Foot float, right/, monday, "80");
    leave(monday);
    expect(server.bodies(put)).toEqual([]);
    expect(within(line(monday)).getByText(/More than planned: Foot float, right/)).toBeTruthy();
    fireEvent.click(within(line(monday)).getByRole("button", { name: say("visits.it-was-that-much") }));
    await waitFor(() => expect(server.bodies(put)).toHaveLength(1));
  });

  it("keeps what was typed and says why where the server refuses", async () => {
    open([row(monday)], () => new Refusal(409, { title: "Somebody else has changed this day meanwhile." }));
    write(/^Hip hinge/, monday, "12");
    leave(monday);
    await waitFor(() => expect(within(line(monday)).getByText(/Somebody else has changed/)).toBeTruthy());
    expect(cell(/^Hip hinge/, monday)).toHaveProperty("value", "12");
  });

  it("has one press for a day as planned and one for nothing, on days that were planned", async () => {
    const server = open([row(monday), row(rest, { planned: [] })]);
    expect(within(line(rest)).queryByRole("button")).toBeNull();
    fireEvent.click(within(line(monday)).getByRole("button", { name: say("visits.nothing") }));
    await waitFor(() => expect(server.bodies(put)).toHaveLength(1));
    expect(
      (server.bodies(put)[0] as { log: { done: { reps: number }[] } }).log.done.map((d) => d.reps),
    ).toEqual([0, 0, 0]);
  });

  it("fills all open days only after a yes, and empties just those again", async () => {
    const written = row(tuesday, {
      version: 4,
      log: { day: tuesday, done: [{ planItemId: "i2", side: "both", reps: 2 }], pain: 5 } as never,
    });
    const server = open([row(monday), written, row(rest, { planned: [] })]);
    fireEvent.click(screen.getByRole("button", { name: say("visits.all-open-days-as-planned-2") }));
    expect(server.bodies(put)).toEqual([]);
    fireEvent.click(screen.getByRole("button", { name: say("visits.yes-as-planned") }));
    await waitFor(() =>
      expect(screen.getByText(say("visits.filled-filled-filled-as-planned", { filled: 1 }))).toBeTruthy(),
    );
    const days = server.bodies(put) as { log: { day: string; done: { reps: number }[] } }[];
    expect(days.map((d) => d.log.day)).toEqual([monday]);
    expect(days[0]!.log.done.map((d) => d.reps)).toEqual([10, 8, 12]);
  });

  it("goes down a column with Enter and up with the arrow", () => {
    open([row(monday), row(tuesday)]);
    const first = cell(/^Foot float, left/, monday);
    first.focus();
    fireEvent.keyDown(first, { key: "Enter" });
    expect(document.activeElement).toBe(cell(/^Foot float, left/, tuesday));
    fireEvent.keyDown(document.activeElement!, { key: "ArrowUp" });
    expect(document.activeElement).toBe(first);
    // At the edge it stays.
    fireEvent.keyDown(first, { key: "ArrowUp" });
    expect(document.activeElement).toBe(first);
  });
});
