import { useLibrary } from "../api/queries";
import type { PlanWork } from "../api/types";
import { Small } from "../controls/layout";
import { capital } from "../controls/words";
import { Table } from "../controls/DataTable";

const minutes = (seconds: number) => (seconds / 60).toFixed(1);

/** The arithmetic: time under control, minutes a week, work by direction, growth against the plan in force. */
export function WorkTable({ work }: { work: PlanWork }) {
  const { data: library } = useLibrary();
  const positionWords = (position: string) =>
    library?.positions.find((p) => p.id === position)?.name ?? capital(position.replaceAll("-", " "));
  const asked = work.directions.filter((d) => d.minutes > 0 || (d.before ?? 0) > 0);
  const before = asked.some((d) => d.before !== null);
  return (
    <section aria-label="The week's work">
      <h3>The week</h3>
      <p>
        {minutes(work.seconds)} min under control a session, {minutes(work.weekSeconds)} a week; with rests{" "}
        {work.weekMinutes.toFixed(0)} min a week.
        {work.growth !== null &&
          ` ${work.growth! >= 0 ? "+" : "−"}${Math.abs(work.growth! * 100).toFixed(0)} % against the plan in force.`}
      </p>
      <Table>
        <caption>Minutes a week by direction, each counted by how much the exercise asks for it</caption>
        <thead>
          <tr>
            <th scope="col">direction</th>
            {before && <th scope="col">before</th>}
            <th scope="col">now</th>
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
          <strong>Bending:</strong> {Math.round(work.bending.reps)} times and{" "}
          {Math.round(work.bending.seconds)} s bent a week, of {work.bending.repsMost} times and{" "}
          {work.bending.secondsMost} s the policy lets through.
        </p>
      )}
      {(work.spells ?? []).map((spell) => (
        <p key={spell.position}>
          <strong>{positionWords(spell.position)}:</strong> {minutes(spell.seconds)} min a session, of{" "}
          {minutes(spell.most)} that a precaution lets through.
        </p>
      ))}
      <Small>Loaded and plank rungs on fewer days, with days between.</Small>
    </section>
  );
}
