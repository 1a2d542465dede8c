import { useTheme } from "styled-components";
import type { Ladder, PlanItem } from "../api/types";

const width = 44;
const height = 64;
const [left, right] = [15, 29];
const flags = { left: "M-1 -5H-8L-13 0L-8 5H-1Z", right: "M1 -5H8L13 0L8 5H1Z" } as const;

/** The ladder of an exercise, small: how far up its pegs stand. The Ladders tab is where they are moved. */
export function Pegs(props: { ladder: Ladder; item: PlanItem }) {
  const { colour } = useTheme();
  const { rungs } = props.ladder;
  const y = (i: number) => height - 6 - ((height - 12) * i) / Math.max(1, rungs.length - 1);
  const at = rungs.findIndex((rung) => rung.id === props.item.rungId);
  const on = (side: "left" | "right") => props.item.doses.some((d) => d.side === side || d.side === "both");
  return (
    <svg viewBox={`0 0 ${width} ${height}`} width={width} height={height} aria-hidden>
      {rungs.map((rung, i) => (
        <path key={rung.id} d={`M${left} ${y(i)}H${right}`} stroke={colour.sand} strokeWidth={3} />
      ))}
      <path d={`M${left} 0V${height}M${right} 0V${height}`} stroke={colour.ink} strokeWidth={2} />
      {on("left") && <path d={flags.left} transform={`translate(${left} ${y(at)})`} fill={colour.sea} />}
      {on("right") && <path d={flags.right} transform={`translate(${right} ${y(at)})`} fill={colour.bark} />}
    </svg>
  );
}
