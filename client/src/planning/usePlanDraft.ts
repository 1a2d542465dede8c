import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
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
  isKept: (item: PlanItem) => boolean;
  setMinutes: (minutes: number) => void;
  keep: (item: PlanItem, kept: boolean) => void;
  /** Another form of an exercise; null leaves it out. What is changed by hand is kept. */
  change: (item: PlanItem, next: PlanItem | null) => void;
  add: (item: PlanItem) => void;
  reorder: (rungIds: string[]) => void;
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

/** A plan being made: a proposal for some minutes with what was kept and left out, or the plan in force with edits. */
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
  const set = (change: Partial<Draft>) => setDraft((d) => ({ ...d, ...change }));
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
  if (!start) return null;
  const items = inOrder(draft.current ? draft.kept : start.items, draft.order);
  const isKept = (item: PlanItem) => draft.kept.some((k) => k.id === item.id);
  return {
    current: draft.current,
    minutes: draft.minutes,
    items,
    start,
    proposal,
    waiting: ask.isFetching,
    error: ask.error,
    changed: !draft.current || draft.order !== null || draft.kept !== inForce?.items,
    isKept,
    setMinutes: (minutes) => set({ minutes }),
    keep: (item, kept) =>
      set({ kept: kept ? [...draft.kept, item] : draft.kept.filter((k) => k.id !== item.id) }),
    change: (item, next) => {
      const others = draft.kept.filter((k) => k.id !== item.id);
      const gone = draft.leftOut.includes(item.rungId) ? draft.leftOut : [...draft.leftOut, item.rungId];
      if (next === null) {
        set({ kept: others, leftOut: draft.current ? draft.leftOut : gone });
      } else {
        const kept = isKept(item)
          ? draft.kept.map((k) => (k.id === item.id ? next : k))
          : [...draft.kept, next];
        set({
          kept,
          leftOut: draft.current || next.rungId === item.rungId ? draft.leftOut : gone,
          order: draft.order?.map((id) => (id === item.rungId ? next.rungId : id)) ?? null,
        });
      }
    },
    add: (item) =>
      set({ kept: [...draft.kept, item], leftOut: draft.leftOut.filter((id) => id !== item.rungId) }),
    reorder: (order) => set({ order }),
    propose: () => setDraft(fresh(false)),
    backToCurrent: () => setDraft(fresh(true)),
  };
}
