import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { ThemeProvider } from "styled-components";
import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import { keys } from "../api/queries";
import type { CaptureEvent, Library } from "../api/types";
import { tokens } from "../theme/tokens";
import { LiveTrial } from "./LiveTrial";
import { liveTrials } from "./liveTrial";
import { tape } from "./testLibrary";
import { graceMs } from "./useEndsItself";

const library = {
  tasks: [],
  feltPlaces: [],
  faults: [
    {
      code: "arch",
      name: "low back arches",
      key: "a",
      kind: "breaking",
      region: "low-back",
      spoilsRep: false,
    },
    { code: "tremor", name: "trembles", key: "m", kind: "information", region: "effort", spoilsRep: false },
  ],
  ladders: [
    {
      id: "B",
      name: "Limb lowering",
      rungs: [
        {
          id: "B6",
          name: "Leg reach",
          sides: "each",
          sideMeans: "the leg that reaches",
          faults: ["arch", "tremor"],
          cues: ["Long heel"],
        },
      ],
    },
  ],
} as unknown as Library;

beforeAll(() => {
  globalThis.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
});

let recorded: { kind: string; fields: Record<string, unknown> }[] = [];

beforeEach(() => {
  recorded = [];
});
afterEach(cleanup);

function show(events: CaptureEvent[]) {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false, enabled: false } } });
  queries.setQueryData(keys.library, library);
  const drawn = () => (
    <ThemeProvider theme={tokens}>
      <QueryClientProvider client={queries}>
        <LiveTrial
          trial={liveTrials(events, library)[0]!}
          events={[...events]}
          record={(_trial, kind, ...[fields]) => recorded.push({ kind, fields: fields ?? {} })}
          others={[]}
        />
      </QueryClientProvider>
    </ThemeProvider>
  );
  const { rerender } = render(drawn());
  return () => rerender(drawn());
}

const press = (key: string, target: Element = document.body) => fireEvent.keyDown(target, { key });

describe("the live screen", () => {
  it("starts a hold and then counts the rep with the same key", () => {
    const { events, tap } = tape();
    show(events);
    press(" ");
    expect(recorded[0]?.kind).toBe("hold-started");
    cleanup();
    tap("hold-started");
    show(events);
    press(" ");
    expect(recorded[1]?.kind).toBe("rep-done");
  });

  it("counts with the space bar even when a fault button has the focus", () => {
    const { events } = tape("t1", 0);
    show(events);
    const undo = screen.getByRole("button", { name: "Keys ?" });
    undo.focus();
    press(" ", undo);
    expect(recorded.map((r) => r.kind)).toEqual(["rep-done"]);
  });

  it("marks a fault by its key, and leaves other keys alone", () => {
    const { events } = tape();
    show(events);
    press("a");
    press("q");
    expect(recorded).toEqual([{ kind: "fault-marked", fields: { fault: "arch" } }]);
  });

  it("says with shift that a fault persists", () => {
    const { events } = tape();
    show(events);
    fireEvent.keyDown(document.body, { key: "A", code: "KeyA", shiftKey: true });
    expect(recorded).toEqual([{ kind: "fault-marked", fields: { fault: "arch", persists: true } }]);
  });

  it("tells more and less pain, and ends, by key", () => {
    const { events, tap } = tape("t1", 0);
    tap("pain-marked", { phase: "before", value: 2 });
    for (let rep = 0; rep < 5; rep++) tap("rep-done");
    show(events);
    fireEvent.keyDown(document.body, { key: "+", code: "BracketRight", shiftKey: true });
    press("-");
    press(".");
    expect(recorded).toEqual([
      { kind: "pain-marked", fields: { phase: "peak", value: 3 } },
      { kind: "pain-marked", fields: { phase: "peak", value: 1 } },
      { kind: "trial-ended", fields: { reason: "target-met" } },
    ]);
  });

  it("does not repeat while a key is held down", () => {
    const { events } = tape("t1", 0);
    show(events);
    fireEvent.keyDown(document.body, { key: " ", repeat: true });
    expect(recorded).toEqual([]);
  });

  it("asks whether the cue worked once one was given", () => {
    const { events, tap } = tape();
    show(events);
    press("v");
    expect(recorded).toEqual([]);
    cleanup();
    tap("cue-given");
    show(events);
    press("v");
    expect(recorded).toEqual([{ kind: "cue-answered", fields: { worked: true } }]);
    expect(screen.getByRole("button", { name: "It did not" })).toBeTruthy();
  });

  it("undoes the last step and can bring it back", () => {
    const { events, tap } = tape("t1", 0);
    const rep = tap("rep-done");
    show(events);
    press("z");
    expect(recorded).toEqual([{ kind: "undone", fields: { undoes: rep.id } }]);
    cleanup();
    const undo = tap("undone", { undoes: rep.id });
    show(events);
    press("y");
    expect(recorded[1]).toEqual({ kind: "undone", fields: { undoes: undo.id } });
  });

  it("cannot redo after something new was done", () => {
    const { events, tap } = tape("t1", 0);
    const rep = tap("rep-done");
    tap("undone", { undoes: rep.id });
    tap("rep-done");
    show(events);
    press("y");
    expect(recorded).toEqual([]);
  });

  it("ends at once when everything asked was done, and asks why when it was not", () => {
    const { events, tap } = tape("t1", 0);
    for (let i = 0; i < 5; i++) tap("rep-done");
    show(events);
    fireEvent.click(screen.getByRole("button", { name: "End left side" }));
    expect(recorded).toEqual([{ kind: "trial-ended", fields: { reason: "target-met" } }]);
    cleanup();
    const short = tape("t2", 0);
    show(short.events);
    fireEvent.click(screen.getByRole("button", { name: "End left side" }));
    fireEvent.click(screen.getByRole("button", { name: "Tired" }));
    expect(recorded[1]).toEqual({ kind: "trial-ended", fields: { reason: "fatigue" } });
  });

  it("does not take live keys while it asks why the trial ended", () => {
    const { events } = tape("t1", 0);
    show(events);
    fireEvent.click(screen.getByRole("button", { name: "Stop: pain or concern" }));
    press(" ");
    expect(recorded).toEqual([]);
  });

  it("steps the pain from where it was", () => {
    const { events, tap } = tape();
    tap("pain-marked", { phase: "before", value: 3 });
    show(events);
    fireEvent.click(screen.getByRole("button", { name: "More pain" }));
    expect(recorded).toEqual([{ kind: "pain-marked", fields: { phase: "peak", value: 4 } }]);
  });

  it("says the side and what it means", () => {
    const { events } = tape();
    show(events);
    expect(screen.getByText(/the leg that reaches/)).toBeTruthy();
    expect(screen.getByRole("status").textContent).toContain("left");
  });

  it("counts a hold of a screen by itself once it lasted as long as asked, and takes the late press for it", () => {
    vi.useFakeTimers({ now: Date.now() });
    try {
      const { events, tap } = tape("t1", 3);
      tap("hold-started", {}, 0);
      show(events);
      act(() => void vi.advanceTimersByTime(4100));
      expect(recorded.map((r) => r.kind)).toEqual(["rep-done"]);
      cleanup();
      tap("rep-done", {}, 3.1);
      show(events);
      press(" ");
      expect(recorded.map((r) => r.kind)).toEqual(["rep-done"]);
      act(() => void vi.advanceTimersByTime(1500));
      press(" ");
      expect(recorded.map((r) => r.kind)).toEqual(["rep-done", "hold-started"]);
    } finally {
      vi.useRealTimers();
    }
  });

  it("takes one press for reps that were all clean, and only before anything was seen", () => {
    const { events, tap } = tape("t1", 0);
    show(events);
    fireEvent.click(screen.getByRole("button", { name: "All 5 clean" }));
    expect(recorded.map((r) => r.kind)).toEqual(Array(5).fill("rep-done"));
    cleanup();
    tap("fault-marked", { fault: "arch" });
    show(events);
    expect(screen.queryByRole("button", { name: "All 5 clean" })).toBeNull();
  });

  it("ends a clean trial by itself a moment after its last rep, and not one whose end was undone", () => {
    vi.useFakeTimers({ now: Date.now() });
    try {
      const { events, tap } = tape("t1", 0);
      for (let rep = 0; rep < 4; rep++) tap("rep-done");
      const again = show(events);
      tap("rep-done");
      again();
      act(() => void vi.advanceTimersByTime(graceMs + 100));
      expect(recorded).toMatchObject([{ kind: "trial-ended", fields: { reason: "target-met" } }]);
      cleanup();
      show(events);
      act(() => void vi.advanceTimersByTime(graceMs * 3));
      expect(recorded).toHaveLength(1);
    } finally {
      vi.useRealTimers();
    }
  });

  it("asks why under the hand of who ends it by keys, also where a heading has the focus", () => {
    const heading = document.createElement("h1");
    heading.tabIndex = -1;
    document.body.append(heading);
    heading.focus();
    const { events } = tape("t1", 0);
    show(events);
    press(".");
    expect(document.activeElement?.textContent).toBe("Control lost");
    heading.remove();
  });

  it("does not count a hold while somebody asks what made it stop, nor one whose count was undone", () => {
    vi.useFakeTimers({ now: Date.now() });
    try {
      const { events, tap } = tape("t1", 3);
      tap("hold-started", {}, 0);
      show(events);
      act(() => void vi.advanceTimersByTime(2000));
      expect(recorded).toEqual([]);
      fireEvent.click(screen.getByRole("button", { name: "Stop: pain or concern" }));
      act(() => void vi.advanceTimersByTime(9000));
      expect(recorded).toEqual([]);
      cleanup();
      const rep = tap("rep-done", {}, 3);
      tap("undone", { undoes: rep.id });
      show(events);
      act(() => void vi.advanceTimersByTime(9000));
      expect(recorded).toEqual([]);
    } finally {
      vi.useRealTimers();
    }
  });

  it("tells a hold that lasted as one and the same event on every tablet that shows it", () => {
    vi.useFakeTimers({ now: Date.now() });
    try {
      const { events, tap } = tape("t1", 3);
      tap("hold-started", {}, 0);
      for (let tablet = 0; tablet < 2; tablet++) show(events);
      act(() => void vi.advanceTimersByTime(4100));
      expect(recorded.map((r) => r.kind)).toEqual(["rep-done", "rep-done"]);
      expect(recorded[0]!.fields.id).toMatch(/^[0-9a-f-]{36}$/);
      expect(recorded[1]!.fields.id).toBe(recorded[0]!.fields.id);
      cleanup();
      tap("hold-started", {}, 6);
      show(events);
      act(() => void vi.advanceTimersByTime(9000));
      expect(recorded.at(-1)!.fields.id).not.toBe(recorded[0]!.fields.id);
    } finally {
      vi.useRealTimers();
    }
  });
});
