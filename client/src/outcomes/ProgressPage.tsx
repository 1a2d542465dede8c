import { useQuery } from "@tanstack/react-query";
import { Disclosure, DisclosurePanel } from "react-aria-components";
import { Link } from "react-router";
import styled from "styled-components";
import { api, got } from "../api/client";
import { keys, useLibrary } from "../api/queries";
import type { ActivitySeries, OutcomeSeries, OutcomesView, SessionPain } from "../api/types";
import { Button } from "../controls/Button";
import { Table, Wide } from "../controls/Table";
import { Columns, Empty, ProblemNote, Quiet, Small, Stack } from "../controls/layout";
import { dayWords } from "../api/clinicTime";
import { useVisit } from "../frame/useVisit";
import { Answers } from "./Answers";
import { TimeChart } from "./TimeChart";
import { WeekBars } from "./WeekBars";

const Charts = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(330px, 1fr));
  gap: ${({ theme }) => theme.space(6)};
`;

const Weeks = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
  gap: ${({ theme }) => theme.space(5)};
`;

const Verdict = styled.strong`
  font: 700 20px/1.2 ${({ theme }) => theme.font.display};
`;

const places = 1;
const number = (value: number) => value.toLocaleString("en-GB", { maximumFractionDigits: places });

/** How the client does over time: few pictures, in words first, each with its table. */
export function ProgressPage() {
  const { episode, visitId } = useVisit();
  const { data: library } = useLibrary();
  const { data, error } = useQuery({
    queryKey: keys.outcomes(visitId),
    queryFn: () => got(api.GET("/api/visits/{visitId}/outcomes", { params: { path: { visitId } } })),
  });
  if (!episode || !library) return null;
  if (error) return <ProblemNote error={error} />;
  if (!data) return null;
  return (
    <Columns $at="minmax(0, 2.3fr) minmax(280px, 1fr)">
      <Stack $gap={5}>
        <h1>How it goes</h1>
        {data.series.length === 0 ? (
          <Empty title="Nothing told yet">
            <p>Pain is asked at the start of each visit; the rest is asked here, on the right.</p>
          </Empty>
        ) : (
          <Charts>
            {data.series.map((series) => (
              <Series key={series.measure.id} series={series} />
            ))}
            {data.sessions.length > 0 && <SessionsPain list={data.sessions} />}
            {data.sides.length > 1 && <Sides view={data} />}
          </Charts>
        )}
        {data.weeks.length > 0 && <CleanWork view={data} />}
        {data.activities.length > 0 && <Activities list={data.activities} />}
        {data.weeks.length > 0 && (
          <Link to={`/episodes/${episode.id}/visits/${visitId}/replay`}>
            What other policies would have decided
          </Link>
        )}
      </Stack>
      <Answers key={`${visitId} ${data.answersVersion}`} visitId={visitId} view={data} library={library} />
    </Columns>
  );
}

function Series({ series }: { series: OutcomeSeries }) {
  const { measure, points, trend } = series;
  const last = points.at(-1)!;
  return (
    <section aria-label={measure.name}>
      <h2>{measure.name}</h2>
      <p>
        <Verdict>{series.words}</Verdict>{" "}
        {points.length > 1 && (
          <Quiet>
            {number(points[0]!.value)} → {number(last.value)} {measure.unit}; a change counts from{" "}
            {number(series.meaningful)} on
          </Quiet>
        )}
      </p>
      <TimeChart
        label={`${measure.name}: ${points.map((p) => `${dayWords(p.day)} ${number(p.value)}`).join(", ")}`}
        lines={[{ name: measure.name, points, look: "ink" }]}
        min={measure.min}
        max={measure.max}
        trend={trend?.clear ? { first: trend.lineFirst, last: trend.lineLast } : null}
        target={measure.target}
      />
      <Small>
        {trend
          ? `Trend: ${trend.words} (${number(trend.perWeek)} a week${intervalWords(trend.low, trend.high)}).`
          : "A trend is told from four visits on."}
      </Small>
      <AsTable
        rows={points.map((p) => [dayWords(p.day), `${number(p.value)} ${measure.unit}`])}
        head={["Day", "Value"]}
      >
        <Small>
          {measure.means} {measure.source}
          {measure.memory && " (from memory)"}.
        </Small>
      </AsTable>
    </section>
  );
}

const intervalWords = (low: number | null | undefined, high: number | null | undefined) =>
  low == null || high == null ? "" : `, between ${number(low)} and ${number(high)}`;

/** The most pain in each session beside what it was before: what was clean says nothing of it. */
function SessionsPain({ list }: { list: SessionPain[] }) {
  const worst = list.reduce((a, b) => ((b.peak ?? 0) >= (a.peak ?? 0) ? b : a));
  const told = (pain: number | null) => (pain === null ? "not told" : String(pain));
  const points = (of: "start" | "peak") =>
    list.flatMap((s) => (s[of] === null ? [] : [{ day: s.date, value: s[of] }]));
  return (
    <section aria-label="Pain in the sessions">
      <h2>Pain in the sessions</h2>
      <p>
        <Verdict>
          at most {told(worst.peak)} on {dayWords(worst.date)}
        </Verdict>{" "}
        <Quiet>it was {told(worst.start)} before</Quiet>
      </p>
      {points("peak").length > 1 && (
        <TimeChart
          label={`Most pain in each session: ${list.map((s) => `${dayWords(s.date)} ${told(s.start)} before, ${told(s.peak)} at most`).join("; ")}`}
          lines={[{ name: "at most", look: "ink", points: points("peak") }]}
          min={0}
          max={10}
        />
      )}
      <AsTable
        head={["Session", "Before", "At most", "At the end"]}
        rows={list.map((s) => [dayWords(s.date), told(s.start), told(s.peak), told(s.end)])}
      />
    </section>
  );
}

function Sides({ view }: { view: OutcomesView }) {
  const last = view.sides.at(-1)!;
  const difference = last.differencePercent ?? 0;
  return (
    <section aria-label="Side against side">
      <h2>Side against side</h2>
      <p>
        <Verdict>
          {difference < view.even
            ? "even at the last visit"
            : `${Math.round(difference)} % apart, ${last.left < last.right ? "left" : "right"} behind`}
        </Verdict>
      </p>
      <TimeChart
        label={`Clean share of what was asked: ${view.sides.map((s) => `${dayWords(s.day)} left ${Math.round(s.left * 100)} %, right ${Math.round(s.right * 100)} %`).join("; ")}`}
        lines={(["left", "right"] as const).map((side) => ({
          name: side,
          look: side,
          points: view.sides.map((s) => ({ day: s.day, value: Math.round(s[side] * 100) })),
        }))}
        min={0}
        max={100}
      />
      <Small>
        Percent of the reps asked for that were clean, two-sided exercises.{" "}
        {view.sideTrend ? `The difference: ${view.sideTrend.words}.` : ""}
      </Small>
      <AsTable
        head={["Day", "Left", "Right", "Difference"]}
        rows={view.sides.map((s) => [
          dayWords(s.day),
          `${Math.round(s.left * 100)} %`,
          `${Math.round(s.right * 100)} %`,
          `${Math.round(s.differencePercent ?? 0)} %`,
        ])}
      />
    </section>
  );
}

const directions = [
  { name: "Against arching", sectors: ["front"] },
  { name: "Against rounding", sectors: ["back"] },
  { name: "Side-bending, left · right", sectors: ["side-left", "side-right"] },
  { name: "Turning, left · right", sectors: ["twist-left", "twist-right"] },
  { name: "Level pelvis, left · right", sectors: ["pelvis-left", "pelvis-right"] },
];

function CleanWork({ view }: { view: OutcomesView }) {
  const minutes = (w: OutcomesView["weeks"][number], s: string) =>
    (w.directions[s as keyof typeof w.directions] ?? 0) / 60;
  const most = Math.max(
    0.1,
    ...view.weeks.flatMap((w) => directions.flatMap((d) => d.sectors.map((s) => minutes(w, s)))),
  );
  return (
    <section aria-label="Clean work a week">
      <h2>Clean work a week</h2>
      <Small>
        Minutes at the visits before the trunk gave way, counted by how much each exercise asks for the
        direction. All on one scale; weeks of the episode below.
      </Small>
      <Weeks>
        {directions.map((d) => (
          <WeekBars key={d.name} name={d.name} weeks={view.weeks} sectors={d.sectors} most={most} />
        ))}
      </Weeks>
      <AsTable
        head={["Week", "All, min", ...directions.map((d) => d.name)]}
        rows={view.weeks.map((w) => [
          String(w.week),
          number(w.seconds / 60),
          ...directions.map((d) => d.sectors.map((s) => number(minutes(w, s))).join(" · ")),
        ])}
      />
    </section>
  );
}

function Activities({ list }: { list: ActivitySeries[] }) {
  const words = { better: "better", worse: "worse", "no-clear-change": "no clear change" } as const;
  return (
    <section aria-label="Activities the client named">
      <h2>Activities the client named</h2>
      <Table>
        <thead>
          <tr>
            <th>Activity</th>
            <th>First</th>
            <th>Last</th>
            <th>Change of 3 or more counts</th>
          </tr>
        </thead>
        <tbody>
          {list.map((a) => (
            <tr key={a.name}>
              <td>{a.name}</td>
              <td>{a.points[0]?.value}</td>
              <td>{a.points.at(-1)?.value}</td>
              <td>{a.points.length > 1 ? words[a.verdict] : "asked once"}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </section>
  );
}

function AsTable(props: { head: string[]; rows: string[][]; children?: React.ReactNode }) {
  return (
    <Disclosure>
      <Button $quiet $small slot="trigger">
        As a table
      </Button>
      <DisclosurePanel>
        <Wide label={props.head.join(", ")}>
          <Table>
            <thead>
              <tr>
                {props.head.map((h) => (
                  <th key={h}>{h}</th>
                ))}
              </tr>
            </thead>
            <tbody>
              {props.rows.map((row) => (
                <tr key={row.join()}>
                  {row.map((cell, i) => (
                    <td key={i}>{cell}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </Table>
        </Wide>
        {props.children}
      </DisclosurePanel>
    </Disclosure>
  );
}
