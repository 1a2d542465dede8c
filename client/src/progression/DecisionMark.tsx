import { useTheme } from "styled-components";
import type { Outcome } from "../api/types";

const strokes: Record<Outcome, string> = {
  "step-up": "M3 25H11V17H19V9H29",
  add: "M16 5V27M5 16H27",
  stay: "M5 11H27M5 21H27",
  ease: "M5 16H27",
  "step-down": "M3 7H11V15H19V23H29",
  stop: "M6 6H26V26H6Z",
  change: "M4 11H26L20 5M28 21H6L12 27",
};

/** A small drawn mark for a decision; always beside its word. */
export function DecisionMark(props: { outcome: Outcome }) {
  const { colour } = useTheme();
  return (
    <svg width={34} height={34} viewBox="0 0 32 32" aria-hidden>
      <path
        d={strokes[props.outcome]}
        fill="none"
        stroke={props.outcome === "stop" ? colour.clay : colour.ink}
        strokeWidth={4}
      />
    </svg>
  );
}
