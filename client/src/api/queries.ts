import { type QueryClient, queryOptions, useQuery } from "@tanstack/react-query";
import { api, got, isAway, ProblemError } from "./client";
import type { FaultMeaning, FigureFrame, Library, Side } from "./types";
import { keepClinicTime } from "./clinicTime";
import { keepModifiers } from "./modifiers";
import { leaveHere, leftHere } from "./left";
import { contentVersion } from "./versions";

export const keys = {
  start: ["start"] as const,
  library: ["library"] as const,
  day: ["day"] as const,
  dayOf: (day: string | null, who: string | null) => ["day", day, who] as const,
  clients: ["clients"] as const,
  client: (id: string) => ["client", id] as const,
  practitioners: ["practitioners"] as const,
  clinicView: ["clinic-view"] as const,
  retentionOver: ["clients", "retention-over"] as const,
  chartSheet: ["chart-sheet"] as const,
  chart: (id: string) => ["visit", id, "body-chart"] as const,
  note: (id: string) => ["visit", id, "note"] as const,
  notes: (id: string) => ["episode", id, "notes"] as const,
  discharge: (id: string) => ["episode", id, "discharge"] as const,
  episode: (id: string) => ["episode", id] as const,
  plan: (id: string) => ["episode", id, "plan"] as const,
  calendar: (id: string) => ["episode", id, "calendar"] as const,
  homeAddress: (id: string) => ["episode", id, "home-address"] as const,
  sheet: (id: string, record: boolean) => ["episode", id, "sheet", record] as const,
  policies: ["policies"] as const,
  clinic: ["clinic"] as const,
  sentences: ["sentences"] as const,
  backups: ["backups"] as const,
  account: ["account"] as const,
  signIns: ["account", "sign-ins"] as const,
  accounts: ["accounts"] as const,
  audit: (words: string, kind: string) => ["audit", words, kind] as const,
  auditState: ["audit", "state"] as const,
  amendments: (id: string) => ["episode", id, "amendments"] as const,
  seenBy: (id: string) => ["seen-by", id] as const,
  invitation: (code: string) => ["invitation", code] as const,
  visit: (id: string) => ["visit", id] as const,
  screen: (id: string) => ["visit", id, "screen"] as const,
  events: (id: string) => ["visit", id, "events"] as const,
  findings: (id: string, against: string | null) => ["visit", id, "findings", against] as const,
  session: (id: string) => ["visit", id, "session"] as const,
  unasked: (id: string) => ["visit", id, "unasked"] as const,
  decisions: (id: string) => ["visit", id, "decisions"] as const,
  traces: (id: string) => ["visit", id, "traces"] as const,
  trace: (id: string, from: number, seconds: number | null) => ["trace", id, from, seconds] as const,
  outcomes: (id: string) => ["visit", id, "outcomes"] as const,
  letter: (id: string) => ["visit", id, "letter"] as const,
  homeLog: (id: string) => ["visit", id, "home-log"] as const,
  replay: (id: string) => ["episode", id, "replay"] as const,
  overrides: ["overrides"] as const,
  instruments: ["instruments"] as const,
  practice: ["practice"] as const,
  practiceRun: (id: string) => ["practice", "run", id] as const,
  practiceTeam: (id: string) => ["practice", "team", id] as const,
  recorded: (id: string) => ["practice", "recorded", id] as const,
  recordedItem: (id: string) => ["practice", "recorded-item", id] as const,
  ownEye: ["practice", "eye"] as const,
};

export const startQuery = queryOptions({
  queryKey: keys.start,
  queryFn: async () => {
    if (leftHere()) {
      await got(api.POST("/api/sign-out")).catch((problem: unknown) => {
        // Over already is as good.
        if (!(problem instanceof ProblemError) || isAway(problem)) throw problem;
      });
      leaveHere(false);
    }
    const start = await got(api.GET("/api/start"));
    if (start.time) keepClinicTime(start.time);
    return start;
  },
  // It is asked for again by itself; meanwhile the tablet opens without it.
  retry: false,
});
export const useStart = () => useQuery(startQuery);

/**
 * The library does not change while the server runs, but for the clinic's own policies and words: a change of those asks again.
 * Asked for by its version, it is in the browser for good.
 */
export const libraryQuery = queryOptions({
  queryKey: keys.library,
  queryFn: async () => {
    const library = await got(api.GET("/api/library", { params: { query: { version: contentVersion() } } }));
    keepModifiers(library.modifiers);
    return library;
  },
  staleTime: Infinity,
});
export const useLibrary = () => useQuery(libraryQuery);

/** A position as the content calls it. */
export const positionName = (library: Library, id: string) =>
  library.positions.find((position) => position.id === id)?.name ?? id;

/** @param range share of the movement at which the end is drawn */
export const useFigure = (rungId: string, side: Side, frame: FigureFrame, range = 1) =>
  useQuery({
    queryKey: ["figure", rungId, side, frame, range],
    queryFn: ({ client }) =>
      got(
        api.GET("/api/figures/{rungId}", {
          params: { path: { rungId }, query: { side, frame, range, version: contentVersion() } },
        }),
      ).catch(async (problem: unknown) => {
        const kept =
          isAway(problem) && frame === "end" && range === 1 && (await fromSheet(client, rungId, side));
        if (!kept) throw problem;
        return kept;
      }),
    placeholderData: (previous) => previous,
    staleTime: Infinity,
  });

/** Without the server: from the drawings of all rungs at their end, which came along. */
const fromSheet = async (client: QueryClient, rungId: string, side: Side) =>
  (await client.fetchQuery(figureSheetQuery(side === "both" ? "right" : side))).find(
    (drawn) => drawn.rungId === rungId,
  )?.figure;

/** The movement of a rung, picture by picture; asked for only when somebody wants to see it move. */
export const useFrames = (rungId: string, side: Side, wanted: boolean) =>
  useQuery({
    queryKey: ["frames", rungId, side],
    queryFn: () =>
      got(api.GET("/api/figures/{rungId}/frames", { params: { path: { rungId }, query: { side } } })),
    staleTime: Infinity,
    enabled: wanted,
  });

/** The body on its way from one rung to another; asked for only where somebody sees it. */
export const useChangeFrames = (before: string | null, rungId: string, side: Side) =>
  useQuery({
    queryKey: ["change-frames", before, rungId, side],
    queryFn: () =>
      got(
        api.GET("/api/figures/{rungId}/from/{before}", {
          params: { path: { rungId, before: before! }, query: { side, version: contentVersion() } },
        }),
      ),
    staleTime: Infinity,
    enabled: before !== null && before !== rungId,
  });

export const useFaultFigure = (rungId: string, fault: string, side: Side) =>
  useQuery({
    queryKey: ["fault-figure", rungId, fault, side],
    queryFn: () =>
      got(
        api.GET("/api/figures/{rungId}/faults/{fault}", {
          params: { path: { rungId, fault }, query: { side, version: contentVersion() } },
        }),
      ),
    staleTime: Infinity,
    retry: false,
  });

export const figureSheetQuery = (side: Side) =>
  queryOptions({
    queryKey: ["figure-sheet", side],
    queryFn: () => got(api.GET("/api/figures", { params: { query: { side, version: contentVersion() } } })),
    staleTime: Infinity,
  });
export const useFigureSheet = (side: Side) => useQuery(figureSheetQuery(side));

/** A rung for the open client, or for nobody. */
export const useRungPage = (rungId: string, side: Side, episode: string | null) =>
  useQuery({
    queryKey: ["rung", rungId, side, episode],
    queryFn: () =>
      got(
        api.GET("/api/rungs/{rungId}", {
          params: { path: { rungId }, query: { side, episode: episode ?? undefined } },
        }),
      ),
    placeholderData: (previous) => (previous?.rungId === rungId ? previous : undefined),
    retry: false,
  });

export const dayQuery = (day: string | null = null, who: string | null = null) =>
  queryOptions({
    queryKey: day === null && who === null ? keys.day : keys.dayOf(day, who),
    queryFn: () =>
      got(api.GET("/api/day", { params: { query: { day: day ?? undefined, with: who ?? undefined } } })),
  });

/**
 * The day, asked for again when something of it is told to have changed.
 * @param day none: today. @param who an account; none: everybody
 */
export const useDay = (day: string | null = null, who: string | null = null) =>
  useQuery({
    ...dayQuery(day, who),
    placeholderData: (previous) => previous,
    // One that could not be asked for is not waited for a minute.
    refetchInterval: ({ state }) => (state.data ? 60_000 : 5000),
  });

/** Clients by words of name, number, birth date, telephone or complaint; nothing is asked for without any, unless all are wanted. */
export const useFoundClients = (words: string, archived = false, all = false) =>
  useQuery({
    queryKey: [...keys.clients, words, archived],
    queryFn: () => got(api.GET("/api/clients", { params: { query: { words, archived } } })),
    enabled: all || words !== "",
    placeholderData: (previous) => previous,
  });

/** @param id none: nothing is asked for */
export const useClient = (id: string | null) =>
  useQuery({
    queryKey: keys.client(id ?? ""),
    queryFn: () => got(api.GET("/api/clients/{clientId}", { params: { path: { clientId: id ?? "" } } })),
    enabled: id !== null,
  });

export const usePractitioners = () =>
  useQuery({
    queryKey: keys.practitioners,
    queryFn: () => got(api.GET("/api/practitioners")),
    staleTime: 300_000,
  });

/** @param id none: nothing is asked for */
export const useEpisode = (id: string | null) =>
  useQuery({
    queryKey: keys.episode(id ?? ""),
    queryFn: () => got(api.GET("/api/episodes/{id}", { params: { path: { id: id ?? "" } } })),
    enabled: id !== null,
  });

/** @param id none: nothing is asked for */
export const usePlan = (id: string | null) =>
  useQuery({
    queryKey: keys.plan(id ?? ""),
    queryFn: () => got(api.GET("/api/episodes/{id}/plan", { params: { path: { id: id ?? "" } } })),
    enabled: id !== null,
  });

export const useCalendar = (id: string) =>
  useQuery({
    queryKey: keys.calendar(id),
    queryFn: () => got(api.GET("/api/episodes/{id}/calendar", { params: { path: { id } } })),
    enabled: id !== "",
    retry: false,
  });

export const useClinic = () =>
  useQuery({ queryKey: keys.clinic, queryFn: () => got(api.GET("/api/clinic")) });

export const useScreen = (visitId: string) =>
  useQuery({
    queryKey: keys.screen(visitId),
    queryFn: () => got(api.GET("/api/visits/{visitId}/screen", { params: { path: { visitId } } })),
  });

/** @param against visit of an earlier screen to compare with; none: the one before */
export const useFindings = (visitId: string, against: string | null) =>
  useQuery({
    queryKey: keys.findings(visitId, against),
    queryFn: () =>
      got(
        api.GET("/api/visits/{visitId}/findings", {
          params: { path: { visitId }, query: { against: against ?? undefined } },
        }),
      ),
    placeholderData: (previous) => previous,
  });

export const useSession = (visitId: string) =>
  useQuery({
    queryKey: keys.session(visitId),
    queryFn: () => got(api.GET("/api/visits/{visitId}/session", { params: { path: { visitId } } })),
  });

export const useDecisions = (visitId: string) =>
  useQuery({
    queryKey: keys.decisions(visitId),
    queryFn: () => got(api.GET("/api/visits/{visitId}/decisions", { params: { path: { visitId } } })),
  });

/** The fault that is this to the rules, whatever the content calls it; null where the content has none. */
export const faultThatMeans = (library: Library | undefined, meaning: FaultMeaning) =>
  library?.faults.find((f) => f.means === meaning)?.code ?? null;

export function findRung(library: Library, id: string) {
  for (const ladder of library.ladders) {
    const rung = ladder.rungs.find((r) => r.id === id);
    if (rung) return { ladder, rung };
  }
  throw new Error(`The library has no rung ${id}.`);
}
