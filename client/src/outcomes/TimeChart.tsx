import { AxisBottom, AxisLeft } from "@visx/axis";
import { scaleLinear, scaleTime } from "@visx/scale";
import { LinePath } from "@visx/shape";
import { useTheme } from "styled-components";
import { shortDayWords } from "../api/clinicTime";

export interface TimePoint {
  day: string;
  value: number;
}

export interface TimeLine {
  name: string;
  points: TimePoint[];
  look: "ink" | "left" | "right";
}

const width = 400;
const height = 190;
const edge = { left: 34, right: 76, top: 24, bottom: 26 };
/** Where more than one line ends, its name stands behind its number. */
const namedRight = 100;

/** Values over the visits on one scale, with their robust line where one is clear; each line named at its end. */
export function TimeChart(props: {
  label: string;
  lines: TimeLine[];
  min: number;
  max: number;
  /** Of the first line: its robust line on the first and the last day. */
  trend?: { first: number; last: number } | null;
  /** A level worth a dashed line, such as the target. */
  target?: number;
}) {
  const { colour, font } = useTheme();
  const days = props.lines.flatMap((l) => l.points.map((p) => Date.parse(p.day)));
  const end = width - (props.lines.length > 1 ? namedRight : edge.right);
  const from = Math.min(...days);
  const to = Math.max(...days, from + 24 * 3600e3);
  const x = scaleTime({ domain: [new Date(from), new Date(to)], range: [edge.left, end] });
  const y = scaleLinear({ domain: [props.min, props.max], range: [height - edge.bottom, edge.top] });
  const colourOf = { ink: colour.ink, left: colour.sea, right: colour.bark };
  const tick = { fill: colour.grey, fontFamily: font.text, fontSize: "0.8125rem" };
  // Two ends at about the same height would lie on each other.
  const ends = props.lines.map((l) => y(l.points.at(-1)?.value ?? 0));
  const close = ends.length === 2 && Math.abs(ends[0]! - ends[1]!) < 18;
  const nudge = (i: number) => (!close ? 0 : (i === 0) === ends[0]! <= ends[1]! ? -9 : 9);
  const place = (p: TimePoint) => ({ x: x(new Date(p.day)), y: y(p.value) });
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      role="img"
      aria-label={props.label}
      style={{ display: "block" }}
    >
      <AxisLeft
        left={edge.left}
        scale={y}
        numTicks={4}
        stroke={colour.rule}
        tickStroke={colour.rule}
        tickLabelProps={{ ...tick, textAnchor: "end", dx: -2, dy: 4 }}
      />
      <AxisBottom
        top={height - edge.bottom}
        scale={x}
        numTicks={3}
        stroke={colour.rule}
        tickStroke={colour.rule}
        tickFormat={(d) => shortDayWords(new Date(d.valueOf()).toISOString().slice(0, 10))}
        tickLabelProps={{ ...tick, textAnchor: "middle" }}
      />
      {props.target !== undefined && (
        <line
          x1={edge.left}
          x2={end}
          y1={y(props.target)}
          y2={y(props.target)}
          stroke={colour.slate}
          strokeDasharray="2 5"
        />
      )}
      {props.trend && (
        <line
          x1={x(new Date(from))}
          x2={x(new Date(to))}
          y1={y(props.trend.first)}
          y2={y(props.trend.last)}
          stroke={colour.clay}
          strokeWidth={2}
          strokeDasharray="7 4"
        />
      )}
      {props.lines.map((line, i) => {
        const last = line.points.at(-1);
        return (
          <g key={line.name}>
            <LinePath
              data={line.points}
              x={(p) => place(p).x}
              y={(p) => place(p).y}
              stroke={colourOf[line.look]}
              strokeWidth={2.5}
            />
            {line.points.map((p) => (
              <circle key={p.day} cx={place(p).x} cy={place(p).y} r={4.5} fill={colourOf[line.look]} />
            ))}
            {last && (
              <text
                x={place(last).x + 10}
                y={place(last).y + 5 + nudge(i)}
                fill={colourOf[line.look]}
                fontFamily={font.display}
                fontWeight={700}
                fontSize={16}
              >
                {last.value.toLocaleString("en-GB", { maximumFractionDigits: 1 })}
                {props.lines.length > 1 && ` ${line.name}`}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}
