import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import { dayWords } from "../api/clinicTime";
import { keys } from "../api/queries";
import type { EpisodeView, OutcomeSeries, OutcomesView } from "../api/types";
import { smallLibrary } from "../given/library";
import { quietQueries, show } from "../given/show";
import { say } from "../words/say";
import { ProgressPage } from "./ProgressPage";

const series = (change: Partial<OutcomeSeries> = {}): OutcomeSeries =>
  ({
    measure: {
      id: "pain",
      name: "Pain now",
      unit: "of 10",
      min: 0,
      max: 10,
      target: null,
      means: "0 is none.",
      source: "common practice",
      memory: false,
    },
    points: [
      { day: "2026-10-01", value: 7 },
      { day: "2026-10-08", value: 4.25 },
    ],
    words: "Clearly better.",
    meaningful: 2,
    trend: null,
    ...change,
  }) as unknown as OutcomeSeries;

const outcomes = (change: Partial<OutcomesView> = {}): OutcomesView =>
  ({
    series: [],
    sessions: [],
    sides: [],
    even: 10,
    sideTrend: null,
    weeks: [],
    activities: [],
    answers: null,
    named: [],
    disabilityMeasure: null,
    answersVersion: 0,
    ...change,
  }) as unknown as OutcomesView;

function open(view: OutcomesView) {
  const queries = quietQueries();
  queries.setQueryData(keys.episode("e1"), { id: "e1", visits: [{ id: "v1" }] } as EpisodeView);
  queries.setQueryData(keys.library, { ...smallLibrary, outcomes: [] });
  queries.setQueryData(keys.outcomes("v1"), view);
  show(<ProgressPage />, queries, { path: "/e/:episodeId/v/:visitId", url: "/e/e1/v/v1" });
}

afterEach(cleanup);

const region = (name: string) => screen.getByRole("region", { name });

describe("how it goes", () => {
  it("says what will stand here while nothing was told", () => {
    open(outcomes());
    expect(screen.getByText(say("outcomes.nothing-told-yet"))).toBeTruthy();
    expect(screen.queryByRole("link", { name: say("outcomes.what-other-policies-would-have") })).toBeNull();
  });

  it("says it in words first, then in a picture with words, then as a table", () => {
    open(outcomes({ series: [series()] }));
    const pain = region("Pain now");
    expect(within(pain).getByText("Clearly better.")).toBeTruthy();
    expect(
      within(pain).getByRole("img", {
        name: `Pain now: ${dayWords("2026-10-01")} 7, ${dayWords("2026-10-08")} 4.3`,
      }),
    ).toBeTruthy();
    expect(within(pain).getByText(say("outcomes.a-trend-is-told-from"))).toBeTruthy();
    fireEvent.click(within(pain).getByRole("button", { name: say("outcomes.as-a-table") }));
    expect(
      within(pain)
        .getAllByRole("row")
        .map((r) => r.textContent),
    ).toEqual([
      say("outcomes.day") + say("outcomes.value"),
      `${dayWords("2026-10-01")}7 of 10`,
      `${dayWords("2026-10-08")}4.3 of 10`,
    ]);
  });

  it("tells the worst of the sessions, and that pain was not told where it was not", () => {
    open(
      outcomes({
        series: [series()],
        sessions: [
          { date: "2026-10-01", start: 3, peak: 8, end: 2 },
          { date: "2026-10-08", start: null, peak: 1, end: 1 },
        ] as OutcomesView["sessions"],
      }),
    );
    const sessions = region(say("outcomes.pain-in-the-sessions"));
    expect(
      within(sessions).getByText(
        say("outcomes.at-most-peak-on-date", { peak: "8", date: dayWords("2026-10-01") }),
      ),
    ).toBeTruthy();
    fireEvent.click(within(sessions).getByRole("button", { name: say("outcomes.as-a-table") }));
    expect(within(sessions).getAllByRole("row")[2]!.textContent).toBe(
      `${dayWords("2026-10-08")}${say("outcomes.not-told")}11`,
    );
  });

  it("names the side that is behind by as much as counts, and calls less even", () => {
    const sides = (left: number, right: number, differencePercent: number) =>
      open(
        outcomes({
          series: [series()],
          sides: [
            { day: "2026-10-01", left: 0.5, right: 1, differencePercent: 50 },
            { day: "2026-10-08", left, right, differencePercent },
          ] as OutcomesView["sides"],
        }),
      );
    sides(0.9, 0.6, 33.4);
    expect(
      within(region(say("outcomes.side-against-side"))).getByText(
        say("outcomes.difference-apart-left-behind", { difference: 33, left: say("outcomes.right") }),
      ),
    ).toBeTruthy();
    cleanup();
    sides(0.95, 1, 5);
    expect(
      within(region(say("outcomes.side-against-side"))).getByText(say("outcomes.even-at-the-last-visit")),
    ).toBeTruthy();
  });

  it("gives no verdict on an activity that was asked once", () => {
    open(
      outcomes({
        activities: [
          { name: "Gardening", points: [{ value: 3 }], verdict: "no-clear-change" },
          { name: "Lifting the child", points: [{ value: 2 }, { value: 6 }], verdict: "better" },
        ] as unknown as OutcomesView["activities"],
      }),
    );
    const rows = within(region(say("outcomes.activities-the-client-named"))).getAllByRole("row");
    expect(rows[1]!.textContent).toBe(`Gardening33${say("outcomes.asked-once")}`);
    expect(rows[2]!.textContent).toBe(`Lifting the child26${say("outcomes.better")}`);
  });

  it("shows the week's clean work by direction in minutes", () => {
    open(
      outcomes({
        weeks: [
          { week: 1, seconds: 600, directions: { front: 300, "side-left": 120, "side-right": 60 } },
        ] as unknown as OutcomesView["weeks"],
      }),
    );
    const work = region(say("outcomes.clean-work-a-week"));
    fireEvent.click(within(work).getByRole("button", { name: say("outcomes.as-a-table") }));
    const cells = within(within(work).getAllByRole("row")[1]!).getAllByRole("cell");
    expect(cells.map((c) => c.textContent)).toEqual(["1", "10", "5", "0", "2 · 1", "0 · 0", "0 · 0"]);
    expect(
      screen.getByRole("link", { name: say("outcomes.what-other-policies-would-have") }).getAttribute("href"),
    ).toBe("/episodes/e1/visits/v1/replay");
  });
});
