import { dayWords } from "../api/clinicTime";
import type { Dose, Outcome, PlanItem, RestingShape, SideDose, SpinalStrategy, SwitchOn } from "../api/types";

export const strategyWords: Record<SpinalStrategy, string> = {
  neutral: "neutral",
  "gently-flat": "gently flat",
  "little-arch": "a little arch",
};
export const switchOnWords: Record<SwitchOn, string> = {
  brace: "brace",
  "draw-in": "draw in, with the pelvic floor",
};
export const shapeWords: Record<RestingShape, string> = {
  "large-arch": "large arch",
  middling: "middling",
  rounded: "rounded",
};
export const outcomeWords: Record<Outcome, string> = {
  "step-up": "step up",
  add: "add",
  stay: "stay",
  ease: "ease the dose",
  "step-down": "step down",
  stop: "stop",
  change: "change one thing",
};

/** Reps of each set where they shrink: 8-6-4. */
const shrinking = (d: Dose) => Array.from({ length: d.sets }, (_, i) => repsOf(d, i + 1)).join("-");

/** @param set 1 for the first */
export const repsOf = (d: Dose, set: number) => Math.max(1, d.reps - (set - 1) * d.fewer);

/** Reps of all sets. */
export const totalReps = (d: Dose) =>
  Array.from({ length: d.sets }, (_, i) => repsOf(d, i + 1)).reduce((sum, reps) => sum + reps, 0);

export const doseWords = (d: Dose) => {
  const count =
    d.sets > 1 && d.fewer
      ? `${shrinking(d)} reps`
      : d.sets === 1
        ? `${d.reps} ${d.reps === 1 ? "rep" : "reps"}`
        : `${d.sets} sets of ${d.reps}`;
  return [d.hold > 0 ? `${count}, hold ${d.hold} s` : count, ...settingWords(d)].join(", ");
};

/** Range, height, load and band; nothing for the whole movement as drawn. As Dose.SettingWords in the core. */
export const settingWords = (d: Dose): string[] => [
  ...(d.range < 1 ? [`${Math.round(d.range * 100)} % of the way`] : []),
  ...(d.height != null ? [`at ${Math.round(d.height * 100)} cm`] : []),
  ...(d.load != null ? [`with ${Number(d.load.toFixed(1))} kg`] : []),
  ...(d.band != null ? [`${d.band} band`] : []),
  ...(d.modifier != null ? [`with ${d.modifier.replaceAll("-", " ")}`] : []),
];

/** Why an exercise rests or is halved for a while, and until when; nothing where it is neither. */
export const spellWords = (spell: PlanItem["spell"]): string[] => {
  if (!spell) return [];
  const until =
    spell.until != null
      ? `until ${dayWords(spell.until)}`
      : `for ${spell.visits ?? 1} ${spell.visits === 1 ? "visit" : "visits"}`;
  return [spell.kind === "rest" ? `Rests ${until}.` : `Half the sets ${until}, then as before.`];
};

/** Where a shorter range ends, and what that is of the full load. */
export const rangeWords = (d: SideDose) =>
  d.rangeLoadPercent
    ? `${d.rangeEnds}: ${Math.round(d.rangeLoadPercent)} % of the full load`
    : (d.rangeEnds ?? "");

export const seconds = (s: number) => `${s.toFixed(1)} s`;

export const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);
