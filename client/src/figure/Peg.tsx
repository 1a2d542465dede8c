import { useTheme } from "styled-components";

/** The mark of a client's level on a ladder: left and right by colour and by the side it points to. */
export function Peg(props: { x: number; y: number; side: "left" | "right"; hollow?: boolean }) {
  const { colour } = useTheme();
  const tone = props.side === "left" ? colour.sea : colour.bark;
  const d = props.side === "left" ? "M0 -10H-14L-24 0L-14 10H0Z" : "M0 -10H14L24 0L14 10H0Z";
  return (
    <path
      d={d}
      transform={`translate(${props.x} ${props.y})`}
      fill={props.hollow ? colour.paper : tone}
      stroke={tone}
      strokeWidth={2}
    />
  );
}
