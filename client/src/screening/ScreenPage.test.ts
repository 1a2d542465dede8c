import { describe, expect, it } from "vitest";
import type { ScreenStep, TaskState } from "../api/types";
import type { LiveTrialState } from "../capture/liveTrial";
import { nextStep, stepWithoutServer } from "./ScreenPage";

const state = (taskId: string, done: boolean): TaskState =>
  ({ taskId, done, next: done ? null : ({ taskId } as ScreenStep), trials: [] }) as TaskState;

describe("what comes next in a screen", () => {
  it("is the first task that is not finished", () => {
    expect(nextStep([state("stance", true), state("fists", false), state("roll", false)])?.taskId).toBe(
      "fists",
    );
  });

  it("is nothing when all are done", () => {
    expect(nextStep([state("stance", true)])).toBeNull();
  });
});

describe("what comes next while the server is away", () => {
  const step = (taskId: string, side: string) => ({ taskId, side, variant: null }) as ScreenStep;
  const states = [
    { taskId: "fists", done: false, next: step("fists", "left"), trials: [] },
    { taskId: "stance", done: false, next: step("stance", "right"), trials: [] },
  ] as unknown as TaskState[];
  const done = (taskId: string, side: string) =>
    ({ taskId, side, variant: null }) as unknown as LiveTrialState;

  it("is the other side of what was just done, not the same again", () => {
    expect(stepWithoutServer(states, [done("fists", "left")])).toMatchObject({
      taskId: "fists",
      side: "right",
    });
  });

  it("is the side that the server said, where only the other one was done", () => {
    expect(stepWithoutServer(states, [done("fists", "right")])).toMatchObject({
      taskId: "fists",
      side: "left",
    });
  });

  it("is the next task once both sides were done, and nothing once all were", () => {
    const fists = [done("fists", "left"), done("fists", "right")];
    expect(stepWithoutServer(states, fists)).toMatchObject({ taskId: "stance", side: "right" });
    expect(stepWithoutServer(states, [...fists, done("stance", "right")])).toMatchObject({
      taskId: "stance",
      side: "left",
    });
    expect(stepWithoutServer(states, [...fists, done("stance", "right"), done("stance", "left")])).toBeNull();
  });

  it("is what the server said before where something else was done meanwhile", () => {
    expect(stepWithoutServer(states, [done("roll", "left")])).toMatchObject({
      taskId: "fists",
      side: "left",
    });
  });

  it("is the next task where there is no other side, or the server knows this one to be done", () => {
    const both = [{ ...states[0]!, next: step("fists", "both") }, states[1]!] as TaskState[];
    expect(stepWithoutServer(both, [done("fists", "both")])).toMatchObject({ taskId: "stance" });
    const over = [{ ...states[0]!, done: true }, states[1]!] as TaskState[];
    expect(stepWithoutServer(over, [])).toMatchObject({ taskId: "stance" });
  });
});
