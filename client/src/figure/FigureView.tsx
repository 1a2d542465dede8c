import { useTheme } from "styled-components";
import type { Figure, FigureFrame, FigureShape, Side } from "../api/types";
import { useFigure } from "../api/queries";

/** A run of x, y, x, y as one closed path. */
const path = (outline: number[]) => `M${outline.join(" ")}Z`;
const outlines = (shape: FigureShape) => shape.outlines.map(path).join("");

/** Closed outlines as one path. */
export const pathOf = (of: number[][]) => of.map(path).join("");

/** How each kind of shape looks: the core says what they are, here is only this. */
export function useLook() {
  const { colour } = useTheme();
  return {
    floor: { fill: colour.rule },
    prop: { fill: colour.wash, stroke: colour.slate, strokeWidth: 8 },
    ghost: { fill: colour.ghost },
    "far-limb": { fill: colour.sand, stroke: colour.paper, strokeWidth: 14 },
    head: { fill: colour.slate },
    trunk: { fill: colour.slate },
    "near-limb": { fill: colour.ink, stroke: colour.paper, strokeWidth: 14 },
    arrow: { fill: colour.sea, stroke: colour.paper, strokeWidth: 10 },
    mark: { fill: colour.clay, stroke: colour.paper, strokeWidth: 10 },
  };
}

/** Paints the shapes of a drawing. */
export function FigureShapes(props: { figure: Figure }) {
  const look = useLook();
  return props.figure.shapes.map((shape, i) => (
    <path
      key={`${shape.part}-${i}`}
      d={outlines(shape)}
      paintOrder="stroke"
      strokeLinejoin="round"
      {...look[shape.role]}
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

/** A rung on one side, at its start or end or both together; empty space of the same size until it is there. */
export function RungFigure(props: {
  rungId: string;
  side: Side;
  frame?: FigureFrame;
  /** Share of the movement at which the end is drawn. */
  range?: number;
  width: number | string;
  height: number | string;
}) {
  const { data } = useFigure(props.rungId, props.side, props.frame ?? "end", props.range);
  return (
    <div style={{ width: props.width, height: props.height, maxWidth: "100%" }}>
      {data && <FigureView figure={data} />}
    </div>
  );
}
