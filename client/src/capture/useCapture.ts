import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useSyncExternalStore } from "react";
import { v7 as uuid } from "uuid";
import { api, got } from "../api/client";
import { keys } from "../api/queries";
import type { CaptureEvent, CaptureKind } from "../api/types";
import { useOutbox } from "./OutboxContext";

export type EventFields = Partial<Omit<CaptureEvent, "id" | "kind" | "at" | "trialId">>;
export type RecordEvent = (trialId: string, kind: CaptureKind, fields?: EventFields) => void;

/**
 * The events of a visit, the server's and the tablet's own together, and the way to add one. Works without a server:
 * what the tablet has is shown until the rest comes in.
 */
export function useCapture(visitId: string) {
  const outbox = useOutbox();
  const queries = useQueryClient();
  const own = useSyncExternalStore(outbox.subscribe, () => outbox.eventsOf(visitId));
  const stored = useQuery({
    queryKey: keys.events(visitId),
    queryFn: () => got(api.GET("/api/visits/{visitId}/events", { params: { path: { visitId } } })),
  });

  useEffect(
    () =>
      outbox.onTaken((taken) => {
        if (taken === visitId) void queries.invalidateQueries({ queryKey: keys.visit(visitId) });
      }),
    [outbox, queries, visitId],
  );

  const events = useMemo(() => {
    const all = new Map((stored.data?.events ?? []).map((e) => [e.id, e]));
    for (const e of own) all.set(e.id, e);
    return [...all.values()];
  }, [own, stored.data]);

  const record: RecordEvent = useCallback(
    (trialId, kind, fields = {}) =>
      outbox.add(visitId, { id: uuid(), trialId, kind, at: new Date().toISOString(), ...fields }),
    [outbox, visitId],
  );

  return { events, record, ready: stored.data !== undefined || own.length > 0 || stored.isError };
}
