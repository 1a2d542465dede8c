import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useSyncExternalStore } from "react";
import { v7 as uuid } from "uuid";
import { api, got } from "../api/client";
import { onNews } from "../api/live";
import { keys, useStart } from "../api/queries";
import type { CaptureEvent, CaptureKind, EventFields } from "../api/types";
import { StampClock } from "./clock";
import { useOutbox } from "./OutboxContext";

/** Tells one event; fields may be left out where its kind needs none. */
export type RecordEvent = <K extends CaptureKind>(
  trialId: string,
  kind: K,
  ...fields: object extends EventFields<K> ? [EventFields<K>?] : [EventFields<K>]
) => void;

/** One clock for the tablet: what is stamped in one view and shown in another must agree. */
export const clock = new StampClock();

/**
 * What the server says of a visit, and of the plan that rests on it, is asked for again when it has taken in events of
 * it: in whichever view of the visit the last taps arrive.
 */
export function useTaken(episodeId: string, visitId: string) {
  const outbox = useOutbox();
  const queries = useQueryClient();
  useEffect(
    () =>
      outbox.onTaken((taken) => {
        if (taken !== visitId) return;
        for (const queryKey of [keys.visit(visitId), keys.plan(episodeId), keys.replay(episodeId)]) {
          // A first answer still on its way may be of before: it would be taken for the new one.
          void queries.cancelQueries({ queryKey }).then(() => queries.invalidateQueries({ queryKey }));
        }
      }),
    [outbox, queries, episodeId, visitId],
  );
}

/**
 * The events of a visit, the server's and the tablet's own together, and the way to add one. Works without a server:
 * what the tablet has is shown until the rest comes in.
 */
export function useCapture(visitId: string) {
  const outbox = useOutbox();
  const queries = useQueryClient();
  const own = useSyncExternalStore(outbox.subscribe, () => outbox.eventsOf(visitId));
  const by = useStart().data?.signedInAs ?? undefined;
  const stored = useQuery({
    queryKey: keys.events(visitId),
    queryFn: () => got(api.GET("/api/visits/{visitId}/events", { params: { path: { visitId } } })),
  });
  // What other tablets did is heard of as it is stored.
  useEffect(
    () =>
      onNews((of) => {
        if (of === null || of === visitId) void queries.invalidateQueries({ queryKey: keys.events(visitId) });
      }),
    [queries, visitId],
  );

  const count = stored.data?.events.length ?? 0;
  const seen = useRef(count);
  useEffect(() => {
    // Another tablet did something: what comes next may have changed.
    if (count > seen.current) void queries.invalidateQueries({ queryKey: keys.screen(visitId) });
    seen.current = count;
  }, [count, queries, visitId]);

  const events = useMemo(() => {
    const all = new Map((stored.data?.events ?? []).map((e) => [e.id, e]));
    for (const e of own) all.set(e.id, e);
    return [...all.values()];
  }, [own, stored.data]);
  const latest = useMemo(() => events.reduce((last, e) => Math.max(last, Date.parse(e.at)), 0), [events]);

  const record = useCallback(
    (trialId: string, kind: CaptureKind, fields?: object) =>
      outbox.add(visitId, {
        id: uuid(),
        trialId,
        kind,
        at: new Date(clock.stamp(latest)).toISOString(),
        by,
        ...fields,
      } as CaptureEvent),
    [outbox, visitId, latest, by],
  );

  const isOwn = useCallback(
    (trialId: string) => own.some((e) => e.trialId === trialId && e.kind === "trial-started"),
    [own],
  );

  return {
    events,
    record: record as RecordEvent,
    isOwn,
    ready: stored.data !== undefined || own.length > 0 || stored.isError,
  };
}
