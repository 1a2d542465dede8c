import type { EpisodeView, VisitView } from "../api/types";
import { say } from "../words/say";

export const stationNames = {
  ask: say("frame.ask"),
  neutral: say("frame.neutral"),
  screen: say("frame.screen"),
  findings: say("frame.findings"),
  plan: say("frame.plan"),
  session: say("frame.session"),
  decide: say("frame.decide"),
  "take-home": say("frame.take-home"),
} as const;
export type Station = keyof typeof stationNames;
export const stationOrder = Object.keys(stationNames) as Station[];

/** Everything of a visit that has an address of its own, by its part of the address. */
export const placeNames = {
  ...stationNames,
  note: say("frame.notes"),
  chart: say("frame.body-chart"),
  progress: say("frame.progress"),
  letter: say("frame.letter"),
  discharge: say("frame.discharge"),
  replay: say("frame.replay"),
  amendments: say("frame.amendments"),
  traces: say("frame.trace"),
  trials: say("frame.trial"),
} as const;
export type Place = keyof typeof placeNames;

/** What is no step of a visit and is often wanted in one. */
export const beside: Place[] = ["note", "chart", "progress", "letter"];

/** Where to go when a visit is opened: the first station that still has something to do. */
export function firstStation(episode: EpisodeView, visit: VisitView): Station {
  if (episode.closed) return "ask";
  if (visit.state === "done") return visit.number === 1 ? "findings" : "decide";
  if (visit.number > 1 && episode.planRevision !== null) {
    return visit.hasSession ? "decide" : "session";
  }
  if (episode.neutral.strategy === null) return "neutral";
  return visit.hasScreen ? "plan" : "screen";
}
