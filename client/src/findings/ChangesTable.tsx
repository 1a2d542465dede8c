import { useState } from "react";
import type { Change, FindingsView } from "../api/types";
import { Button } from "../controls/Button";
import { Choice } from "../controls/fields";
import { Quiet, Ruled, Row, Small } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { dayWords } from "../api/clinicTime";
import { Table } from "../controls/DataTable";

const verdictWords = { better: "better", worse: "worse", "no-clear-change": "no clear change" } as const;

/** Now and then: what differs by more than two measurements of the same thing would. */
export function ChangesTable(props: { view: FindingsView; onAgainst: (visitId: string) => void }) {
  const { view } = props;
  const [all, setAll] = useState(false);
  if (!view.earlierVisitId) return null;
  const earlier = view.screens.slice(0, -1);
  const clear = view.changes.filter((c) => c.verdict !== "no-clear-change");
  const shown = all ? view.changes : clear;
  const rest = view.changes.length - clear.length;
  return (
    <Ruled aria-label="Against an earlier screen">
      <h2>Against an earlier screen</h2>
      {earlier.length > 1 ? (
        <Choice
          label="Compared with"
          value={view.earlierVisitId}
          onChange={props.onAgainst}
          options={earlier.map((s) => ({ value: s.visitId, label: `visit ${s.number}, ${dayWords(s.at)}` }))}
        />
      ) : (
        <p>
          <Quiet>
            Compared with {earlier[0] && `visit ${earlier[0].number}, ${dayWords(earlier[0].at)}`}
          </Quiet>
        </p>
      )}
      {shown.length > 0 && <Rows changes={shown} />}
      {clear.length === 0 && <p>No clear change in anything seen both times.</p>}
      {rest > 0 && (
        <Row>
          <Button $quiet $small aria-expanded={all} onPress={() => setAll(!all)}>
            {all ? "Only clear changes" : `${rest} with no clear change`}
          </Button>
        </Row>
      )}
      <Small>A change counts when it is larger than chance would make it 19 times of 20.</Small>
    </Ruled>
  );
}

const number = (value: number) => Number(value.toFixed(1));

function Rows({ changes }: { changes: Change[] }) {
  return (
    <Table>
      <thead>
        <tr>
          <th>What</th>
          <th>Then</th>
          <th>Now</th>
          <th>Says</th>
        </tr>
      </thead>
      <tbody>
        {changes.map((c) => (
          <tr key={`${c.of} ${c.side} ${c.what}`}>
            <th scope="row">
              {c.what} {c.side !== "both" && <SideTag side={c.side} />}
            </th>
            <td>
              {number(c.before)} {c.unit}
            </td>
            <td>
              {number(c.now)} {c.unit}
            </td>
            <td>
              <strong>{verdictWords[c.verdict]}</strong>{" "}
              <Quiet>
                (beyond chance from {number(c.smallest)} {c.unit}; {c.source})
              </Quiet>
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
