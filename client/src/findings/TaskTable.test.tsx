import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import type {
  FindingsView,
  ScreenFindings,
  SectorControl,
  SideScore,
  TaskFinding,
  Trial,
} from "../api/types";
import { smallLibrary } from "../given/library";
import { show } from "../given/show";
import { ChangesTable } from "./ChangesTable";
import { ControlTable } from "./ControlTable";
import { TaskTable, valueWords } from "./TaskTable";

afterEach(cleanup);

const score = (over: Partial<SideScore>): SideScore => ({
  trialId: "t1",
  cleanReps: 3,
  cleanSeconds: 0,
  reps: 5,
  fraction: 0.6,
  cued: false,
  value: null,
  percentOfLeg: null,
  brokeAt: null,
  painLimited: false,
  assured: false,
  ...over,
});

const finding = (over: Partial<TaskFinding>): TaskFinding =>
  ({
    rungId: "B5",
    left: null,
    right: null,
    both: null,
    differencePercent: null,
    weaker: null,
    taskId: null,
    variant: null,
    name: "Heel tap",
    measure: "reps",
    norms: [],
    difference: null,
    ...over,
  }) as TaskFinding;

const trial = {
  id: "t1",
  rungId: "B5",
  side: "left",
  taskId: null,
  variant: null,
  load: null,
  target: { reps: 5, sets: 1, hold: 0 },
  total: 5,
  clean: {
    reps: 3,
    cuedReps: 1,
    seconds: 0,
    fraction: 0.6,
    longest: 0,
    reach: { share: 0.75, degrees: null },
  },
  marks: [{ eventId: "e", fault: "arch", rep: 4, second: null, breaks: true, persists: true }],
  instruments: ["dowel"],
  painBefore: 2,
  painPeak: 4,
  painAfter: null,
  by: "Ines Tarrow",
} as unknown as Trial;

describe("what a side came to", () => {
  it.each([
    ["reps", {}, "3 of 5"],
    ["seconds", { value: 31.04 }, "31.0 s"],
    ["degrees", { value: 30 }, "30°"],
    ["centimetres", { value: 63, percentOfLeg: 70.2 }, "63 cm, 70 % of leg"],
    ["centimetres", { value: 63 }, "63 cm"],
    ["centimetres", {}, "none clean"],
    ["yes-no", { value: 1 }, "stayed level"],
    ["yes-no", { value: 0 }, "dropped"],
    ["effort", { value: 3 }, "3 of 5"],
    ["kilograms", { value: 10, brokeAt: 15 }, "10 kg, broke at 15 kg"],
    ["kilograms", { brokeAt: 0 }, "none clean, broke at 0 kg"],
    ["kilograms", { value: 40 }, "40 kg"],
  ] as const)("is told in its own unit: %s %o", (measure, over, words) => {
    expect(valueWords(finding({ measure }), score(over))).toBe(words);
  });
});

describe("the table of tasks", () => {
  const table = (task: TaskFinding, more: Partial<ScreenFindings> = {}) =>
    show(
      <TaskTable
        findings={{ tasks: [task], ratios: [], ...more } as unknown as ScreenFindings}
        trials={[trial]}
        library={smallLibrary}
      />,
    );

  it("opens a task to its trials: range, marks, pain, instrument and who saw it", () => {
    table(finding({ left: score({}), weaker: "left", differencePercent: 40 }));
    expect(screen.getByText("left, 40 %")).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: "Heel tap" }));
    const row = screen.getByText(/clean range 75 %/).closest("tr")!;
    expect(row.textContent).toContain("1 more after a cue");
    expect(row.textContent).toContain("low back arches (rep 4, from then on)");
    expect(row.textContent).toContain("pain 2 → 4");
    expect(row.textContent).toContain("by dowel");
    expect(row.textContent).toContain("Ines Tarrow");
  });

  it("puts a band beside a value, and says what it is from and that it is from memory", () => {
    const norm = {
      side: "both",
      mean: 146,
      low: 95,
      high: 197,
      lines: [],
      inside: true,
      words: "below the middle two thirds of young men: 146 ± 51.",
      source: "McGill 1999",
      memory: true,
    };
    table(finding({ measure: "seconds", both: score({ value: 60 }), norms: [norm as never] }));
    expect(screen.getByRole("img", { name: "60.0 beside a band from 95 to 197" })).toBeTruthy();
    expect(screen.getByText(/McGill 1999; figures from memory/)).toBeTruthy();
  });

  it("adds up the effort of both sides", () => {
    table(finding({ measure: "effort", left: score({ value: 3 }), right: score({ value: 1 }) }));
    expect(screen.getByText(/Both sides together 4 of 10/)).toBeTruthy();
  });

  it("marks a ratio as worth attention only where the client belongs to the group", () => {
    const ratio = { id: "r", name: "flexor ÷ extensor", value: 1.2, words: "", source: "", memory: true };
    table(finding({}), { ratios: [{ ...ratio, attention: true }] });
    expect(screen.getByText(/· worth attention/)).toBeTruthy();
    cleanup();
    table(finding({}), { ratios: [{ ...ratio, attention: null }] });
    expect(screen.queryByText(/· worth attention/)).toBeNull();
  });
});

describe("control by direction", () => {
  it("opens to its rungs, their weights, and what follows from what", () => {
    const control = {
      sector: "front",
      name: "front",
      percent: 70.6,
      trials: ["t1"],
      telling: null,
      parts: [
        { rungId: "B5", side: "left", weight: 0.5, value: 0.6, trialId: "t1" },
        { rungId: "B1", side: "left", weight: 0.3, value: 1, trialId: null },
      ],
    } as SectorControl;
    show(<ControlTable control={[control]} trials={[trial]} library={smallLibrary} />);
    expect(screen.getByText("71 %")).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: "front" }));
    expect(screen.getByText(/3 of 5 clean; marked: low back arches/)).toBeTruthy();
    expect(screen.getByText("follows from a harder one that was clean")).toBeTruthy();
  });
});

describe("against an earlier screen", () => {
  const view = (verdicts: string[]) =>
    ({
      earlierVisitId: "v1",
      screens: [
        { visitId: "v1", at: "2026-10-01T09:00:00", number: 1 },
        { visitId: "v5", at: "2026-11-20T09:00:00", number: 5 },
      ],
      changes: verdicts.map((verdict, i) => ({
        of: `o${i}`,
        what: `what ${i}`,
        side: "both",
        unit: "s",
        before: 10,
        now: 20,
        smallest: 8.3,
        verdict,
        words: "",
        source: "common practice",
      })),
    }) as unknown as FindingsView;

  it("shows clear changes first and the others when asked for", () => {
    show(<ChangesTable view={view(["better", "no-clear-change", "no-clear-change"])} onAgainst={() => {}} />);
    expect(screen.getAllByRole("row")).toHaveLength(2);
    fireEvent.click(screen.getByRole("button", { name: "2 with no clear change" }));
    expect(screen.getAllByRole("row")).toHaveLength(4);
  });

  it("says so when nothing changed clearly", () => {
    show(<ChangesTable view={view(["no-clear-change"])} onAgainst={() => {}} />);
    expect(screen.getByText("No clear change in anything seen both times.")).toBeTruthy();
  });
});
