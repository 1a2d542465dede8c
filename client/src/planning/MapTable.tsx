import type { WeekOfMap } from "../api/types";
import { Small } from "../controls/layout";
import { Table } from "../controls/DataTable";
import { say } from "../words/say";

/** The twelve-week map beside what was earned: it proposes, clean work grants. */
export function MapTable({ map }: { map: WeekOfMap }) {
  return (
    <section aria-label={say("planning.twelve-week-map")}>
      <h3>{say("planning.twelve-week-map-week-week", { week: map.week, stage: map.stage })}</h3>
      <Small>{say("planning.a-calendar-may-propose-a")}</Small>
      <Table>
        <thead>
          <tr>
            <th scope="col">{say("planning.ladder")}</th>
            <th scope="col">{say("planning.the-map")}</th>
            <th scope="col">{say("planning.earned")}</th>
          </tr>
        </thead>
        <tbody>
          {map.lines.map((line) => (
            <tr key={line.ladderName}>
              <th scope="row">{line.ladderName}</th>
              <td>{line.proposed}</td>
              <td>
                {line.earned ?? say("planning.not-screened")}
                {line.earned && line.ahead && ` ${say("planning.not-yet")}`}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </section>
  );
}
