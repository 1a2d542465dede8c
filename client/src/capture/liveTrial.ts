import type { CaptureEvent, Dose, EndReason, Library, Side } from "../api/types";

/**
 * What a trial looks like while it runs, from its events: enough to draw the live screen when no server can be
 * reached. The core folds the same events into the trial that counts; nothing shown here is stored.
 */
export interface LiveMark {
  id: string;
  fault: string;
  rep: number;
  /** Seconds into the hold; null outside one. */
  second: number | null;
  breaking: boolean;
}

export interface LiveRep {
  number: number;
  held: number;
  /** Not clean: a breaking mark, or a hold let go early. */
  broken: boolean;
  cued: boolean;
}

export interface LiveTrialState {
  trialId: string;
  rungId: string;
  side: Side;
  target: Dose;
  purpose: "screen" | "session";
  planItemId: string | null;
  set: number;
  startedAt: number;
  reps: LiveRep[];
  marks: LiveMark[];
  holdSince: number | null;
  cueGiven: boolean;
  cueWorked: boolean | null;
  pain: { before: number | null; peak: number | null; after: number | null };
  felt: string | null;
  effort: number | null;
  ended: EndReason | null;
  /** The last thing that can be taken back. */
  lastEventId: string | null;
}

/** Seconds a hold may be short and still count, as in the core (TrialFold.HoldTolerance). */
const holdTolerance = 0.5;

const byTime = (a: CaptureEvent, b: CaptureEvent) =>
  Date.parse(a.at) - Date.parse(b.at) || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);

/** Events that stand, each id once, in order, without what was undone (an undone undo brings its event back). */
export function effective(events: CaptureEvent[]): CaptureEvent[] {
  const ordered = [...new Map(events.map((e) => [e.id, e])).values()].sort(byTime);
  const undone = new Set<string>();
  for (const e of [...ordered].reverse()) {
    if (e.kind === "undone" && e.undoes && !undone.has(e.id)) undone.add(e.undoes);
  }
  return ordered.filter((e) => e.kind !== "undone" && !undone.has(e.id));
}

export function liveTrials(events: CaptureEvent[], library: Library): LiveTrialState[] {
  const standing = effective(events);
  return standing
    .filter((e) => e.kind === "trial-started")
    .map((start) =>
      fold(
        start,
        standing.filter((e) => e.trialId === start.trialId),
        library,
      ),
    );
}

/** The trial that was started last and is not ended. */
export const openTrial = (events: CaptureEvent[], library: Library) =>
  liveTrials(events, library).findLast((t) => t.ended === null) ?? null;

function fold(start: CaptureEvent, events: CaptureEvent[], library: Library): LiveTrialState {
  const state: LiveTrialState = {
    trialId: start.trialId,
    rungId: start.rungId ?? "",
    side: start.side ?? "both",
    target: start.target ?? { reps: 1, sets: 1, hold: 0 },
    purpose: start.purpose ?? "screen",
    planItemId: start.planItemId ?? null,
    set: start.set ?? 1,
    startedAt: Date.parse(start.at),
    reps: [],
    marks: [],
    holdSince: null,
    cueGiven: false,
    cueWorked: null,
    pain: { before: null, peak: null, after: null },
    felt: null,
    effort: null,
    ended: null,
    lastEventId: null,
  };
  for (const e of events) apply(state, e, library);
  return state;
}

function apply(state: LiveTrialState, e: CaptureEvent, library: Library) {
  const at = Date.parse(e.at);
  if (e.kind !== "trial-started") state.lastEventId = e.id;
  switch (e.kind) {
    case "hold-started":
      state.holdSince = at;
      break;
    case "rep-done": {
      const number = state.reps.length + 1;
      const held = state.holdSince === null ? 0 : (at - state.holdSince) / 1000;
      const letGo = state.target.hold > 0 && held < state.target.hold - holdTolerance;
      state.reps.push({
        number,
        held,
        broken: letGo || state.marks.some((m) => m.rep === number && m.breaking),
        cued: state.cueGiven,
      });
      state.holdSince = null;
      break;
    }
    case "fault-marked": {
      const fault = library.faults.find((f) => f.code === e.fault);
      state.marks.push({
        id: e.id,
        fault: e.fault ?? "",
        rep: state.ended === null ? state.reps.length + 1 : Math.max(1, state.reps.length),
        second: state.holdSince === null ? null : (at - state.holdSince) / 1000,
        breaking: fault?.kind === "breaking" || fault?.spoilsRep === true,
      });
      break;
    }
    case "cue-given":
      state.cueGiven = true;
      break;
    case "cue-answered":
      state.cueWorked = e.worked ?? null;
      break;
    case "pain-marked":
      if (e.phase) state.pain[e.phase] = e.value ?? null;
      break;
    case "felt-marked":
      state.felt = e.place ?? null;
      break;
    case "effort-marked":
      state.effort = e.value ?? null;
      break;
    case "trial-ended":
      state.ended = e.reason ?? "stopped";
      break;
  }
}

export const cleanReps = (state: LiveTrialState) => state.reps.filter((r) => !r.broken && !r.cued).length;

/** Clean seconds of the hold that runs now (or 0): up to its first breaking mark. */
export function runningHold(state: LiveTrialState, now: number) {
  if (state.holdSince === null) return null;
  const held = Math.max(0, (now - state.holdSince) / 1000);
  const current = state.reps.length + 1;
  const marks = state.marks.filter((m) => m.rep === current && m.second !== null);
  const first = Math.min(...marks.filter((m) => m.breaking).map((m) => m.second ?? 0));
  return { held, clean: Math.min(held, first), marks };
}
