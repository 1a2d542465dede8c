import { v7 as uuid } from "uuid";
import { findRung } from "../api/queries";
import type { Library, PlanItem } from "../api/types";
import { say } from "../words/say";

/** An exercise put in by hand: each side as the rung has them, at its start dose. */
export function newItem(rungId: string, barOverride: string | null, library: Library): PlanItem {
  const { rung } = findRung(library, rungId);
  const sides = rung.sides === "each" ? (["left", "right"] as const) : (["both"] as const);
  return {
    id: uuid(),
    rungId,
    for: say("planning.added-by-hand"),
    doses: sides.map((side) => ({ side, dose: rung.start, range: 1 })),
    reasons: [{ ruleId: "P-HAND", words: say("planning.added-by-the-practitioner") }],
    changes: [],
    cue: rung.cues[0] ?? "",
    minutes: 0,
    barOverride,
  };
}

/** The same place in the plan on another rung: sides as the new rung has them, at its start dose. */
export function swapped(
  item: PlanItem,
  rungId: string,
  barOverride: string | null,
  library: Library,
): PlanItem {
  const { rung } = findRung(library, rungId);
  const order = item.doses.map((d) => d.side).filter((s) => s !== "both");
  const sides =
    rung.sides !== "each" ? (["both"] as const) : order.length === 2 ? order : (["left", "right"] as const);
  return {
    ...item,
    rungId,
    doses: sides.map((side) => ({ side, dose: rung.start, range: 1 })),
    reasons: [{ ruleId: "P-HAND", words: say("planning.chosen-by-the-practitioner") }],
    changes: [],
    cue: rung.cues[0] ?? "",
    barOverride,
    spell: null,
    notes: null,
  };
}
