import { useQuery } from "@tanstack/react-query";
import { Disclosure, DisclosurePanel } from "react-aria-components";
import { Link } from "react-router";
import styled from "styled-components";
import { api, got } from "../api/client";
import { keys, useLibrary } from "../api/queries";
import type { ActivitySeries, OutcomeSeries, OutcomesView, SessionPain } from "../api/types";
import { Button } from "../controls/Button";
import { Table, Wide } from "../controls/Table";
import { Columns, Empty, Quiet, Small, Stack } from "../controls/layout";
import { dayWords } from "../api/clinicTime";
import { useVisit } from "../frame/useVisit";
import { Answers } from "./Answers";
import { Reached } from "./Reached";
import { TimeChart } from "./TimeChart";
import { WeekBars } from "./WeekBars";
import { Term } from "../frame/Term";
import { Waits } from "../frame/Waits";
import { say } from "../words/say";

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
  font: 700 1.25rem/1.2 ${({ theme }) => theme.font.display};
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
  if (!data) return <Waits error={error} />;
  return (
    <Columns $at="minmax(0, 2.3fr) minmax(280px, 1fr)">
      <Stack $gap={5}>
        <h1>{say("outcomes.how-it-goes")}</h1>
        <Reached episodeId={episode.id} library={library} />
        {data.series.length === 0 ? (
          <Empty title={say("outcomes.nothing-told-yet")}>
            <p>{say("outcomes.pain-is-asked-at-the")}</p>
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
            {say("outcomes.what-other-policies-would-have")}
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
            {say("outcomes.points-last-unit-a-change", {
              points: number(points[0]!.value),
              last: number(last.value),
              unit: measure.unit,
              meaningful: number(series.meaningful),
            })}
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
          ? say("outcomes.trend-trend-perweek-a-week", {
              trend: trend.words,
              perWeek: number(trend.perWeek),
              low: intervalWords(trend.low, trend.high),
            })
          : say("outcomes.a-trend-is-told-from")}
      </Small>
      <AsTable
        rows={points.map((p) => [dayWords(p.day), `${number(p.value)} ${measure.unit}`])}
        head={[say("outcomes.day"), say("outcomes.value")]}
      >
        <Small>
          {measure.means} {measure.source}
          {measure.memory && ` ${say("outcomes.from-memory")}`}.
        </Small>
      </AsTable>
    </section>
  );
}

const intervalWords = (low: number | null | undefined, high: number | null | undefined) =>
  low == null || high == null
    ? ""
    : say("outcomes.between-low-and-high", { low: number(low), high: number(high) });

/** The most pain in each session beside what it was before: what was clean says nothing of it. */
function SessionsPain({ list }: { list: SessionPain[] }) {
  const worst = list.reduce((a, b) => ((b.peak ?? 0) >= (a.peak ?? 0) ? b : a));
  const told = (pain: number | null) => (pain === null ? say("outcomes.not-told") : String(pain));
  const points = (of: "start" | "peak") =>
    list.flatMap((s) => (s[of] === null ? [] : [{ day: s.date, value: s[of] }]));
  return (
    <section aria-label={say("outcomes.pain-in-the-sessions")}>
      <h2>{say("outcomes.pain-in-the-sessions")}</h2>
      <p>
        <Verdict>
          {say("outcomes.at-most-peak-on-date", { peak: told(worst.peak), date: dayWords(worst.date) })}
        </Verdict>{" "}
        <Quiet>{say("outcomes.it-was-start-before", { start: told(worst.start) })}</Quiet>
      </p>
      {points("peak").length > 1 && (
        <TimeChart
          label={say("outcomes.most-pain-in-each-session", {
            list: list
              .map((s) =>
                say("outcomes.date-start-before-peak-at", {
                  date: dayWords(s.date),
                  start: told(s.start),
                  peak: told(s.peak),
                }),
              )
              .join("; "),
          })}
          lines={[{ name: say("outcomes.at-most"), look: "ink", points: points("peak") }]}
          min={0}
          max={10}
        />
      )}
      <AsTable
        head={[
          say("outcomes.session"),
          say("outcomes.before"),
          say("outcomes.at-most-2"),
          say("outcomes.at-the-end"),
        ]}
        rows={list.map((s) => [dayWords(s.date), told(s.start), told(s.peak), told(s.end)])}
      />
    </section>
  );
}

function Sides({ view }: { view: OutcomesView }) {
  const last = view.sides.at(-1)!;
  const difference = last.differencePercent ?? 0;
  return (
    <section aria-label={say("outcomes.side-against-side")}>
      <h2>{say("outcomes.side-against-side")}</h2>
      <p>
        <Verdict>
          {difference < view.even
            ? say("outcomes.even-at-the-last-visit")
            : say("outcomes.difference-apart-left-behind", {
                difference: Math.round(difference),
                left: last.left < last.right ? say("outcomes.left") : say("outcomes.right"),
              })}
        </Verdict>
      </p>
      <TimeChart
        label={say("outcomes.clean-share-of-what-was", {
          sides: view.sides
            .map((s) =>
              say("outcomes.day-left-left-right-right", {
                day: dayWords(s.day),
                left: Math.round(s.left * 100),
                right: Math.round(s.right * 100),
              }),
            )
            .join("; "),
        })}
        lines={(["left", "right"] as const).map((side) => ({
          name: side,
          look: side,
          points: view.sides.map((s) => ({ day: s.day, value: Math.round(s[side] * 100) })),
        }))}
        min={0}
        max={100}
      />
      <Small>
        {say("outcomes.percent-of-the-reps-asked", {
          sideTrend: view.sideTrend
            ? say("outcomes.the-difference-sidetrend", { sideTrend: view.sideTrend.words })
            : "",
        })}
      </Small>
      <AsTable
        head={[
          say("outcomes.day"),
          say("outcomes.left-2"),
          say("outcomes.right-2"),
          say("outcomes.difference"),
        ]}
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
  { name: say("outcomes.against-arching"), sectors: ["front"] },
  { name: say("outcomes.against-rounding"), sectors: ["back"] },
  { name: say("outcomes.side-bending-left-right"), sectors: ["side-left", "side-right"] },
  { name: say("outcomes.turning-left-right"), sectors: ["twist-left", "twist-right"] },
  { name: say("outcomes.level-pelvis-left-right"), sectors: ["pelvis-left", "pelvis-right"] },
];

function CleanWork({ view }: { view: OutcomesView }) {
  const minutes = (w: OutcomesView["weeks"][number], s: string) =>
    (w.directions[s as keyof typeof w.directions] ?? 0) / 60;
  const most = Math.max(
    0.1,
    ...view.weeks.flatMap((w) => directions.flatMap((d) => d.sectors.map((s) => minutes(w, s)))),
  );
  return (
    <section aria-label={say("outcomes.clean-work-a-week")}>
      <h2>
        <Term name="clean-work">{say("outcomes.clean-work-a-week")}</Term>
      </h2>
      <Small>{say("outcomes.minutes-at-the-visits-before")}</Small>
      <Weeks>
        {directions.map((d) => (
          <WeekBars key={d.name} name={d.name} weeks={view.weeks} sectors={d.sectors} most={most} />
        ))}
      </Weeks>
      <AsTable
        head={[say("outcomes.week"), say("outcomes.all-min"), ...directions.map((d) => d.name)]}
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
  const words = {
    better: say("outcomes.better"),
    worse: say("outcomes.worse"),
    "no-clear-change": say("outcomes.no-clear-change"),
  } as const;
  return (
    <section aria-label={say("outcomes.activities-the-client-named")}>
      <h2>{say("outcomes.activities-the-client-named")}</h2>
      <Table>
        <thead>
          <tr>
            <th>{say("outcomes.activity")}</th>
            <th>{say("outcomes.first")}</th>
            <th>{say("outcomes.last")}</th>
            <th>{say("outcomes.change-of-3-or-more")}</th>
          </tr>
        </thead>
        <tbody>
          {list.map((a) => (
            <tr key={a.name}>
              <td>{a.name}</td>
              <td>{a.points[0]?.value}</td>
              <td>{a.points.at(-1)?.value}</td>
              <td>{a.points.length > 1 ? words[a.verdict] : say("outcomes.asked-once")}</td>
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
        {say("outcomes.as-a-table")}
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
