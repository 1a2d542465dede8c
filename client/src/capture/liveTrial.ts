import type {
  CaptureEvent,
  Dose,
  EndReason,
  EventOf,
  FaultMeaning,
  Instrument,
  Library,
  OneChange,
  PainRule,
  PhotoReading,
  ScreenTask,
  Side,
  Worry,
} from "../api/types";

/**
 * What a trial looks like from its events: enough to run a screen or a session when no server can be reached. The core folds
 * the same events (TrialFold.cs) into the trial that is stored; the tapes of tests/tapes hold both to it.
 */
export interface LiveMark {
  id: string;
  fault: string;
  /** What it is to the rules; null for most. */
  means: FaultMeaning | null;
  rep: number;
  /** Seconds into the hold; null outside one. */
  second: number | null;
  /** It costs the rep, after kinds and persistence are weighed. */
  breaking: boolean;
  /** The rep does not count, although the trunk held: it was rushed. */
  spoils: boolean;
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
  /** Seconds before the trunk gave way; 0 where pain was over the limit. */
  cleanHeld: number;
  /** Not clean: a breaking mark, a rushed rep, a hold let go early, or pain over the limit. */
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

/** Clean work of a trial: only what was done before the trunk gave way. */
export interface LiveClean {
  reps: number;
  cuedReps: number;
  seconds: number;
  fraction: number;
  longest: number;
  amount: number | null;
}

/** Pain as it counts: the peak is the highest value that stood; before is the exercise's first, else the visit's. */
export interface LivePain {
  before: number | null;
  beforeAsked: boolean;
  peak: number | null;
  after: number | null;
  /** The last value told while or after. */
  last: number | null;
  overLimit: boolean;
}

/** What the fold must know beyond the events: the limit in force, and pain when the visit began. */
export interface FoldRules {
  pain: PainRule;
  painNow: number | null;
}

/** Where no policy is at hand: the careful one, with nothing known of before. */
export const plainRules: FoldRules = { pain: { rule: "no-rise", limit: 10, rise: 2 }, painNow: null };

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
  /** One set of what might come next; not the day's work. */
  probe: boolean;
  startedAt: number;
  reps: LiveRep[];
  marks: LiveMark[];
  clean: LiveClean;
  /** Something of it is older than its start: the clock was set back, and nobody knows what came before what. */
  orderLost: boolean;
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
  pain: LivePain;
  felt: string | null;
  effort: number | null;
  worry: Worry | null;
  /** The leg that pain went down, where it was told. */
  worrySide: Side | null;
  tremorShare: number;
  ended: EndReason | null;
  /** The event that ended it: taking that one back opens the trial again. */
  endedBy: string | null;
  /** The last thing that was told, and can be taken back. */
  lastEventId: string | null;
}

/** Seconds a hold may be short and still count, as in the core (TrialFold.HoldTolerance). */
const holdTolerance = 0.5;

/** Milliseconds within which pain put right downward was a slip, as in the core (TrialFold.SlipTime). */
const slipTime = 2000;

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
  const first = new Map<string, CaptureEvent>();
  for (const e of events) if (!first.has(e.id)) first.set(e.id, e);
  const ordered = [...first.values()].sort(byTime);
  const undone = new Set<string>();
  for (const e of [...ordered].reverse()) {
    if (e.kind === "undone" && !undone.has(e.id)) undone.add(e.undoes);
  }
  return ordered.filter((e) => e.kind !== "undone" && !undone.has(e.id));
}

export function liveTrials(
  events: CaptureEvent[],
  library: Library,
  rules: FoldRules = plainRules,
): LiveTrialState[] {
  const standing = effective(events);
  const byTrial = new Map<string, CaptureEvent[]>();
  for (const e of standing) {
    const own = byTrial.get(e.trialId);
    if (own) own.push(e);
    else byTrial.set(e.trialId, [e]);
  }
  const started = standing.flatMap((start) => {
    if (start.kind !== "trial-started") return [];
    const own = withoutSlips(byTrial.get(start.trialId) ?? []);
    return own.some((e) => e.kind === "trial-discarded") ? [] : [{ start, own }];
  });
  const asked = new Map<string, number | null>();
  for (const { start, own } of started) {
    if (!asked.has(exerciseOf(start))) asked.set(exerciseOf(start), beforeIn(own));
  }
  return started.map(({ start, own }) => {
    const before = asked.get(exerciseOf(start)) ?? null;
    return fold(start, own, library, rules, before ?? rules.painNow, before !== null);
  });
}

/** What pain before is asked for once: an exercise of the session, a task of the screen. */
const exerciseOf = (start: EventOf<"trial-started">) => start.planItemId ?? start.taskId ?? start.rungId;

const beforeIn = (own: CaptureEvent[]) => {
  const last = own.findLast((e) => e.kind === "pain-marked" && e.phase === "before");
  return last?.kind === "pain-marked" ? last.value : null;
};

/** Without marks of pain that were put right downward at once, with nothing else logged between. */
function withoutSlips(own: CaptureEvent[]): CaptureEvent[] {
  const slipped = (i: number) => {
    const mark = own[i]!;
    if (mark.kind !== "pain-marked") return false;
    for (const next of own.slice(i + 1)) {
      if (next.kind !== "pain-marked" || next.phase !== mark.phase) return false;
      if (Date.parse(next.at) - Date.parse(mark.at) > slipTime) return false;
      if (next.value < mark.value) return true;
    }
    return false;
  };
  return own.filter((_, i) => !slipped(i));
}

/** Whether pain is over what the rule lets through, as in the core (PainRule.Exceeded). */
export const painExceeds = (rule: PainRule, before: number | null, now: number) =>
  rule.rule === "no-rise" ? now >= (before ?? 0) + (rule.rise ?? 2) : now > rule.limit;

/** The discarded trial to offer back: the last thing done in the visit was to discard it. */
export function lastDiscarded(events: CaptureEvent[]) {
  const last = effective(events).at(-1);
  return last?.kind === "trial-discarded" ? last : null;
}

/** A rep while the events are read: what breaks it is weighed at the end. */
interface RawRep extends Omit<LiveRep, "broken" | "cleanHeld"> {
  painful: boolean;
}

function fold(
  start: EventOf<"trial-started">,
  events: CaptureEvent[],
  library: Library,
  rules: FoldRules,
  before: number | null,
  beforeAsked: boolean,
): LiveTrialState {
  const state: LiveTrialState & { raw: RawRep[] } = {
    trialId: start.trialId,
    rungId: start.rungId,
    side: start.side,
    target: start.target,
    purpose: start.purpose,
    taskId: start.taskId ?? null,
    variant: start.variant ?? null,
    load: start.load ?? start.target.load ?? null,
    by: start.by ?? null,
    planItemId: start.planItemId ?? null,
    askedSide: start.askedSide ?? start.side,
    set: start.set ?? 1,
    eased: start.eased ?? [],
    probe: start.probe === true,
    startedAt: Date.parse(start.at),
    reps: [],
    raw: [],
    marks: [],
    clean: { reps: 0, cuedReps: 0, seconds: 0, fraction: 0, longest: 0, amount: null },
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
    pain: { before, beforeAsked, peak: null, after: null, last: null, overLimit: false },
    orderLost: events.some((e) => Date.parse(e.at) < Date.parse(start.at)),
    felt: null,
    effort: null,
    worry: null,
    worrySide: null,
    tremorShare: 0,
    ended: null,
    endedBy: null,
    lastEventId: null,
  };
  for (const e of events) apply(state, e, rules.pain);
  weigh(state, library);
  return state;
}

function apply(state: LiveTrialState & { raw: RawRep[] }, e: CaptureEvent, pain: PainRule) {
  const at = Date.parse(e.at);
  // Ids are made in order: what was told last is taken back first, also where it tells of a moment before.
  if (e.kind !== "trial-started" && e.id > (state.lastEventId ?? "")) state.lastEventId = e.id;
  switch (e.kind) {
    case "hold-started":
      state.holdSince = at;
      state.paused = false;
      break;
    case "rep-done":
      addRep(state, at, null);
      break;
    case "measure-taken":
      addRep(state, at, e.amount);
      break;
    case "range-reached":
      state.range = { share: e.share ?? null, degrees: e.degrees ?? null };
      break;
    case "instrument-used":
      if (!state.instruments.includes(e.instrument)) state.instruments.push(e.instrument);
      break;
    case "photo-measured":
      state.photos.push({ id: e.id, photo: e.photo });
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
      state.side = e.side;
      state.askedSide = e.side;
      break;
    case "fault-marked":
      addMark(state, e, at);
      break;
    case "cue-given":
      state.cueGiven = true;
      break;
    case "cue-answered":
      state.cueWorked = e.worked;
      break;
    case "pain-marked":
      applyPain(state, e, pain);
      break;
    case "felt-marked":
      state.felt = e.place;
      break;
    case "effort-marked":
      state.effort = e.value;
      break;
    case "worry-told":
      state.worry = e.worry;
      state.worrySide = e.side ?? null;
      break;
    case "trial-ended":
      state.ended = e.reason;
      state.endedBy = e.id;
      state.endedAt = at;
      break;
  }
}

function applyPain(state: LiveTrialState, e: EventOf<"pain-marked">, rule: PainRule) {
  if (e.phase === "before") return;
  const { pain } = state;
  pain.last = e.value;
  if (e.phase === "peak") pain.peak = Math.max(pain.peak ?? 0, e.value);
  else pain.after = e.value;
  pain.overLimit ||= painExceeds(rule, pain.before, e.value);
}

/** After so long a hold is not one: the clock was set meanwhile, and nothing is known of it (TrialFold.HoldMost). */
const holdMost = 3600;

function heldUntil({ holdSince }: LiveTrialState, at: number) {
  if (holdSince === null) return null;
  const seconds = (at - holdSince) / 1000;
  return seconds <= holdMost ? seconds : 0;
}

function addRep(state: LiveTrialState & { raw: RawRep[] }, at: number, amount: number | null) {
  state.raw.push({
    number: state.raw.length + 1,
    held: heldUntil(state, at) ?? 0,
    cued: state.cueGiven,
    // A fault or pain of the first rep may stand behind the last: none is known to be clean.
    painful: state.pain.overLimit || state.orderLost,
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

function addMark(state: LiveTrialState & { raw: RawRep[] }, e: EventOf<"fault-marked">, at: number) {
  state.marks.push({
    id: e.id,
    fault: e.fault,
    means: null,
    // Marked after the last rep was counted and the trial ended: it belongs to that rep.
    rep: state.endedAt === null ? state.raw.length + 1 : Math.max(1, state.raw.length),
    second: heldUntil(state, at),
    breaking: false,
    spoils: false,
    persists: e.persists === true,
    afterCue: state.cueGiven,
    at,
    instrument: e.instrument ?? null,
  });
}

/** What each mark costs, and what is clean by that, once all of the trial is read. */
function weigh(state: LiveTrialState & { raw: RawRep[] }, library: Library) {
  const total = state.raw.length;
  const kinds = library.ladders.flatMap((l) => l.rungs).find((r) => r.id === state.rungId)?.faultKinds;
  for (const mark of state.marks) {
    const fault = library.faults.find((f) => f.code === mark.fault);
    const kind = kinds?.[mark.fault] ?? fault?.kind ?? "information";
    mark.breaking = kind === "breaking" || (kind === "quality" && inMost(mark, state.marks, total));
    mark.spoils = fault?.spoilsRep === true;
    mark.means = fault?.means ?? null;
  }
  state.reps = state.raw.map((rep) => {
    const { painful, ...shown } = rep;
    const cleanHeld = cleanHeldOf(rep.held, rep.number, state.marks);
    const heldEnough = state.target.hold <= 0 || cleanHeld >= state.target.hold - holdTolerance;
    const marked = state.marks.some((m) => (m.breaking || m.spoils) && showsIn(m, rep.number));
    return { ...shown, cleanHeld: painful ? 0 : cleanHeld, broken: marked || painful || !heldEnough };
  });
  state.clean = cleanOf(state, library.tasks.find((t) => t.id === state.taskId) ?? null);
  state.tremorShare = tremorOf(state);
}

/** Seen at least twice and in more than half of the reps: then a quality fault breaks those reps. */
function inMost(mark: LiveMark, marks: LiveMark[], total: number) {
  const own = marks.filter((m) => m.fault === mark.fault);
  let seen = 0;
  for (let rep = 1; rep <= Math.max(total, mark.rep); rep += 1) {
    if (own.some((m) => showsIn(m, rep))) seen += 1;
  }
  return seen >= 2 && seen * 2 > total;
}

/** A hold started anew within the rep is counted from its last start; a mark of the first try cannot outlast it. */
const cleanHeldOf = (held: number, rep: number, marks: LiveMark[]) =>
  Math.min(
    held,
    ...marks.filter((m) => m.breaking && showsIn(m, rep)).map((m) => (m.rep === rep ? (m.second ?? 0) : 0)),
  );

function cleanOf(state: LiveTrialState, task: ScreenTask | null): LiveClean {
  const uncued = state.reps.filter((r) => !r.cued);
  const clean = uncued.filter((r) => !r.broken);
  // A hold that broke and was never counted as a rep still had its clean seconds.
  const unfinished = state.marks
    .filter((m) => m.breaking && m.rep > state.reps.length)
    .map((m) => m.second ?? 0);
  const tail =
    state.cueGiven || state.pain.overLimit || state.orderLost || unfinished.length === 0
      ? 0
      : Math.min(...unfinished);
  const longest = Math.max(tail, 0, ...uncued.map((r) => r.cleanHeld));
  const amount = amountOf(task, uncued, clean);
  const fraction = fractionOf(state, task, uncued, tail, longest, amount, farthestDegrees(clean));
  return {
    reps: clean.length,
    cuedReps: state.reps.filter((r) => r.cued && !r.broken).length,
    seconds: uncued.reduce((sum, r) => sum + r.cleanHeld, 0) + tail,
    fraction: Math.min(1, Math.max(0, fraction)),
    longest,
    amount,
  };
}

/** Of reaches the largest clean one; a yes or no told again, and effort, replace the first. */
function amountOf(task: ScreenTask | null, uncued: LiveRep[], clean: LiveRep[]): number | null {
  const last = uncued.at(-1);
  if (task?.measure === "effort") return last?.amount ?? null;
  if (task?.measure === "yes-no") return last && !last.broken ? last.amount : null;
  const amounts = clean.flatMap((r) => (r.amount === null ? [] : [r.amount]));
  return amounts.length === 0 ? null : Math.max(...amounts);
}

/** The degrees of the farthest clean rep: degrees are compared where both have them, else shares. */
function farthestDegrees(clean: LiveRep[]): number {
  let far: LiveRange | null = null;
  for (const { range } of clean) {
    if (range === null) continue;
    if (far === null) far = range;
    else if (far.degrees !== null && range.degrees !== null) far = range.degrees > far.degrees ? range : far;
    else if ((range.share ?? 0) > (far.share ?? 0)) far = range;
  }
  return far?.degrees ?? 0;
}

function fractionOf(
  state: LiveTrialState,
  task: ScreenTask | null,
  uncued: LiveRep[],
  tail: number,
  longest: number,
  amount: number | null,
  degrees: number,
) {
  const { reps, hold } = state.target;
  if (task?.measure === "degrees" && task.full) return degrees / task.full;
  if (task?.measure === "yes-no") return amount ?? 0;
  if (task?.measure === "effort" && task.full) return amount === null ? 0 : 1 - amount / task.full;
  if (task?.measure === "seconds" && hold > 0) return longest / hold;
  if (hold > 0) {
    // Holding one rep long does not make up for a rep not done: each counts to its target at most.
    const capped = uncued.reduce(
      (sum, r) => sum + Math.min(r.cleanHeld + (r.broken ? 0 : holdTolerance), hold),
      0,
    );
    return (capped + Math.min(tail, hold)) / (reps * hold);
  }
  return uncued.filter((r) => !r.broken).length / reps;
}

/** Share of the set in which it trembled: of one long hold from the second it was marked, else of its reps. */
function tremorOf(state: LiveTrialState) {
  const tremor = state.marks.filter((m) => m.means === "tremor");
  if (tremor.length === 0) return 0;
  if (state.reps.length === 0) return 1;
  const of = (rep: LiveRep) =>
    Math.max(
      0,
      ...tremor
        .filter((m) => showsIn(m, rep.number))
        .map((m) =>
          state.reps.length === 1 && m.second !== null && rep.held > 0
            ? Math.min(1, Math.max(0, 1 - m.second / rep.held))
            : 1,
        ),
    );
  return state.reps.reduce((sum, rep) => sum + of(rep), 0) / state.reps.length;
}

export const showsIn = (mark: LiveMark, rep: number) => mark.rep === rep || (mark.persists && mark.rep < rep);

/** The longest hold before the trunk gave way, seconds; the running one included. */
export const longestHold = (state: LiveTrialState, now: number) =>
  Math.max(state.clean.longest, state.cueGiven ? 0 : (runningHold(state, now)?.clean ?? 0));

/** The largest reading of a clean rep. */
export const bestAmount = (state: LiveTrialState) =>
  Math.max(-1, ...state.reps.filter((r) => !r.broken && !r.cued).map((r) => r.amount ?? -1));

export const cleanReps = (state: LiveTrialState) => state.clean.reps;

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
