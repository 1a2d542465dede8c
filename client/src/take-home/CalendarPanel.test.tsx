import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { addDays, dayWords, today } from "../api/clinicTime";
import { keys } from "../api/queries";
import type { CalendarView } from "../api/types";
import { smallLibrary } from "../given/library";
import { answering } from "../given/server";
import { quietQueries, show } from "../given/show";
import { say } from "../words/say";
import { CalendarPanel } from "./CalendarPanel";

const day = (n: number) => addDays(today(), n);
const calendar = (change: Partial<CalendarView> = {}): CalendarView =>
  ({ days: [], away: [], review: day(14), rescreen: null, feed: null, ...change }) as CalendarView;

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

function open(shown: CalendarView) {
  const server = answering({
    "POST /api/episodes/{id}/feed": () => ({ path: "/feeds/key.ics" }),
    "DELETE /api/episodes/{id}/feed": () => ({}),
  });
  const queries = quietQueries();
  queries.setQueryData(keys.calendar("e1"), shown);
  show(<CalendarPanel episodeId="e1" library={smallLibrary} />, queries);
  return server;
}

const days = () => within(screen.getByRole("list", { name: say("take-home.days") })).getAllByRole("listitem");

describe("the days of a plan", () => {
  it("are told in whole weeks, with minutes, rest and days away", () => {
    open(
      calendar({
        days: [
          { day: day(0), rungIds: ["B1"], minutes: 11.6 },
          { day: day(2), rungIds: ["B1"], minutes: 12 },
        ] as CalendarView["days"],
        away: [{ from: day(3), to: day(4) }] as CalendarView["away"],
      }),
    );
    const words = days().map((d) => d.textContent);
    expect(words).toHaveLength(7);
    expect(words[0]).toBe(dayWords(day(0)) + say("take-home.minutes-min", { minutes: "12" }));
    expect(words.map((w) => w!.includes(say("take-home.rest")))).toEqual([
      false,
      true,
      false,
      false,
      false,
      true,
      true,
    ]);
    expect(words.filter((w) => w!.includes(say("take-home.away")))).toHaveLength(2);
  });

  it("name what is left out on a shorter day", () => {
    open(
      calendar({
        days: [
          { day: day(0), rungIds: ["B1", "N1"], minutes: 12 },
          { day: day(1), rungIds: ["N1"], minutes: 6 },
        ] as CalendarView["days"],
      }),
    );
    expect(days()[0]!.textContent).not.toContain("Foot float");
    expect(days()[1]!.textContent).toContain(say("take-home.without-left", { left: "Foot float" }));
  });

  it("that are over are not told; with none left it says what to do", () => {
    open(calendar({ days: [{ day: day(-1), rungIds: ["B1"], minutes: 9 }] as CalendarView["days"] }));
    expect(screen.queryByRole("list", { name: say("take-home.days") })).toBeNull();
    expect(screen.getByText(say("take-home.no-day-is-left-before"))).toBeTruthy();
  });

  it("say when the next screen is due only where there is one", () => {
    open(calendar({ rescreen: day(20) }));
    expect(screen.getByText(new RegExp(dayWords(day(20))))).toBeTruthy();
    cleanup();
    open(calendar());
    expect(screen.queryByText(new RegExp(dayWords(day(20))))).toBeNull();
  });
});

describe("the feed for a calendar program", () => {
  it("is opened by a press, and shows its address only while it is open", async () => {
    const server = open(calendar());
    expect(screen.queryByText(/feeds\/key/)).toBeNull();
    fireEvent.click(screen.getByRole("button", { name: say("take-home.open-a-feed-for-the") }));
    await waitFor(() => expect(server.bodies("POST /api/episodes/{id}/feed")).toHaveLength(1));
  });

  it("is closed by a press", async () => {
    const server = open(calendar({ feed: "/feeds/key.ics" }));
    expect(screen.getByText(`${window.location.origin}/feeds/key.ics`)).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: say("take-home.close-the-feed") }));
    await waitFor(() => expect(server.bodies("DELETE /api/episodes/{id}/feed")).toHaveLength(1));
  });
});
