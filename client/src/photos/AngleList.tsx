import type { PhotoAngle } from "../api/types";
import { Quiet, Small } from "../controls/layout";
import { Table } from "../controls/Table";
import { angleWords } from "../figure/spots";
import { say } from "../words/say";

/** Every angle that can be read, with what its sign means and how sure it is. */
export function AngleList({ angles }: { angles: PhotoAngle[] }) {
  if (angles.length === 0) return <Small>{say("photos.angles-show-as-soon-as")}</Small>;
  return (
    <Table aria-label={say("photos.angles")} aria-live="polite">
      <tbody>
        {angles.map((angle) => {
          const { name, value, words } = angleWords(angle);
          return (
            <tr key={angle.kind}>
              <th scope="row">{name}</th>
              <td style={{ whiteSpace: "nowrap" }}>
                <strong>{value}</strong>
                {angle.plusMinus != null && <Quiet> ± {angle.plusMinus.toFixed(0)}°</Quiet>}
              </td>
              <td>{words}</td>
            </tr>
          );
        })}
      </tbody>
    </Table>
  );
}
