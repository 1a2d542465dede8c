import type { WeekOfMap } from "../api/types";
import { Small } from "../controls/layout";
import { Table } from "../controls/DataTable";

/** The twelve-week map beside what was earned: it proposes, clean work grants. */
export function MapTable({ map }: { map: WeekOfMap }) {
  return (
    <section aria-label="Twelve-week map">
      <h3>
        Twelve-week map, week {map.week}: {map.stage}
      </h3>
      <Small>A calendar may propose a level; only clean work grants it.</Small>
      <Table>
        <thead>
          <tr>
            <th scope="col">ladder</th>
            <th scope="col">the map</th>
            <th scope="col">earned</th>
          </tr>
        </thead>
        <tbody>
          {map.lines.map((line) => (
            <tr key={line.ladderName}>
              <th scope="row">{line.ladderName}</th>
              <td>{line.proposed}</td>
              <td>
                {line.earned ?? "not screened"}
                {line.earned && line.ahead && " · not yet"}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </section>
  );
}
