import { useId, useRef, useState } from "react";
import { useTheme } from "styled-components";
import type { ChartFigure, ChartPattern, PainArea } from "../api/types";
import { outlineOf, pathOf, type Spot } from "./outline";
import { say } from "../words/say";

export const viewWords: Record<ChartFigure["view"], string> = {
  front: say("charts.from-in-front"),
  back: say("charts.from-behind"),
  left: say("charts.from-the-left"),
  right: say("charts.from-the-right"),
};

/** One side of the body, with what is drawn on it; drawn on by finger where that is wanted. */
export function ChartDrawing(props: {
  figure: ChartFigure;
  patterns: ChartPattern[];
  /** With their place in the chart, which numbers them. */
  areas: { area: PainArea; number: number }[];
  /** In CSS's words. */
  height: string;
  onDraw?: (outline: number[]) => void;
}) {
  const { figure } = props;
  const { colour, font } = useTheme();
  const id = useId();
  const whole = figure.shapes.flatMap((shape) => shape.outlines.map(pathOf)).join("");
  const stroke = useRef<Spot[]>([]);
  const [drawn, setDrawn] = useState<Spot[]>([]);
  const spotOf = (event: React.PointerEvent<SVGSVGElement>): Spot => {
    const box = event.currentTarget.getBoundingClientRect();
    return [
      figure.left + ((event.clientX - box.left) / box.width) * figure.width,
      figure.top + ((event.clientY - box.top) / box.height) * figure.height,
    ];
  };
  const begin = (event: React.PointerEvent<SVGSVGElement>) => {
    event.preventDefault();
    event.currentTarget.setPointerCapture(event.pointerId);
    stroke.current = [spotOf(event)];
    setDrawn(stroke.current);
  };
  const go = (event: React.PointerEvent<SVGSVGElement>) => {
    if (stroke.current.length === 0) return;
    stroke.current = [...stroke.current, spotOf(event)];
    setDrawn(stroke.current);
  };
  const end = () => {
    const outline = outlineOf(stroke.current);
    stroke.current = [];
    setDrawn([]);
    if (outline.length > 0) props.onDraw?.(outline);
  };
  return (
    <svg
      viewBox={`${figure.left} ${figure.top} ${figure.width} ${figure.height}`}
      role="img"
      aria-label={say("charts.view-areas", { view: viewWords[figure.view], n: props.areas.length })}
      style={{
        height: props.height,
        maxWidth: "100%",
        touchAction: "none",
        userSelect: "none",
        cursor: props.onDraw ? "crosshair" : undefined,
      }}
      {...(props.onDraw && {
        onPointerDown: begin,
        onPointerMove: go,
        onPointerUp: end,
        onPointerCancel: () => {
          stroke.current = [];
          setDrawn([]);
        },
      })}
    >
      <defs>
        {props.patterns.map((pattern) => (
          <Pattern key={pattern.kind} id={`${id}-${pattern.kind}`} pattern={pattern} ink={colour.clay} />
        ))}
      </defs>
      {/* The rim of all parts first, then all of them over it: one body, not its joints. */}
      <path d={whole} fill={colour.ink} stroke={colour.ink} strokeWidth={12} />
      <path d={whole} fill={colour.sheet} />
      {props.areas.map(({ area, number }) => (
        <g key={number}>
          <path
            d={pathOf(area.outline)}
            fill={`url(#${id}-${area.kind})`}
            stroke={colour.clay}
            strokeWidth={6}
          />
          <text
            x={Math.max(...area.outline.filter((_, i) => i % 2 === 0)) + 12}
            y={Math.min(...area.outline.filter((_, i) => i % 2 === 1)) + 30}
            fontSize={62}
            fontWeight={700}
            fontFamily={font.text}
            fill={colour.ink}
            stroke={colour.sheet}
            strokeWidth={10}
            paintOrder="stroke"
          >
            {number}
          </text>
        </g>
      ))}
      {drawn.length > 1 && (
        <polyline
          points={drawn.map((spot) => spot.join(",")).join(" ")}
          fill="none"
          stroke={colour.clay}
          strokeWidth={12}
          strokeLinecap="round"
        />
      )}
    </svg>
  );
}

export function Pattern(props: { id: string; pattern: ChartPattern; ink: string }) {
  const { pattern } = props;
  return (
    <pattern id={props.id} width={pattern.size} height={pattern.size} patternUnits="userSpaceOnUse">
      <path
        d={pattern.path}
        fill="none"
        stroke={props.ink}
        strokeWidth={pattern.line}
        strokeLinecap="round"
      />
    </pattern>
  );
}
