import { cleanup, render, screen, within } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { ThemeProvider } from "styled-components";
import { afterEach, describe, expect, it } from "vitest";
import type { TraceView } from "../api/types";
import { tokens } from "../theme/tokens";
import { traceWords } from "./traceWords";
import { TraceChart, type Moment } from "../figure/TraceChart";
import { ChannelNumbers, LevelNumbers, RepNumbers, SideNumbers } from "./TraceNumbers";

afterEach(cleanup);

const rep = { start: 3, top: 4, leaves: 6, end: 7.5, swing: 2, out: 1, hold: 2, back: 1.5, seconds: 4.5 };

const view = {
  setup: {
    id: "cuff",
    name: "Pressure cuff",
    where: "",
    rate: 50,
    channels: [{ channel: "pressure", name: "Pressure", unit: "mmHg", band: 10 }],
  },
  reading: {
    neutralFrom: "taken",
    neutral: { levels: [41] },
    analysis: {
      channels: [
        {
          channel: "pressure",
          inBandSeconds: 28.5,
          swayRms: 1.234,
          pathPerSecond: 3.5,
          tremorRms: null,
          farthest: -14.2,
        },
      ],
    },
    losses: [{ channel: "pressure", fault: "arch", onset: 12, end: 13.5, excursion: -14.2 }],
    reps: [
      { rep, rushed: false },
      { rep: { ...rep, start: 10, end: 12, seconds: 2 }, rushed: true },
    ],
    levels: [
      {
        channel: "pressure",
        set: 40,
        within: 10,
        belowSeconds: 1.5,
        heldSeconds: 28.5,
        aboveSeconds: 0,
        mean: 39.4,
        lowest: 26.8,
        highest: 42,
      },
    ],
  },
  from: 0,
  shown: 30,
  shapes: [{ channel: "pressure", low: [40, null, 39], high: [41, null, 39] }],
  otherSide: "t2",
  sides: [
    { name: "Inside the band", unit: "%", left: 95.2, right: 71, less: "right" },
    { name: "Pressure: sway", unit: "mmHg", left: 1.2, right: 1.25, less: null },
  ],
} as unknown as TraceView;

const show = (what: React.ReactNode) =>
  render(
    <MemoryRouter>
      <ThemeProvider theme={tokens}>{what}</ThemeProvider>
    </MemoryRouter>,
  );

describe("the numbers of a trace", () => {
  it("carry their units, and say what is too short to be told", () => {
    show(<ChannelNumbers view={view} />);
    const row = within(screen.getByRole("row", { name: /^Pressure/ }));
    expect(row.getByText("-14.2 mmHg")).toBeTruthy();
    expect(row.getByText("1.23 mmHg")).toBeTruthy();
    expect(row.getByText("too short")).toBeTruthy();
  });

  it("tell a cuff's levels of what it is set to", () => {
    show(<LevelNumbers view={view} />);
    expect(screen.getByText("28.5 s from 30 to 50 mmHg")).toBeTruthy();
    expect(screen.getByText(/1.5 s below, 0.0 s above/)).toBeTruthy();
  });

  it("name the reps that were too fast, and only those", () => {
    show(<RepNumbers view={view} />);
    expect(screen.getAllByText("too fast")).toHaveLength(1);
    expect(screen.getByRole("row", { name: /^2/ }).textContent).toContain("too fast");
  });

  it("set the sides beside each other and name the one held less well", () => {
    show(<SideNumbers view={view} />);
    expect(screen.getByRole("row", { name: /^Inside the band/ }).textContent).toMatch(/95 %71 %right/);
    expect(screen.getByRole("row", { name: /^Pressure: sway/ }).textContent).toContain("even");
  });
});

describe("the course of a trace", () => {
  const marks: Moment[] = [
    { at: 12.2, words: "low back arches", told: true },
    { at: 44, words: "later than is shown", told: false },
  ];

  it("says in words what the picture shows", () => {
    show(<TraceChart view={view} marks={marks} label={traceWords(view)} tick={(at) => `${at} s`} />);
    expect(screen.getByRole("img").getAttribute("aria-label")).toBe(
      "The trace of pressure: control was lost once; 2 reps seen",
    );
  });

  it("shows the marks of its stretch, and a gap where nothing is known", () => {
    const { container } = show(
      <TraceChart view={view} marks={marks} label="A trace" tick={(at) => `${at} s`} />,
    );
    expect(screen.getByText("low back arches")).toBeTruthy();
    expect(screen.queryByText("later than is shown")).toBeNull();
    const line = container.querySelector("path[clip-path]")?.getAttribute("d") ?? "";
    expect(line.match(/M/g)).toHaveLength(2);
  });
});
