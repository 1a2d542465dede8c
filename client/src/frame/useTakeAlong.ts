import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, got } from "../api/client";
import { onNews } from "../api/live";
import { dayQuery, figureSheetQuery, keys, libraryQuery } from "../api/queries";
import type { components } from "../api/schema";
import type { StartView } from "../api/types";
import { contentVersion } from "../api/versions";
import type { TabletKey } from "../capture/sealing";
import type { KeptDay, TabletVisit } from "../capture/tabletDay";
import { useTablet } from "../capture/TabletContext";
import { atRest } from "./atRest";
import { useRoles } from "./useRoles";

type Along = components["schemas"]["TabletDay"];

/** So often what is taken along is asked for again; sooner where something of it is told to have changed. */
const freshMs = 300_000;
const soonMs = 20_000;
/** What was looked at since is kept a moment later. */
const keepMs = 2000;

/** Today's visits come along on the tablet, as the server tells them and as they were looked at since. */
export function useTakeAlong(key: TabletKey | null) {
  const queries = useQueryClient();
  const { days } = useTablet();
  const { clinical } = useRoles();
  useEffect(() => {
    if (!key || !clinical) return;
    let along: { told: Along; at: number } | null = null;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let keeping: ReturnType<typeof setTimeout> | undefined;
    let over = false;
    const keep = async () => {
      keeping = undefined;
      const day = queries.getQueryData(dayQuery().queryKey);
      const start = queries.getQueryData<StartView>(keys.start);
      if (!along || !day || !start?.signedInAs || over) return;
      const { told, at } = along;
      const kept: KeptDay = {
        start,
        content: contentVersion() ?? null,
        day,
        visits: told.visits.map((visit) => asSeen(queries, visit, at)),
        at: Date.now(),
      };
      await days.keep(key, told.until, kept).catch(() => undefined);
    };
    const fetch = async () => {
      try {
        const told = await got(api.GET("/api/day/tablet"));
        along = { told, at: Date.now() };
        layOutVisits(queries, told.visits, along.at);
        await queries.fetchQuery({ ...dayQuery(), staleTime: freshMs });
        await keep();
        // Drawings of all rungs, from both sides: without the server none can be asked for.
        await queries.prefetchQuery(libraryQuery);
        for (const side of ["right", "left"] as const) await queries.prefetchQuery(figureSheetQuery(side));
      } catch {
        // What came along last stays until its time is over.
        await days.wipeOver().catch(() => undefined);
      }
      if (!over) inA(freshMs);
    };
    const inA = (ms: number) => {
      clearTimeout(timer);
      timer = setTimeout(() => void fetch(), ms);
    };
    // What came along before this page was loaded; there may be no server to ask.
    void days.read(key).then((kept) => {
      if (kept && !over) layOutVisits(queries, kept.visits, kept.at);
    });
    const ends = [
      atRest(() => void fetch()),
      onNews(() => {
        if (along && Date.now() - along.at > soonMs) inA(soonMs);
      }),
      queries.getQueryCache().subscribe((event) => {
        if (event.type === "updated" && event.action.type === "success")
          keeping ??= setTimeout(() => void keep(), keepMs);
      }),
    ];
    return () => {
      over = true;
      clearTimeout(timer);
      clearTimeout(keeping);
      ends.forEach((end) => end());
    };
  }, [queries, days, key, clinical]);
}

/** A visit as it was told, but for what was asked for since. */
function asSeen(queries: QueryClient, told: TabletVisit, at: number): TabletVisit {
  const since = <T>(queryKey: readonly unknown[], before: T): T => {
    const state = queries.getQueryState<T>(queryKey);
    return state?.data !== undefined && state.dataUpdatedAt > at ? state.data : before;
  };
  return {
    ...told,
    episode: since(keys.episode(told.episodeId), told.episode),
    screen: since(keys.screen(told.visitId), told.screen),
    session: since(keys.session(told.visitId), told.session),
    events: since(keys.events(told.visitId), { events: told.events }).events,
  };
}

/** Puts what came along where the views ask for it. */
export function layOut(queries: QueryClient, kept: KeptDay) {
  queries.setQueryData(dayQuery().queryKey, kept.day, { updatedAt: kept.at });
  layOutVisits(queries, kept.visits, kept.at);
  queries.setQueryData(keys.start, kept.start, { updatedAt: kept.at });
}

/** A view that was looked at since knows better. */
function layOutVisits(queries: QueryClient, visits: TabletVisit[], at: number) {
  const put = (queryKey: readonly unknown[], data: unknown) => {
    if ((queries.getQueryState(queryKey)?.dataUpdatedAt ?? 0) < at)
      queries.setQueryData(queryKey, data, { updatedAt: at });
  };
  for (const visit of visits) {
    put(keys.episode(visit.episodeId), visit.episode);
    put(keys.screen(visit.visitId), visit.screen);
    if (visit.session) put(keys.session(visit.visitId), visit.session);
    put(keys.events(visit.visitId), { events: visit.events });
    put(keys.unasked(visit.visitId), visit.unasked);
  }
}
