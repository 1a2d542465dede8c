import { scaleBand, scaleLinear } from "@visx/scale";
import { Bar } from "@visx/shape";
import { useTheme } from "styled-components";
import type { CleanWeek } from "../api/types";
import { say } from "../words/say";

const width = 236;
const height = 120;

/** Clean minutes a week in one direction; of a direction with sides the left beside the right. */
export function WeekBars(props: { name: string; weeks: CleanWeek[]; sectors: string[]; most: number }) {
  const { colour, font } = useTheme();
  const x = scaleBand({ domain: props.weeks.map((w) => w.week), range: [0, width], padding: 0.25 });
  const y = scaleLinear({ domain: [0, props.most], range: [0, height - 34] });
  const sides = props.sectors.length;
  const looks = sides > 1 ? [colour.sea, colour.bark] : [colour.slate];
  const minutes = (w: CleanWeek, sector: string) =>
    (w.directions[sector as keyof typeof w.directions] ?? 0) / 60;
  const total = props.weeks.reduce((sum, w) => sum + props.sectors.reduce((s, k) => s + minutes(w, k), 0), 0);
  return (
    <figure style={{ margin: 0 }}>
      <figcaption style={{ fontWeight: 600 }}>{props.name}</figcaption>
      <svg
        viewBox={`0 0 ${width} ${height}`}
        width="100%"
        role="img"
        aria-label={say("outcomes.name-total-clean-minutes-in", {
          name: props.name,
          total: total.toFixed(1),
          weeks: props.weeks.length,
        })}
        style={{ display: "block" }}
      >
        <line x1={0} x2={width} y1={height - 20} y2={height - 20} stroke={colour.rule} />
        {props.weeks.map((w) => (
          <g key={w.week}>
            {props.sectors.map((sector, i) => {
              const tall = y(minutes(w, sector));
              return (
                <Bar
                  key={sector}
                  x={(x(w.week) ?? 0) + (i * x.bandwidth()) / sides}
                  y={height - 20 - tall}
                  width={x.bandwidth() / sides - (sides > 1 ? 1 : 0)}
                  height={tall}
                  fill={looks[i]}
                />
              );
            })}
            <text
              x={(x(w.week) ?? 0) + x.bandwidth() / 2}
              y={height - 5}
              textAnchor="middle"
              fontSize={12}
              fontFamily={font.text}
              fill={colour.grey}
            >
              {w.week}
            </text>
          </g>
        ))}
      </svg>
    </figure>
  );
}
