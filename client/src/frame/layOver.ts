import type { QueryClient } from "@tanstack/react-query";
import { keys } from "../api/queries";
import type {
  DangerReport,
  EpisodeView,
  IntakeForm,
  Library,
  ScreenView,
  SessionAdvice,
  SessionView,
  VisitIntake,
} from "../api/types";
import type { HeldAnswer, HeldCheckIn, HeldIntake } from "../capture/heldAnswers";
import { say } from "../words/say";
import { adviceAlone, legBefore } from "./adviceAlone";

/** Shows an answer where the views look for it; however often, it is the same. */
export function layOver(queries: QueryClient, answer: HeldAnswer) {
  switch (answer.kind) {
    case "red-flags":
      return layFlags(queries, answer, answer.dangerSigns);
    case "check-in":
      return layCheckIn(queries, answer);
    case "intake":
      layFlags(queries, answer, answer.form.dangerSigns);
      return layIntake(queries, answer);
  }
}

/** What was told stays as old as it was. */
function change<T>(queries: QueryClient, queryKey: readonly unknown[], to: (before: T) => T) {
  const before = queries.getQueryState<T>(queryKey);
  if (before?.data !== undefined)
    queries.setQueryData(queryKey, to(before.data), { updatedAt: before.dataUpdatedAt });
}

const libraryOf = (queries: QueryClient) => queries.getQueryData<Library>(keys.library);

function layCheckIn(queries: QueryClient, { episodeId, visitId, checkIn }: HeldCheckIn) {
  const painNow = checkIn.painNow ?? null;
  const episode = queries.getQueryData<EpisodeView>(keys.episode(episodeId));
  const unasked = queries.getQueryData<SessionAdvice | null>(keys.unasked(visitId)) ?? null;
  const advice = adviceAlone({
    unasked,
    checkIn,
    legBefore: episode ? legBefore(episode, visitId) : null,
    policy: libraryOf(queries)?.policies.find((p) => p.id === episode?.intake.policyId),
  });
  change<EpisodeView>(queries, keys.episode(episodeId), (before) => ({
    ...before,
    visits: before.visits.map((visit) =>
      visit.id === visitId ? { ...visit, checkIn, pain: painNow } : visit,
    ),
  }));
  change<SessionView>(queries, keys.session(visitId), (before) => ({
    ...before,
    painNow,
    ready: [],
    // With nothing to weigh it by, what was said before still holds.
    advice: advice ?? before.advice,
  }));
  change<ScreenView>(queries, keys.screen(visitId), (before) => ({ ...before, painNow }));
}

function layIntake(queries: QueryClient, { episodeId, visitId, form, before }: HeldIntake) {
  const painNow = form.pain.now;
  change<EpisodeView>(queries, keys.episode(episodeId), (episode) => ({
    ...episode,
    intake: { ...episode.intake, ...form, version: episode.version },
    asked: true,
    held: heldBy(episode, form, before),
    visits: episode.visits.map((visit) =>
      visit.id === visitId ? { ...visit, pain: painNow, intake: answersOf(form) } : visit,
    ),
  }));
  change<ScreenView>(queries, keys.screen(visitId), (screen) => ({ ...screen, painNow }));
}

/** What of a form are the answers of its visit. */
const answersOf = (form: IntakeForm): VisitIntake => ({
  complaint: form.complaint,
  pain: form.pain,
  settleHours: form.settleHours,
  wakesAtNight: form.wakesAtNight,
  precautions: form.precautions,
  minutesPerDay: form.minutesPerDay,
  policyId: form.policyId,
  goals: form.goals ?? [],
  equipment: form.equipment ?? null,
  daysPerWeek: form.daysPerWeek,
});

/**
 * What a precaution bars is known to the server alone: with another one than before, nothing is tried until it has weighed it.
 * That nobody had asked yet holds no longer; whatever else holds goes on.
 */
function heldBy(episode: EpisodeView, form: IntakeForm, before: IntakeForm) {
  const same =
    JSON.stringify(form.precautions) === JSON.stringify(before.precautions) &&
    form.policyId === before.policyId;
  if (!same) return say("frame.precautions-wait");
  const onlyUnasked = !episode.asked && episode.openDrawingId === null && episode.dischargedOn === null;
  return onlyUnasked ? null : episode.held;
}

/** As the server will have them; those that stand there already are not told twice. */
function layFlags(queries: QueryClient, { episodeId, name, at }: HeldAnswer, signs: string[]) {
  const known = libraryOf(queries)?.dangerSigns ?? [];
  const report = (sign: string): DangerReport => ({
    id: sign,
    signId: sign,
    words: known.find((s) => s.id === sign)?.words ?? sign,
    sameDay: known.find((s) => s.id === sign)?.sameDay ?? false,
    notedAt: at,
    notedBy: name,
    clearedAt: null,
    clearedBy: null,
    found: null,
    done: null,
  });
  change<EpisodeView>(queries, keys.episode(episodeId), (episode) => {
    const open = episode.dangerReports.filter((r) => r.clearedAt === null).map((r) => r.signId);
    const fresh = signs.filter((sign) => !open.includes(sign));
    return {
      ...episode,
      closed: episode.closed || signs.length > 0,
      dangerReports: [...episode.dangerReports, ...fresh.map(report)],
    };
  });
}
