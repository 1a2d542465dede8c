import { useTheme } from "styled-components";
import type { Figure, FigurePoint, ShapeRole, Side } from "../api/types";
import { useFigure } from "../api/queries";

const path = (points: FigurePoint[]) => `M${points.map((p) => `${p.x} ${p.y}`).join("L")}Z`;

/** Paints the shapes of a drawing; the core says what they are, here is only what they look like. */
export function FigureShapes(props: { figure: Figure }) {
  const { colour } = useTheme();
  const fill: Record<ShapeRole, string> = {
    floor: colour.sand,
    "far-limb": colour.sand,
    head: colour.slate,
    trunk: colour.slate,
    "near-limb": colour.ink,
  };
  return props.figure.shapes.map((shape) => (
    <path
      key={shape.part}
      d={path(shape.outline)}
      fill={fill[shape.role]}
      stroke={shape.role === "near-limb" ? colour.paper : "none"}
      strokeWidth={7}
      strokeLinejoin="round"
    />
  ));
}

export function FigureView(props: { figure: Figure; height?: number | string; width?: number | string }) {
  const f = props.figure;
  return (
    <svg
      role="img"
      aria-label={f.words}
      viewBox={`${f.left} ${f.top} ${f.width} ${f.height}`}
      height={props.height ?? "100%"}
      width={props.width ?? "100%"}
      preserveAspectRatio="xMidYMax meet"
      style={{ display: "block" }}
    >
      <FigureShapes figure={f} />
    </svg>
  );
}

/** A rung on one side, at its start or end; empty space of the same size until it is there. */
export function RungFigure(props: {
  rungId: string;
  side: Side;
  frame?: "start" | "end";
  width: number | string;
  height: number | string;
}) {
  const { data } = useFigure(props.rungId, props.side, props.frame ?? "end");
  return (
    <div style={{ width: props.width, height: props.height, maxWidth: "100%" }}>
      {data && <FigureView figure={data} />}
    </div>
  );
}
