import { useTheme } from "styled-components";
import type { Decision, Ladder, PlanItem } from "../api/types";
import { Peg } from "../findings/LaddersBoard";

/** The ladder of one exercise, small: hollow pegs where it was, full ones where it goes. */
export function PegLadder(props: { ladder: Ladder; item: PlanItem; decisions: Decision[] }) {
  const { colour } = useTheme();
  const rungs = props.ladder.rungs;
  const gap = Math.min(20, 84 / Math.max(1, rungs.length - 1));
  const y = (id: string) => 12 + (rungs.length - 1 - rungs.findIndex((r) => r.id === id)) * gap;
  const height = 24 + (rungs.length - 1) * gap;
  const to = (side: "left" | "right") =>
    props.decisions.find((d) => d.side === side || d.side === "both")?.rungId ?? props.item.rungId;
  const was = props.item.rungId;
  return (
    <svg width={92} height={height} viewBox={`0 0 92 ${height}`} aria-hidden>
      {[32, 60].map((x) => (
        <line key={x} x1={x} x2={x} y1={0} y2={height} stroke={colour.ink} strokeWidth={2} />
      ))}
      {rungs.map((r) => (
        <line key={r.id} x1={32} x2={60} y1={y(r.id)} y2={y(r.id)} stroke={colour.sand} strokeWidth={4} />
      ))}
      {to("left") !== was && <Peg x={32} y={y(was)} side="left" hollow />}
      {to("right") !== was && <Peg x={60} y={y(was)} side="right" hollow />}
      <Peg x={32} y={y(to("left"))} side="left" />
      <Peg x={60} y={y(to("right"))} side="right" />
    </svg>
  );
}
