import { effective, type LiveTrialState } from "../capture/liveTrial";
import type {
  CaptureEvent,
  Dose,
  EaseOffer,
  EventOf,
  Library,
  PlanItem,
  SessionItem,
  SessionProbe,
  SessionView,
  Side,
} from "../api/types";
import { findRung } from "../api/queries";

/** One set of one side: what a session is made of. */
export interface SetToDo {
  item: PlanItem;
  side: Side;
  set: number;
  /** Id of the rung's way, where its ways are counted apart. */
  way: string | null;
}

/**
 * The exercises of a session with what this tablet did since the server last answered: skipped, brought back, added.
 * The server says the same from the same events.
 */
export function itemsOf(session: SessionView, events: CaptureEvent[], library: Library): SessionItem[] {
  const standing = effective(events);
  const skipped = new Set(standing.flatMap((e) => (e.kind === "exercise-skipped" ? [e.planItemId] : [])));
  const added = standing.filter((e) => e.kind === "exercise-added");
  const known = session.items
    .filter((i) => !i.added || added.some((e) => e.planItemId === i.item.id))
    .map((i) => ({ ...i, skipped: skipped.has(i.item.id) }));
  const fresh = added
    .filter((e) => known.every((i) => i.item.id !== e.planItemId))
    .flatMap((e) => addedItem(e, library, skipped));
  const items = [...known];
  for (const item of fresh) {
    const place = items.findIndex((i) => i.item.id === item.inPlaceOf);
    items.splice(place < 0 ? items.length : place + 1, 0, item);
  }
  return items;
}

function addedItem(e: EventOf<"exercise-added">, library: Library, skipped: Set<unknown>): SessionItem[] {
  const { rung } = findRung(library, e.rungId);
  const sides: Side[] = rung.sides === "each" ? ["left", "right"] : ["both"];
  const dose = e.target;
  return [
    {
      item: {
        id: e.planItemId,
        rungId: rung.id,
        for: "",
        doses: sides.map((side) => ({ side, dose, range: 1, rangeEnds: null, rangeLoadPercent: null })),
        reasons: [],
        changes: [],
        cue: rung.cues[0] ?? "",
        minutes: 0,
        barOverride: null,
      },
      added: true,
      inPlaceOf: e.inPlaceOf ?? null,
      skipped: skipped.has(e.planItemId),
      sides: [],
    },
  ];
}

/** What the events of a visit say of its session, plan aside, as the core folds it (FoldAnswer.cs). */
export interface SessionFold {
  skipped: string[];
  added: string[];
  /** Sets that ended; probes are none. */
  done: { planItemId: string; side: Side; set: number; way?: string }[];
  pain: { peak: number | null; end: number | null } | null;
}

export function sessionFold(events: CaptureEvent[], trials: LiveTrialState[]): SessionFold {
  const standing = effective(events);
  const session = trials.filter((t) => t.purpose === "session");
  const asked = standing.findLast((e) => e.kind === "session-pain-asked");
  const most = session.flatMap((t) => [t.pain.peak, t.pain.after]).filter((p) => p !== null);
  const last = session.findLast((t) => t.pain.last !== null)?.pain.last ?? null;
  return {
    skipped: [...new Set(standing.flatMap((e) => (e.kind === "exercise-skipped" ? [e.planItemId] : [])))],
    added: standing.flatMap((e) => (e.kind === "exercise-added" ? [e.planItemId] : [])),
    done: session.flatMap((t) =>
      t.ended !== null && !t.probe && t.planItemId !== null
        ? [
            {
              planItemId: t.planItemId,
              side: t.askedSide,
              set: t.set,
              ...(t.variant === null ? {} : { way: t.variant }),
            },
          ]
        : [],
    ),
    pain:
      session.length === 0
        ? null
        : {
            peak: most.length === 0 ? null : Math.max(...most),
            end: asked?.kind === "session-pain-asked" ? asked.value : last,
          },
  };
}

/** The sets to do, in the server's order; those of exercises it does not know of yet come after. */
export function setsOf(session: SessionView, items: SessionItem[]): SetToDo[] {
  const open = items.filter((i) => !i.skipped);
  const inOrder = session.sets.flatMap((s) => {
    const item = open.find((i) => i.item.id === s.itemId)?.item;
    return item ? [{ item, side: s.side, set: s.set, way: s.way ?? null }] : [];
  });
  const missing = open
    .filter((i) => inOrder.every((s) => s.item.id !== i.item.id))
    .flatMap(({ item }) =>
      item.doses.flatMap(({ side, dose }) =>
        Array.from({ length: dose.sets }, (_, i) => ({ item, side, set: i + 1, way: null })),
      ),
    );
  return [...inOrder, ...missing];
}

const isOf = (trial: LiveTrialState, todo: SetToDo) =>
  trial.planItemId === todo.item.id &&
  trial.set === todo.set &&
  trial.askedSide === todo.side &&
  // A set that was begun as a whole, or made another exercise, is all of its ways.
  (todo.way === null || trial.variant === null || trial.variant === todo.way);

export const isDone = (todo: SetToDo, trials: LiveTrialState[]) =>
  trials.some((t) => isOf(t, todo) && t.ended !== null);

/**
 * What may be tried one up now, the sides of one exercise: once all its sets are done, while it is warm (nothing else was
 * begun since), when it was asked for, or at the end of the session; not what was passed over. The other side of what was
 * just tried comes before everything else, then what was asked for.
 */
export function readyNow(
  session: SessionView,
  sets: SetToDo[],
  trials: LiveTrialState[],
  { untried, asked, atTheEnd }: { untried: string[]; asked: string | null; atTheEnd: boolean },
): SessionProbe[] {
  const last = [...trials].sort((a, b) => a.startedAt - b.startedAt).at(-1);
  const work = trials.filter((t) => !t.probe);
  const open = session.ready.filter(
    (r) =>
      !untried.includes(r.planItemId) &&
      (atTheEnd || asked === r.planItemId || last?.planItemId === r.planItemId) &&
      sets.some((s) => s.item.id === r.planItemId) &&
      sets.every((s) => s.item.id !== r.planItemId || isDone(s, work)) &&
      !trials.some((t) => t.probe && t.planItemId === r.planItemId && t.side === r.side),
  );
  const first =
    open.find((r) => last?.probe && r.planItemId === last.planItemId) ??
    open.find((r) => r.planItemId === asked) ??
    open[0];
  return open.filter((r) => r.planItemId === first?.planItemId);
}

export const doseOf = (todo: SetToDo): Dose => todo.item.doses.find((d) => d.side === todo.side)!.dose;

/** "outward", where the ways of a rung are counted apart; else nothing. */
export const wayWords = (rung: { ways?: { id: string; words: string }[] | null }, way: string | null) =>
  rung.ways?.find((w) => w.id === way)?.words ?? null;

/** The set waiting for its after-questions: the last one ended, until all three are told. */
export const awaitingAfter = (trials: LiveTrialState[]) => {
  const last = [...trials].sort((a, b) => a.startedAt - b.startedAt).findLast((t) => t.ended !== null);
  return last && (last.pain.after === null || last.felt === null || last.effort === null) ? last : null;
};

/** What has been tried today of one exercise and side: those are not offered first again. */
export const usedOf = (trials: LiveTrialState[], itemId: string, side: Side) =>
  new Set(
    trials
      .filter((t) => t.planItemId === itemId && t.askedSide === side)
      .flatMap((t) => [...t.eased, ...(t.cueGiven ? (["cue"] as const) : [])]),
  );

/** Reps left of a set, for the easier way it goes on in: at least one. */
export const repsLeft = (trial: LiveTrialState, offer: EaseOffer) =>
  Math.max(1, Math.min(trial.target.reps - trial.reps.length, offer.dose.reps));
