import type { Decision, ReplayView } from "../api/types";

export type ReplayedVisit = ReplayView["visits"][number];

/** One exercise and side at one visit: what was chosen, and what each policy would have decided, in their order. */
export interface ReplayLine {
  line: Decision;
  mine: Decision | undefined;
  theirs: (Decision | undefined)[];
}

export function replayLines(visit: ReplayedVisit, view: ReplayView): ReplayLine[] {
  const chosen = view.chosen.find((c) => c.visit === visit.visit)?.chosen ?? [];
  return (visit.policies[0]?.decisions ?? []).map((line, i) => ({
    line,
    mine: chosen.find((c) => c.planItemId === line.planItemId && c.side === line.side),
    theirs: view.policies.map((p) => visit.policies.find((v) => v.policyId === p.id)?.decisions[i]),
  }));
}

/** Some policy would have decided something else than another, or than what was chosen. */
export const differs = ({ line, mine, theirs }: ReplayLine) =>
  theirs.some((d) => d?.outcome !== line.outcome) || (mine !== undefined && mine.outcome !== line.outcome);
