import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { afterAll, afterEach, beforeAll, describe, expect, it } from "vitest";
import { clinicTime, keepClinicTime } from "../api/clinicTime";
import { keys } from "../api/queries";
import type { DayView, DayVisit, StartView } from "../api/types";
import { quietQueries, show } from "../given/show";
import { say } from "../words/say";
import { DayPage } from "./DayPage";

const visit = (change: Partial<DayVisit>): DayVisit =>
  ({
    episodeId: "e1",
    visitId: "v1",
    name: "Maris Telleke",
    plannedAt: "2026-11-29T09:00:00Z",
    number: 2,
    state: "planned",
    closed: false,
    says: "second visit",
    painFirst: null,
    painLast: null,
    rungId: null,
    clientId: "c1",
    minutes: 30,
    withId: null,
    withName: null,
    calledOff: null,
    fromPaper: false,
    begun: false,
    seriesId: null,
    version: 1,
    phone: null,
    discharged: false,
    ...change,
  }) as DayVisit;

const day = (change: Partial<DayView>): DayView =>
  ({
    date: "2026-11-29",
    now: "2026-11-29T10:00:00Z",
    visits: [],
    pile: [],
    pileCount: 0,
    others: [],
    othersCount: 0,
    behind: 0,
    ...change,
  }) as DayView;

const before = clinicTime();
beforeAll(() => keepClinicTime({ zone: "UTC", dateOrder: "day-month-year", weekStart: "monday" }));
afterAll(() => keepClinicTime(before));
afterEach(cleanup);

function open(view: DayView, start: Partial<StartView> = {}) {
  const queries = quietQueries();
  queries.setQueryData(keys.day, view);
  queries.setQueryData(keys.practitioners, []);
  queries.setQueryData(keys.start, { signedInAs: "Ines Arroyo", roles: ["practitioner"], ...start });
  show(<DayPage />, queries);
}

const rail = () => screen.getByRole("region", { name: say("day.visits-by-hour") });
const linkOf = (name: RegExp) => screen.getByRole("link", { name }).getAttribute("href");

describe("a visit of the day opens where there is something to do", () => {
  it.each([
    [{ closed: true, number: 4 }, "ask"],
    [{ number: 1, state: "planned" }, "ask"],
    [{ number: 1, state: "done" }, "findings"],
    [{ number: 2, state: "planned" }, "session"],
    [{ number: 2, state: "open" }, "session"],
    [{ number: 2, state: "done" }, "decide"],
  ] as [Partial<DayVisit>, string][])("%o at %s", (change, station) => {
    open(day({ visits: [visit(change)] }));
    expect(linkOf(/Maris Telleke/)).toBe(`/episodes/e1/visits/v1/${station}`);
  });
});

describe("what a visit says", () => {
  it.each([
    [{ painFirst: 6, painLast: 2 }, say("day.pain-painfirst-painlast", { painFirst: 6, painLast: 2 })],
    [{ painLast: 3 }, say("day.pain-painlast", { painLast: 3 })],
    [{ painFirst: 6, painLast: 2, closed: true }, say("day.red-flag")],
  ] as [Partial<DayVisit>, string][])("%o: %s", (change, words) => {
    open(day({ visits: [visit(change)] }));
    expect(within(rail()).getByText(words)).toBeTruthy();
  });

  it("two at the same time stand under each other", () => {
    open(day({ visits: [visit({}), visit({ visitId: "v2", name: "Asa Lindqvarn" })] }));
    const tops = within(rail())
      .getAllByRole("link")
      .map((link) => parseFloat(link.parentElement!.style.top));
    expect(tops[1]! - tops[0]!).toBeGreaterThan(60);
  });

  it("the rail is the hours worked, and those in which nobody comes are small", () => {
    open(
      day({
        visits: [
          visit({ plannedAt: "2026-11-29T06:30:00Z" }),
          visit({ visitId: "v2", name: "Asa Lindqvarn", plannedAt: "2026-11-29T09:00:00Z" }),
        ],
      }),
    );
    const hour = (name: string) => parseFloat(within(rail()).getByText(name).style.top);
    expect(within(rail()).queryByText("5")).toBeNull();
    expect(within(rail()).queryByText("11")).toBeNull();
    expect(hour("7") - hour("6")).toBeGreaterThan(60);
    expect(hour("8") - hour("7")).toBeLessThan(30);
    expect(hour("10") - hour("9")).toBeGreaterThan(60);
  });
});

describe("what waits for a decision", () => {
  it("leads to its station, with what and what next", () => {
    const entry = {
      kind: "not-decided",
      episodeId: "e7",
      visitId: "v7",
      name: "Nerys Quill",
      what: "A session without decisions",
      step: "Decide it",
      station: "decide",
    };
    open(day({ visits: [visit({})], pile: [entry] as DayView["pile"], pileCount: 12, behind: 3 }));
    expect(linkOf(/Nerys Quill/)).toBe("/episodes/e7/visits/v7/decide");
    expect(screen.getByText(say("day.the-most-pressing-pile-of", { pile: 1, pileCount: 12 }))).toBeTruthy();
    expect(screen.getByText(say("day.still-looking-through-behind-records", { behind: 3 }))).toBeTruthy();
  });

  it("says so where nothing does", () => {
    open(day({ visits: [visit({})] }));
    expect(screen.getByText(say("day.nothing-every-session-is-decided"))).toBeTruthy();
  });
});

describe("at the desk", () => {
  it("names and times stand without a way into a record, and nothing clinical is offered", () => {
    const others = [
      {
        episodeId: "e9",
        visitId: "v9",
        name: "Halla Wintering",
        complaint: "",
        clientId: "c9",
        number: "1009",
        birthDate: "1961-03-02",
        discharged: false,
        archived: false,
      },
    ];
    open(day({ visits: [visit({ says: "", phone: "0151 204" })], others, othersCount: 1 }), {
      roles: ["reception"],
    });
    expect(within(rail()).getByText("Maris Telleke")).toBeTruthy();
    expect(within(rail()).queryByRole("link")).toBeNull();
    expect(within(rail()).getByText(/0151 204/)).toBeTruthy();
    // The card, not the record.
    expect(screen.getByText("Halla Wintering").closest("a")?.getAttribute("href")).toBe("/clients/c9");
    expect(screen.queryByText(say("day.wants-a-decision"))).toBeNull();
    expect(screen.queryByRole("button", { name: say("day.new-client") })).toBeNull();
    expect(screen.queryByRole("link", { name: say("day.settings") })).toBeNull();
  });

  it("a visit is moved, cancelled, or was missed; one that was cancelled is struck through and opens nothing", () => {
    open(day({ visits: [visit({ calledOff: "cancelled" })] }), { roles: ["reception"] });
    expect(within(rail()).getByText(say("frame.cancelled"))).toBeTruthy();
    expect(within(rail()).queryByRole("link")).toBeNull();
    fireEvent.click(
      screen.getByRole("button", { name: say("day.change-the-visit-of-name", { name: "Maris Telleke" }) }),
    );
    expect(screen.getByRole("button", { name: say("frame.put-it-back") })).toBeTruthy();
    expect(screen.queryByRole("button", { name: say("frame.move-it") })).toBeNull();
  });

  it("an administrator alone comes to the settings and not into records", () => {
    open(day({ visits: [visit({})] }), { roles: ["administrator"], administrator: true });
    expect(screen.getByRole("link", { name: say("day.settings") })).toBeTruthy();
    expect(within(rail()).queryByRole("link")).toBeNull();
  });
});

describe("the first day and the warning", () => {
  it("a clinic without clients is told how to begin", () => {
    open(day({}));
    expect(screen.getByText(say("day.nobody-here-yet"))).toBeTruthy();
  });

  it("whoever keeps the backups is told that they are missing", () => {
    open(day({}), { backupWarning: "The last good backup is three days old." });
    expect(screen.getByText(/three days old/)).toBeTruthy();
    expect(screen.getByRole("link", { name: say("day.see-backups") }).getAttribute("href")).toBe(
      "/settings#backups",
    );
  });
});
