import { modifierName } from "../api/modifiers";
import { dayWords } from "../api/clinicTime";
import type {
  Dose,
  Outcome,
  PlanItem,
  RestingShape,
  SideDose,
  SpinalStrategy,
  Activation,
} from "../api/types";
import { say } from "../words/say";

export const strategyWords: Record<SpinalStrategy, string> = {
  neutral: say("controls.neutral"),
  "gently-flat": say("controls.gently-flat"),
  "little-arch": say("controls.a-little-arch"),
};
export const activationWords: Record<Activation, string> = {
  brace: say("controls.brace"),
  "draw-in": say("controls.draw-in-with-the-pelvic"),
};
export const shapeWords: Record<RestingShape, string> = {
  "large-arch": say("controls.large-arch"),
  middling: say("controls.middling"),
  rounded: say("controls.rounded"),
};
export const outcomeWords: Record<Outcome, string> = {
  "step-up": say("controls.step-up"),
  add: say("controls.add"),
  stay: say("controls.stay"),
  ease: say("controls.ease-the-dose"),
  "step-down": say("controls.step-down"),
  stop: say("controls.stop"),
  change: say("controls.change-one-thing"),
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
      ? say("controls.shrinking-reps", { sets: shrinking(d) })
      : d.sets === 1
        ? say("controls.reps", { reps: d.reps })
        : say("controls.sets-sets-of-reps", { sets: d.sets, reps: d.reps });
  return [d.hold > 0 ? say("controls.count-hold", { count, hold: d.hold }) : count, ...settingWords(d)].join(
    ", ",
  );
};

/** Range, height, load and band; nothing for the whole movement as drawn. As Dose.SettingWords in the core. */
export const settingWords = (d: Dose): string[] => [
  ...(d.range < 1 ? [say("controls.range-of-the-way", { range: Math.round(d.range * 100) })] : []),
  ...(d.height != null ? [say("controls.at-height-cm", { height: Math.round(d.height * 100) })] : []),
  ...(d.load != null ? [say("controls.with-load-kg", { load: Number(d.load.toFixed(1)) })] : []),
  ...(d.band != null ? [say("controls.band-band", { band: d.band })] : []),
  ...(d.modifier != null
    ? [say("controls.with-modifier", { modifier: modifierName(d.modifier).toLowerCase() })]
    : []),
];

/** Why an exercise rests or is halved for a while, and until when; nothing where it is neither. */
export const spellWords = (spell: PlanItem["spell"]): string[] => {
  if (!spell) return [];
  const until =
    spell.until != null
      ? say("controls.until-until", { until: dayWords(spell.until) })
      : say("controls.for-visits", { visits: spell.visits ?? 1 });
  return [
    spell.kind === "rest"
      ? say("controls.rests-until", { until })
      : say("controls.half-the-sets-until-then", { until }),
  ];
};

/** Where a shorter range ends, and what that is of the full load. */
export const rangeWords = (d: SideDose) =>
  d.rangeLoadPercent
    ? say("controls.rangeends-rangeloadpercent-of-the-full", {
        rangeEnds: d.rangeEnds ?? "",
        rangeLoadPercent: Math.round(d.rangeLoadPercent),
      })
    : (d.rangeEnds ?? "");

export const seconds = (s: number) => say("controls.s-s", { s: s.toFixed(1) });

export const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);
