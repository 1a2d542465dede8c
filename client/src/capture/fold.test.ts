import { describe, expect, it } from "vitest";
import type { CaptureEvent, Library, PainRule, StopTrigger, Trial } from "../api/types";
import { sessionFold, type SessionFold } from "../visits/sessionWork";
import { stopOf } from "../visits/stopRule";
import { liveTrials, type LiveTrialState } from "./liveTrial";

/** The tapes the core folds too (GoldenTapeTests.cs): what the tablet shows must be what the server counts. */
interface Tape {
  name: string;
  policyId: string;
  painNow?: number | null;
  events: CaptureEvent[];
  expect: { trials: Trial[]; stop: { trialId: string; stop: StopTrigger | null }[]; session: SessionFold };
}

const files = (modules: Record<string, unknown>) => Object.values(modules);
const tapeFiles = import.meta.glob<Tape[]>("../../../tests/tapes/*.json", { eager: true, import: "default" });
const [faults] = files(import.meta.glob("../../../content/faults.json", { eager: true, import: "default" }));
const [tasks] = files(import.meta.glob("../../../content/tasks.json", { eager: true, import: "default" }));
const [schools] = files(
  import.meta.glob("../../../content/policies.json", { eager: true, import: "default" }),
);

const library = {
  ladders: files(import.meta.glob("../../../content/ladders/*.json", { eager: true, import: "default" })),
  faults: (faults as { faults: unknown }).faults,
  tasks: (tasks as { tasks: unknown }).tasks,
} as unknown as Library;

const { policies } = schools as { policies: { id: string; faultsInARow: number; pain: PainRule }[] };

/** What both must say of a trial, in the core's words. */
const ofCore = (t: Trial) => ({
  id: t.id,
  side: t.side,
  for: t.askedSide ?? t.side,
  purpose: t.purpose,
  set: t.set,
  probe: t.probe,
  open: t.endedAt === null,
  reason: t.endReason,
  total: t.total,
  reps: t.reps.map((r) => [r.number, near(r.held), near(r.cleanHeld), r.clean, r.cued]),
  marks: t.marks.map((m) => [
    m.fault,
    m.rep,
    m.second == null ? null : near(m.second),
    m.breaks,
    m.persists,
    m.afterCue,
  ]),
  clean: [
    t.clean.reps,
    t.clean.cuedReps,
    near(t.clean.seconds),
    near(t.clean.fraction),
    near(t.clean.longest ?? 0),
  ],
  amount: t.clean.amount ?? null,
  pain: [t.painBefore, t.painBeforeAsked, t.painPeak, t.painAfter, t.painLast, t.painOverLimit],
  felt: t.felt,
  effort: t.effort,
  cue: [t.cueGiven, t.cueWorked],
  worry: t.worry ?? null,
  tremor: near(t.tremorShare ?? 0),
  paused: t.paused,
});

const ofTablet = (t: LiveTrialState): ReturnType<typeof ofCore> => ({
  id: t.trialId,
  side: t.side,
  for: t.askedSide,
  purpose: t.purpose,
  set: t.set,
  probe: t.probe,
  open: t.ended === null,
  reason: t.ended,
  total: t.reps.length,
  reps: t.reps.map((r) => [r.number, near(r.held), near(r.cleanHeld), !r.broken, r.cued]),
  marks: t.marks.map((m) => [
    m.fault,
    m.rep,
    m.second === null ? null : near(m.second),
    m.breaking,
    m.persists,
    m.afterCue,
  ]),
  clean: [
    t.clean.reps,
    t.clean.cuedReps,
    near(t.clean.seconds),
    near(t.clean.fraction),
    near(t.clean.longest),
  ],
  amount: t.clean.amount,
  pain: [t.pain.before, t.pain.beforeAsked, t.pain.peak, t.pain.after, t.pain.last, t.pain.overLimit],
  felt: t.felt,
  effort: t.effort,
  cue: [t.cueGiven, t.cueWorked],
  worry: t.worry,
  tremor: near(t.tremorShare),
  paused: t.paused && t.ended === null,
});

const near = (value: number) => Math.round(value * 1e6) / 1e6;

describe.each(Object.entries(tapeFiles).map(([file, tapes]) => ({ file, tapes })))("$file", ({ tapes }) => {
  it("folds on the tablet as in the core, with the same counts, stop advice and session work", () => {
    for (const tape of tapes) {
      const policy = policies.find((p) => p.id === tape.policyId)!;
      const trials = liveTrials(tape.events, library, { pain: policy.pain, painNow: tape.painNow ?? null });
      expect(trials.map(ofTablet), tape.name).toEqual(tape.expect.trials.map(ofCore));
      expect(
        trials.map((t) => ({ trialId: t.trialId, stop: stopOf(t, policy) })),
        tape.name,
      ).toEqual(tape.expect.stop);
      expect(sessionFold(tape.events, trials), tape.name).toEqual(tape.expect.session);
    }
  });
});

it("has tapes to fold", () => expect(Object.values(tapeFiles).flat().length).toBeGreaterThanOrEqual(500));
