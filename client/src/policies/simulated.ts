import type { Simulated, SimulatedFigures } from "../api/types";

const percent = (share: number) => `${Math.round(100 * share)} %`;

const figures = (f: SimulatedFigures) =>
  `${percent(f.up12)} up, ${percent(f.flared)} flared${f.tooEarly === null ? "" : `, ${percent(f.tooEarly)} of steps too early`}`;

/** What the figures beside the choices are, said once above them. */
export const simulatedNote = (simulated: Simulated) =>
  `Beside some choices stands what ${simulated.clients} simulated clients came to in twelve weeks with that value, all else built in ` +
  `(as it is: ${figures(simulated.asItIs)}). Up: half the exercises a level up. ` +
  `A difference under ${percent(3 * Math.hypot(simulated.asItIs.up12Error, simulated.asItIs.up12Error))} may be chance.`;

const named = (value: number, unit: string) =>
  `${value} ${value === 1 && unit.length > 1 && unit.endsWith("s") ? unit.slice(0, -1) : unit}`.trim();

/** "In simulation 1: 71 % up, 24 % flared; 3: 60 % up, …"; none where the choice was not tried. */
export function triedWords(simulated: Simulated, path: string, unit: string): string | null {
  const tried = simulated.changed.filter((c) => c.path === path);
  if (tried.length === 0) return null;
  return `In simulation: ${tried.map((c) => `${named(c.value, unit)}: ${figures(c.figures)}`).join("; ")}.`;
}
