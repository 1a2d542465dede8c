import type { EpisodeView, VisitView } from "../api/types";

export const stationNames = {
  ask: "Ask",
  neutral: "Neutral",
  screen: "Screen",
  findings: "Findings",
  plan: "Plan",
  session: "Session",
  decide: "Decide",
  "take-home": "Take home",
} as const;
export type Station = keyof typeof stationNames;
export const stationOrder = Object.keys(stationNames) as Station[];

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
