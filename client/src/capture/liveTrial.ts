import type {
  CaptureEvent,
  Dose,
  EndReason,
  Instrument,
  Library,
  OneChange,
  PhotoReading,
  Side,
} from "../api/types";

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
  /** It stayed from its rep on. */
  persists: boolean;
  /** A cue had been given before it was seen. */
  afterCue: boolean;
  /** When it was, milliseconds since 1970. */
  at: number;
  /** What told it; null: the eye. */
  instrument: Instrument | null;
}

export interface LiveRep {
  number: number;
  held: number;
  /** Not clean: a breaking mark, or a hold let go early. */
  broken: boolean;
  cued: boolean;
  amount: number | null;
  range: LiveRange | null;
  /** Seconds since the rep before, or since the set began; null after a pause. */
  took: number | null;
  /** When it was counted, milliseconds since 1970. */
  at: number;
}

/** How far a movement goes: a share of the drawn one, 0 to 1, or degrees. */
export interface LiveRange {
  share: number | null;
  degrees: number | null;
}

export interface LiveTrialState {
  trialId: string;
  rungId: string;
  side: Side;
  target: Dose;
  purpose: "screen" | "session";
  taskId: string | null;
  variant: string | null;
  load: number | null;
  by: string | null;
  planItemId: string | null;
  /** The side of the plan's exercise it is done for. */
  askedSide: Side;
  set: number;
  /** What was made easier than the plan asks. */
  eased: OneChange[];
  startedAt: number;
  reps: LiveRep[];
  marks: LiveMark[];
  holdSince: number | null;
  /** When the last rep was counted. */
  lastRepAt: number | null;
  /** The trial was interrupted since the last rep. */
  interrupted: boolean;
  endedAt: number | null;
  paused: boolean;
  range: LiveRange | null;
  instruments: Instrument[];
  /** Photographs of it that were measured. */
  photos: { id: string; photo: PhotoReading }[];
  cueGiven: boolean;
  cueWorked: boolean | null;
  pain: { before: number | null; peak: number | null; after: number | null };
  felt: string | null;
  effort: number | null;
  ended: EndReason | null;
  /** The event that ended it: taking that one back opens the trial again. */
  endedBy: string | null;
  /** The last thing that was told, and can be taken back. */
  lastEventId: string | null;
}

/** Seconds a hold may be short and still count, as in the core (TrialFold.HoldTolerance). */
const holdTolerance = 0.5;

/** At the same instant a fault comes before the rep it was seen in, as in the core (TrialFold.Rank). */
const rank = (e: CaptureEvent) =>
  e.kind === "trial-started"
    ? 0
    : e.kind === "rep-done" || e.kind === "measure-taken"
      ? 2
      : e.kind === "trial-ended"
        ? 3
        : e.kind === "undone"
          ? 4
          : 1;

export const byTime = (a: CaptureEvent, b: CaptureEvent) =>
  Date.parse(a.at) - Date.parse(b.at) || rank(a) - rank(b) || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);

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
  const byTrial = new Map<string, CaptureEvent[]>();
  for (const e of effective(events)) {
    const own = byTrial.get(e.trialId);
    if (own) own.push(e);
    else byTrial.set(e.trialId, [e]);
  }
  return [...byTrial.values()].flatMap((own) => {
    const start = own.find((e) => e.kind === "trial-started");
    return start && !own.some((e) => e.kind === "trial-discarded") ? [fold(start, own, library)] : [];
  });
}

/** The discarded trial to offer back: the last thing done in the visit was to discard it. */
export function lastDiscarded(events: CaptureEvent[]) {
  const last = effective(events).at(-1);
  return last?.kind === "trial-discarded" ? last : null;
}

function fold(start: CaptureEvent, events: CaptureEvent[], library: Library): LiveTrialState {
  const state: LiveTrialState = {
    trialId: start.trialId,
    rungId: start.rungId ?? "",
    side: start.side ?? "both",
    target: start.target ?? { reps: 1, sets: 1, hold: 0, fewer: 0 },
    purpose: start.purpose ?? "screen",
    taskId: start.taskId ?? null,
    variant: start.variant ?? null,
    load: start.load ?? null,
    by: start.by ?? null,
    planItemId: start.planItemId ?? null,
    askedSide: start.askedSide ?? start.side ?? "both",
    set: start.set ?? 1,
    eased: start.eased ?? [],
    startedAt: Date.parse(start.at),
    reps: [],
    marks: [],
    holdSince: null,
    lastRepAt: null,
    interrupted: false,
    endedAt: null,
    paused: false,
    range: start.share == null ? null : { share: start.share, degrees: null },
    instruments: [],
    photos: [],
    cueGiven: false,
    cueWorked: null,
    pain: { before: null, peak: null, after: null },
    felt: null,
    effort: null,
    ended: null,
    endedBy: null,
    lastEventId: null,
  };
  for (const e of events) apply(state, e, library);
  return state;
}

function apply(state: LiveTrialState, e: CaptureEvent, library: Library) {
  const at = Date.parse(e.at);
  // Ids are made in order: what was told last is taken back first, also where it tells of a moment before.
  if (e.kind !== "trial-started" && e.id > (state.lastEventId ?? "")) state.lastEventId = e.id;
  switch (e.kind) {
    case "hold-started":
      state.holdSince = at;
      state.paused = false;
      break;
    case "rep-done":
    case "measure-taken":
      addRep(state, at, e.amount ?? null);
      break;
    case "range-reached":
      state.range = { share: e.share ?? null, degrees: e.degrees ?? null };
      break;
    case "instrument-used":
      if (e.instrument && !state.instruments.includes(e.instrument)) state.instruments.push(e.instrument);
      break;
    case "photo-measured":
      if (e.photo) state.photos.push({ id: e.id, photo: e.photo });
      break;
    case "trial-paused":
      state.holdSince = null;
      state.interrupted = true;
      state.paused = true;
      break;
    case "trial-resumed":
      state.paused = false;
      break;
    case "side-corrected":
      state.side = e.side ?? state.side;
      state.askedSide = state.side;
      break;
    case "fault-marked":
      addMark(state, e, at, library);
      break;
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
      state.endedBy = e.id;
      state.endedAt = at;
      break;
  }
}

function addRep(state: LiveTrialState, at: number, amount: number | null) {
  const number = state.reps.length + 1;
  const held = state.holdSince === null ? 0 : (at - state.holdSince) / 1000;
  const letGo = state.target.hold > 0 && held < state.target.hold - holdTolerance;
  state.reps.push({
    number,
    held,
    broken: letGo || state.marks.some((m) => m.breaking && showsIn(m, number)),
    cued: state.cueGiven,
    amount,
    range: state.range,
    took: state.interrupted ? null : (at - (state.lastRepAt ?? state.startedAt)) / 1000,
    at,
  });
  state.lastRepAt = at;
  state.interrupted = false;
  state.holdSince = null;
  state.paused = false;
}

function addMark(state: LiveTrialState, e: CaptureEvent, at: number, library: Library) {
  const fault = library.faults.find((f) => f.code === e.fault);
  const kind = findKind(library, state.rungId, e.fault ?? "") ?? fault?.kind;
  state.marks.push({
    id: e.id,
    fault: e.fault ?? "",
    rep: state.ended === null ? state.reps.length + 1 : Math.max(1, state.reps.length),
    second: state.holdSince === null ? null : (at - state.holdSince) / 1000,
    breaking: kind === "breaking" || fault?.spoilsRep === true,
    persists: e.persists === true,
    afterCue: state.cueGiven,
    at,
    instrument: e.instrument ?? null,
  });
}

/** A rung may weigh a fault more or less than it weighs by default. */
const findKind = (library: Library, rungId: string, fault: string) =>
  library.ladders.flatMap((l) => l.rungs).find((r) => r.id === rungId)?.faultKinds?.[fault];

const showsIn = (mark: LiveMark, rep: number) => mark.rep === rep || (mark.persists && mark.rep < rep);

/** The longest hold before the trunk gave way, seconds; the running one included. */
export function longestHold(state: LiveTrialState, now: number) {
  const done = state.reps
    .filter((r) => !r.cued)
    .map((r) =>
      Math.min(
        r.held,
        ...state.marks
          .filter((m) => m.breaking && showsIn(m, r.number))
          .map((m) => (m.rep === r.number ? (m.second ?? 0) : 0)),
      ),
    );
  return Math.max(0, ...done, runningHold(state, now)?.clean ?? 0);
}

/** The largest reading of a clean rep. */
export const bestAmount = (state: LiveTrialState) =>
  Math.max(-1, ...state.reps.filter((r) => !r.broken && !r.cued).map((r) => r.amount ?? -1));

export const cleanReps = (state: LiveTrialState) => state.reps.filter((r) => !r.broken && !r.cued).length;

/** Clean seconds of the hold that runs now (or 0): up to its first breaking mark. */
export function runningHold(state: LiveTrialState, now: number) {
  if (state.holdSince === null) return null;
  const held = Math.max(0, (now - state.holdSince) / 1000);
  const current = state.reps.length + 1;
  const marks = state.marks.filter((m) => m.rep === current && m.second !== null);
  const stays = state.marks.some((m) => m.breaking && m.persists && m.rep < current);
  const first = stays ? 0 : Math.min(...marks.filter((m) => m.breaking).map((m) => m.second ?? 0));
  return { held, clean: Math.min(held, first), marks };
}
