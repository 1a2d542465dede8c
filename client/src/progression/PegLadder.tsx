import type { CSSProperties } from "react";
import styled, { keyframes, useTheme } from "styled-components";
import type { Decision, Ladder, PlanItem } from "../api/types";
import { Peg } from "../figure/Peg";

const travel = keyframes`
  from { transform: translateY(var(--from)); }
`;

/** A peg that goes from where it was to where it is. */
const Moving = styled.g`
  animation: ${travel} 700ms ease-in-out 300ms backwards;
`;

/** The ladder of one exercise, small: hollow pegs where it was, full ones where it goes. */
export function PegLadder(props: { ladder: Ladder; item: PlanItem; decisions: Decision[] }) {
  const { colour } = useTheme();
  const rungs = props.ladder.rungs;
  const gap = Math.min(24, 84 / Math.max(1, rungs.length - 1));
  const y = (id: string) => 12 + (rungs.length - 1 - rungs.findIndex((r) => r.id === id)) * gap;
  const height = 24 + (rungs.length - 1) * gap;
  const [left, right] = [20, 48];
  const to = (side: "left" | "right") =>
    props.decisions.find((d) => d.side === side || d.side === "both")?.rungId ?? props.item.rungId;
  const was = props.item.rungId;
  return (
    <svg width={44} height={54} viewBox={`0 0 68 ${height}`} aria-hidden>
      {[left, right].map((x) => (
        <line key={x} x1={x} x2={x} y1={0} y2={height} stroke={colour.ink} strokeWidth={2} />
      ))}
      {rungs.map((r) => (
        <line
          key={r.id}
          x1={left}
          x2={right}
          y1={y(r.id)}
          y2={y(r.id)}
          stroke={colour.sand}
          strokeWidth={4}
        />
      ))}
      {(["left", "right"] as const).map((side) => {
        const x = side === "left" ? left : right;
        const goes = to(side);
        return (
          <g key={side}>
            {goes !== was && <Peg x={x} y={y(was)} side={side} hollow />}
            <Moving key={goes} style={{ "--from": `${y(was) - y(goes)}px` } as CSSProperties}>
              <Peg x={x} y={y(goes)} side={side} />
            </Moving>
          </g>
        );
      })}
    </svg>
  );
}
