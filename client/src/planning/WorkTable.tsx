import { positionName, useLibrary } from "../api/queries";
import type { PlanWork } from "../api/types";
import { Small } from "../controls/layout";
import { Table } from "../controls/DataTable";
import { say, sayRich } from "../words/say";

const minutes = (seconds: number) => (seconds / 60).toFixed(1);

/** The arithmetic: time under control, minutes a week, work by direction, growth against the plan in force. */
export function WorkTable({ work }: { work: PlanWork }) {
  const { data: library } = useLibrary();
  const positionWords = (position: string) => (library ? positionName(library, position) : "");
  const asked = work.directions.filter((d) => d.minutes > 0 || (d.before ?? 0) > 0);
  const before = asked.some((d) => d.before !== null);
  return (
    <section aria-label={say("planning.the-weeks-work")}>
      <h3>{say("planning.the-week")}</h3>
      <p>
        {say("planning.minutes-under-control", {
          seconds: minutes(work.seconds),
          weekSeconds: minutes(work.weekSeconds),
          weekMinutes: work.weekMinutes.toFixed(0),
          growth:
            work.growth !== null
              ? ` ${say("planning.growth-growth2-against-the-plan", { growth: work.growth! >= 0 ? "+" : "−", growth2: Math.abs(work.growth! * 100).toFixed(0) })}`
              : "",
        })}
      </p>
      <Table>
        <caption>{say("planning.minutes-a-week-by-direction")}</caption>
        <thead>
          <tr>
            <th scope="col">{say("planning.direction")}</th>
            {before && <th scope="col">{say("planning.before")}</th>}
            <th scope="col">{say("planning.now")}</th>
          </tr>
        </thead>
        <tbody>
          {asked.map((d) => (
            <tr key={d.sector}>
              <th scope="row">{d.name}</th>
              {before && <td>{d.before?.toFixed(1) ?? "–"}</td>}
              <td>{d.minutes.toFixed(1)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      {work.bending && (
        <p>
          {sayRich("planning.bending-reps-times-and-seconds", {
            strong: (chunks) => <strong>{chunks}</strong>,
            reps: Math.round(work.bending.reps),
            seconds: Math.round(work.bending.seconds),
            repsMost: work.bending.repsMost,
            secondsMost: work.bending.secondsMost,
          })}
        </p>
      )}
      {(work.spells ?? []).map((spell) => (
        <p key={spell.position}>
          {sayRich("planning.position-seconds-min-a-session", {
            position: positionWords(spell.position),
            strong: (chunks) => <strong>{chunks}</strong>,
            seconds: minutes(spell.seconds),
            most: minutes(spell.most),
          })}
        </p>
      ))}
      <Small>{say("planning.loaded-and-plank-rungs-on")}</Small>
    </section>
  );
}
