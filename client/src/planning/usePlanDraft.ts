import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, got } from "../api/client";
import type { Plan, PlanItem, PlanProposal, PlanView } from "../api/types";

/** What the practitioner has changed; the rest is the proposal's, or the plan's in force. */
interface Draft {
  /** The plan in force is being edited; otherwise a proposal. */
  current: boolean;
  minutes: number;
  /** Exercises that stay as they are. */
  kept: PlanItem[];
  /** Rungs that are not wanted. */
  leftOut: string[];
  /** Order by hand, as rungs; none: as proposed. */
  order: string[] | null;
}

export interface PlanDraft {
  current: boolean;
  minutes: number;
  items: PlanItem[];
  start: Plan;
  proposal: PlanProposal | null;
  /** The proposal for the minutes shown is still on its way. */
  waiting: boolean;
  error: unknown;
  changed: boolean;
  /** Something was set by hand that leaving the page would lose. */
  touched: boolean;
  isKept: (item: PlanItem) => boolean;
  setMinutes: (minutes: number) => void;
  keep: (item: PlanItem, kept: boolean) => void;
  /** Another form of an exercise; null leaves it out. What is changed by hand is kept. */
  change: (item: PlanItem, next: PlanItem | null) => void;
  add: (item: PlanItem) => void;
  reorder: (rungIds: string[]) => void;
  /** Up or down by so many places. */
  move: (rungId: string, by: number) => void;
  /** From the plan in force to a proposal, and back. */
  propose: () => void;
  backToCurrent: () => void;
}

const inOrder = (items: PlanItem[], order: string[] | null) => {
  if (!order) return items;
  const at = (item: PlanItem) => {
    const i = order.indexOf(item.rungId);
    return i < 0 ? order.length : i;
  };
  return [...items].sort((a, b) => at(a) - at(b));
};

/**
 * A plan being made: a proposal for some minutes with what was kept and left out, or the plan in force with edits.
 * What its functions do never depends on when they were made: a row that was not drawn again may keep older ones.
 */
export function usePlanDraft(episodeId: string, view: PlanView, minutesPerDay: number): PlanDraft | null {
  const inForce = view.revisions.at(-1)?.plan ?? null;
  const fresh = (current: boolean): Draft => ({
    current,
    minutes: minutesPerDay,
    kept: current ? (inForce?.items ?? []) : [],
    leftOut: [],
    order: null,
  });
  const [draft, setDraft] = useState(() => fresh(inForce !== null));
  const asProposed = draft.minutes === minutesPerDay && draft.kept.length === 0 && draft.leftOut.length === 0;
  const ask = useQuery({
    queryKey: ["propose", episodeId, draft.minutes, draft.kept, draft.leftOut],
    queryFn: () =>
      got(
        api.POST("/api/episodes/{id}/plan/propose", {
          params: { path: { id: episodeId } },
          body: { minutesPerDay: draft.minutes, locked: draft.kept, leftOut: draft.leftOut },
        }),
      ),
    enabled: !draft.current && !asProposed,
    placeholderData: keepPreviousData,
  });
  const proposal = draft.current ? null : asProposed ? view.proposal : (ask.data ?? view.proposal);
  const start = draft.current ? inForce : (proposal?.plan ?? null);
  const [shown, setShown] = useState<PlanItem[]>([]);
  const items = settled(shown, inOrder(draft.current ? draft.kept : (start?.items ?? []), draft.order));
  if (items !== shown) setShown(items);
  const latest = useRef(items);
  useEffect(() => {
    latest.current = items;
  });
  if (!start) return null;
  return {
    current: draft.current,
    minutes: draft.minutes,
    items,
    start,
    proposal,
    waiting: ask.isFetching,
    error: ask.error,
    touched:
      draft.order !== null ||
      (draft.current ? draft.kept !== inForce?.items : draft.kept.length > 0 || draft.leftOut.length > 0),
    changed: !draft.current || draft.order !== null || draft.kept !== inForce?.items,
    isKept: (item) => draft.kept.some((k) => k.id === item.id),
    setMinutes: (minutes) => setDraft((d) => ({ ...d, minutes })),
    keep: (item, kept) =>
      setDraft((d) => ({ ...d, kept: kept ? [...d.kept, item] : d.kept.filter((k) => k.id !== item.id) })),
    change: (item, next) => setDraft((d) => changed(d, item, next)),
    add: (item) =>
      setDraft((d) => ({
        ...d,
        kept: [...d.kept, item],
        leftOut: d.leftOut.filter((id) => id !== item.rungId),
      })),
    reorder: (order) => setDraft((d) => ({ ...d, order })),
    move: (rungId, by) => {
      const order = latest.current.map((item) => item.rungId);
      const from = order.indexOf(rungId);
      order.splice(from + by, 0, ...order.splice(from, 1));
      setDraft((d) => ({ ...d, order }));
    },
    propose: () => setDraft(fresh(false)),
    backToCurrent: () => setDraft(fresh(true)),
  };
}

/** What is changed by hand is kept; what is left out of a proposal does not come back. */
function changed(d: Draft, item: PlanItem, next: PlanItem | null): Draft {
  const gone = d.current || d.leftOut.includes(item.rungId) ? d.leftOut : [...d.leftOut, item.rungId];
  if (next === null) {
    return { ...d, kept: d.kept.filter((k) => k.id !== item.id), leftOut: gone };
  }
  return {
    ...d,
    kept: d.kept.some((k) => k.id === item.id)
      ? d.kept.map((k) => (k.id === item.id ? next : k))
      : [...d.kept, next],
    leftOut: next.rungId === item.rungId ? d.leftOut : gone,
    order: d.order?.map((id) => (id === item.rungId ? next.rungId : id)) ?? null,
  };
}

const withoutId = (item: PlanItem) => JSON.stringify({ ...item, id: null, minutes: null });

/**
 * An exercise that a new proposal repeats stays the very same, so that its row need not be drawn again; one with another
 * dose keeps at least its id.
 */
function settled(shown: PlanItem[], items: PlanItem[]): PlanItem[] {
  const next = items.map((item) => {
    const same = shown.find((old) => old.rungId === item.rungId);
    if (!same || same === item) return item;
    return withoutId(same) === withoutId(item) ? same : { ...item, id: same.id };
  });
  const nothingNew =
    next.length === shown.length &&
    next.every((item, i) => item === shown[i] || JSON.stringify(item) === JSON.stringify(shown[i]));
  return nothingNew ? shown : next;
}
