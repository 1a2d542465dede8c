import { say } from "../words/say";

/** What was changed, by its name in the store, and what was looked at, taken out or tried, by its name in the API. */
const what: Record<string, string> = {
  Client: say("people.what-client"),
  Episode: say("people.what-episode"),
  DangerReport: say("people.what-red-flag"),
  Visit: say("people.what-visit"),
  PlanRevision: say("people.what-plan"),
  PolicyRevision: say("people.what-policy"),
  Clinic: say("people.what-clinic"),
  ClinicSentence: say("people.what-sentence"),
  DecisionRecord: say("people.what-decision"),
  HomeLogDay: say("people.what-home-log"),
  LetterDraft: say("people.what-letter"),
  StoredTrace: say("people.what-trace"),
  Practitioner: say("people.what-account"),
  AccountReset: say("people.what-account-reset"),
  Invitation: say("people.what-invitation"),
  Restore: say("people.what-restore"),
  Gap: say("people.what-gap"),
  EpisodeDischarge: say("people.what-discharge"),
  EpisodeMove: say("people.what-filed"),
  GetResearchFile: say("people.what-research"),
  GetRecordFile: say("people.what-record"),
  TakeInRecord: say("people.what-record-in"),
  RecordImport: say("people.what-record-in"),
  VisitNote: say("people.what-note"),
  VisitChart: say("people.what-chart"),
  GetClient: say("people.what-client"),
  GetNote: say("people.what-note"),
  GetNotes: say("people.what-note"),
  GetBodyChart: say("people.what-chart"),
  GetBodyChartPicture: say("people.what-chart"),
  GetDischarge: say("people.what-discharge"),
  GetClinicView: say("people.what-clinic-view"),
  GetClinicViewFile: say("people.what-clinic-view"),
  GetEpisode: say("people.what-episode"),
  GetPlan: say("people.what-plan"),
  ComparePlans: say("people.what-plan"),
  GetTabletDay: say("people.what-tablet-day"),
  GetScreen: say("people.what-screen"),
  GetEvents: say("people.what-screen"),
  GetFindings: say("people.what-findings"),
  GetSession: say("people.what-session"),
  GetDecisions: say("people.what-decision"),
  GetReplay: say("people.what-decision"),
  GetChangedDecisions: say("people.what-decision"),
  GetOutcomes: say("people.what-progress"),
  GetHomeLog: say("people.what-home-log"),
  GetHomeLogFile: say("people.what-home-log"),
  GetLetter: say("people.what-letter"),
  GetLetterPdf: say("people.what-letter"),
  GetSheet: say("people.what-sheet"),
  GetSheetPdf: say("people.what-sheet"),
  GetCalendar: say("people.what-calendar"),
  GetCalendarFile: say("people.what-calendar"),
  GetTraces: say("people.what-trace"),
  GetTraceFile: say("people.what-trace"),
  MakeBackup: say("people.what-backup"),
  Erase: say("people.what-erased"),
  GetSeenBy: say("people.what-seen"),
  AskNeutral: say("people.what-neutral"),
  GetAmendments: say("people.what-amendments"),
  MoveTrials: say("people.what-trial"),
  TrialMove: say("people.what-trial"),
  StoredPhoto: say("people.what-photo"),
  GetPhoto: say("people.what-photo"),
  RemovePhoto: say("people.what-photo"),
  Lock: say("people.what-lock"),
  Unlock: say("people.what-unlock"),
  SignIn: say("people.what-sign-in"),
  SignOut: say("people.what-sign-out"),
  TakeInvitation: say("people.what-code-taken"),
  Reauthenticate: say("people.what-password-again"),
};

/** What has no words yet stands as the program calls it. */
export const whatWords = (name: string) => what[name] ?? name;

export interface FieldChange {
  field: string;
  before: string | null;
  after: string | null;
}

const short = (value: unknown) => {
  const text = typeof value === "string" ? value : JSON.stringify(value);
  return text.length > 160 ? `${text.slice(0, 160)} …` : text;
};

/** Before and after, field by field; nothing where the payload tells of something else. */
export function changesOf(payload: string | null): FieldChange[] {
  if (!payload) return [];
  const told = JSON.parse(payload) as Record<string, unknown>;
  return Object.entries(told).flatMap(([field, change]) => {
    if (typeof change !== "object" || change === null) return [];
    const { before, after } = change as { before?: unknown; after?: unknown };
    if (before === undefined && after === undefined) return [];
    return [
      { field, before: before == null ? null : short(before), after: after == null ? null : short(after) },
    ];
  });
}
