import type { Simulated, SimulatedFigures } from "../api/types";
import { say } from "../words/say";

const percent = (share: number) => `${Math.round(100 * share)} %`;

const figures = (f: SimulatedFigures) =>
  say("policies.up12-up-flared-flared-tooearly", {
    up12: percent(f.up12),
    flared: percent(f.flared),
    tooEarly:
      f.tooEarly === null
        ? ""
        : say("policies.tooearly-of-steps-too-early", { tooEarly: percent(f.tooEarly) }),
  });

/** What the figures beside the choices are, said once above them. */
export const simulatedNote = (simulated: Simulated) =>
  `${say("policies.beside-some-choices-stands-what", { clients: simulated.clients })} ` +
  `${say("policies.as-it-is-asitis-up", { asItIs: figures(simulated.asItIs) })} ` +
  say("policies.may-be-chance", {
    least: percent(3 * Math.hypot(simulated.asItIs.up12Error, simulated.asItIs.up12Error)),
  });

const named = (value: number, unit: string) =>
  `${value} ${value === 1 && unit.length > 1 && unit.endsWith("s") ? unit.slice(0, -1) : unit}`.trim();

/** "In simulation 1: 71 % up, 24 % flared; 3: 60 % up, …"; none where the choice was not tried. */
export function triedWords(simulated: Simulated, path: string, unit: string): string | null {
  const tried = simulated.changed.filter((c) => c.path === path);
  if (tried.length === 0) return null;
  return say("policies.in-simulation-tried", {
    tried: tried.map((c) => `${named(c.value, unit)}: ${figures(c.figures)}`).join("; "),
  });
}
