import { AxisBottom, AxisLeft } from "@visx/axis";
import { scaleLinear } from "@visx/scale";
import { useEffect, useRef, useState } from "react";
import styled, { useTheme } from "styled-components";
import type { TraceView } from "../api/types";

/** A stretch of a trace; where nothing was read from it, its reading is empty. */
export type Course = Pick<TraceView, "setup" | "from" | "shown" | "shapes"> & {
  reading: Pick<TraceView["reading"], "neutral" | "losses" | "reps">;
};

/** Something that happened at a moment of the trace, seconds from its start. */
export interface Moment {
  at: number;
  words: string;
  /** Told by an instrument; else seen. */
  told: boolean;
}

/** Before it is measured, and where nothing can be. */
const usualWidth = 1240;
const lane = 118;
const edge = { left: 44, right: 12, top: 26, bottom: 26 };

interface Shown {
  view: Course;
  marks: Moment[];
  /** What it shows, for who does not see it. */
  label: string;
  /** A moment at the axis, in words. */
  tick: (seconds: number) => string;
  /** None: a tap does nothing. */
  onPick?: (second: number) => void;
}

/** A tap is one way of two: who cannot tap types the second beside it. */
const Box = styled.div``;

/** The course of every channel with its band, what was lost, the reps, and what was marked. */
export function TraceChart(props: Shown) {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(usualWidth);
  useEffect(() => {
    if (!box.current || typeof ResizeObserver === "undefined") return;
    const observer = new ResizeObserver(([entry]) => setWidth(entry?.contentRect.width || usualWidth));
    observer.observe(box.current);
    return () => observer.disconnect();
  }, []);
  return (
    <Box
      ref={box}
      style={{ cursor: props.onPick ? "crosshair" : undefined }}
      onClick={(e) => {
        const left = box.current!.getBoundingClientRect().left;
        const { from, shown } = props.view;
        const share = (e.clientX - left - edge.left) / (width - edge.left - edge.right);
        if (share >= 0 && share <= 1) props.onPick?.(from + share * shown);
      }}
    >
      <Lanes {...props} width={width} />
    </Box>
  );
}

function Lanes({ view, marks, width, label, tick: tickWords }: Shown & { width: number }) {
  const { colour, font } = useTheme();
  const { setup, reading } = view;
  const to = view.from + view.shown;
  const x = scaleLinear({ domain: [view.from, to], range: [edge.left, width - edge.right] });
  const height = edge.top + lane * setup.channels.length + edge.bottom;
  const tick = { fill: colour.grey, fontFamily: font.text, fontSize: "0.8125rem" };
  const clipped = (at: number) => Math.max(view.from, Math.min(to, at));
  const span = (from: number, until: number | null) => {
    const left = x(clipped(from));
    return { x: left, width: Math.max(0, x(clipped(until ?? Infinity)) - left) };
  };
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      style={{ display: "block" }}
      role="img"
      aria-label={label}
    >
      <defs>
        <clipPath id="trace-area">
          <rect x={edge.left} y={0} width={width - edge.left - edge.right} height={height} />
        </clipPath>
      </defs>
      {setup.channels.map((channel, i) => {
        const shape = view.shapes[i]!;
        const level = reading.neutral?.levels[i] ?? middleOf(shape.low, shape.high);
        const top = edge.top + i * lane;
        const reach = Math.max(
          1.6 * channel.band,
          ...shape.high.map((v) => Math.abs((v ?? level) - level) * 1.05),
          ...shape.low.map((v) => Math.abs((v ?? level) - level) * 1.05),
        );
        const y = scaleLinear({ domain: [level - reach, level + reach], range: [top + lane - 8, top + 8] });
        const bandTop = y(level + channel.band);
        return (
          <g key={channel.channel}>
            <rect
              x={edge.left}
              y={top}
              width={width - edge.left - edge.right}
              height={lane}
              fill={colour.sheet}
            />
            {reading.neutral && (
              <rect
                x={edge.left}
                y={bandTop}
                width={width - edge.left - edge.right}
                height={y(level - channel.band) - bandTop}
                fill={colour.wash}
              />
            )}
            {reading.losses
              .filter((l) => l.channel === channel.channel)
              .map((l) => (
                <rect
                  key={l.onset}
                  {...span(l.onset, l.end)}
                  y={top}
                  height={lane}
                  fill={colour.clay}
                  opacity={0.22}
                />
              ))}
            <line x1={edge.left} x2={width - edge.right} y1={y(level)} y2={y(level)} stroke={colour.sand} />
            <path
              d={pathOf(shape.low, shape.high, x, y, view.from, view.shown)}
              fill="none"
              stroke={colour.ink}
              strokeWidth={1.6}
              clipPath="url(#trace-area)"
            />
            <AxisLeft
              left={edge.left}
              scale={y}
              numTicks={4}
              stroke={colour.rule}
              tickStroke={colour.rule}
              tickLabelProps={{ ...tick, textAnchor: "end", dx: -2, dy: 4 }}
            />
            <text
              x={edge.left + 8}
              y={top + 18}
              fontFamily={font.text}
              fontSize={15}
              fontWeight={600}
              fill={colour.ink}
            >
              {channel.name}, {channel.unit}
            </text>
            <line x1={0} x2={width} y1={top + lane} y2={top + lane} stroke={colour.rule} />
          </g>
        );
      })}
      {reading.reps.map(({ rep, rushed }) => (
        <rect
          key={rep.start}
          {...span(rep.start, rep.end)}
          y={height - edge.bottom - 7}
          height={6}
          fill={rushed ? colour.clay : colour.sea}
        />
      ))}
      {named(marks, x, view.from, to, width).map((m) => (
        <g key={`${m.at} ${m.words}`}>
          <line
            x1={x(m.at)}
            x2={x(m.at)}
            y1={16}
            y2={height - edge.bottom}
            stroke={colour.clay}
            strokeWidth={2}
            strokeDasharray={m.told ? undefined : "5 4"}
          />
          {m.name && (
            <text
              x={m.name.x}
              y={m.name.y}
              fontFamily={font.text}
              fontSize={14}
              fontWeight={600}
              fill={colour.clay}
            >
              {m.words}
            </text>
          )}
        </g>
      ))}
      <AxisBottom
        top={height - edge.bottom}
        scale={x}
        numTicks={Math.max(3, Math.round(width / 120))}
        stroke={colour.rule}
        tickStroke={colour.rule}
        tickFormat={(v) => tickWords(v.valueOf())}
        tickLabelProps={{ ...tick, textAnchor: "middle" }}
      />
    </svg>
  );
}

/** Of a letter of a name, pixels, at most. */
const letter = 7.6;

/** The marks of the stretch, each with the first of two rows its name finds room in; in neither it stays without. */
function named(marks: Moment[], x: (at: number) => number, from: number, to: number, width: number) {
  const ends = [0, 0];
  return marks
    .filter((m) => m.at >= from && m.at <= to)
    .sort((a, b) => a.at - b.at)
    .map((m) => {
      const long = m.words.length * letter;
      const left = Math.min(x(m.at) + 5, width - long);
      const row = ends.findIndex((end) => end <= left);
      if (row < 0) return { ...m, name: null };
      ends[row] = left + long;
      return { ...m, name: { x: left, y: row === 0 ? 12 : 24 } };
    });
}

/** Lowest and highest of each piece joined in turn: a line where a piece is one sample, a thick one where it is many. */
function pathOf(
  low: (number | null)[],
  high: (number | null)[],
  x: (at: number) => number,
  y: (value: number) => number,
  from: number,
  shown: number,
) {
  let path = "";
  let open = false;
  low.forEach((l, i) => {
    const h = high[i];
    if (l == null || h == null) {
      open = false;
      return;
    }
    const at = x(from + ((i + 0.5) * shown) / low.length).toFixed(1);
    path += `${open ? "L" : "M"}${at} ${y(l).toFixed(1)}`;
    if (h !== l) path += `L${at} ${y(h).toFixed(1)}`;
    open = true;
  });
  return path;
}

function middleOf(low: (number | null)[], high: (number | null)[]) {
  const all = [...low, ...high].filter((v): v is number => v !== null);
  return all.length === 0 ? 0 : (Math.min(...all) + Math.max(...all)) / 2;
}
