import { useState } from "react";
import type { Change, FindingsView } from "../api/types";
import { Button } from "../controls/Button";
import { Choice } from "../controls/fields";
import { Quiet, Ruled, Row, Small } from "../controls/layout";
import { Source } from "../controls/Source";
import { SideTag } from "../controls/SideTag";
import { dayWords } from "../api/clinicTime";
import { Table } from "../controls/DataTable";
import { say } from "../words/say";

const verdictWords = {
  better: say("findings.better"),
  worse: say("findings.worse"),
  "no-clear-change": say("findings.no-clear-change"),
} as const;

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
    <Ruled aria-label={say("findings.against-an-earlier-screen")}>
      <h2>{say("findings.against-an-earlier-screen")}</h2>
      {earlier.length > 1 ? (
        <Choice
          label={say("findings.compared-with")}
          value={view.earlierVisitId}
          onChange={props.onAgainst}
          options={earlier.map((s) => ({
            value: s.visitId,
            label: say("findings.visit-number-at", { number: s.number, at: dayWords(s.at) }),
          }))}
        />
      ) : (
        <p>
          <Quiet>
            {say("findings.compared-with-visit", {
              visit: earlier[0]
                ? say("findings.visit-number-at", { number: earlier[0].number, at: dayWords(earlier[0].at) })
                : "",
            })}
          </Quiet>
        </p>
      )}
      {shown.length > 0 && <Rows changes={shown} />}
      {clear.length === 0 && <p>{say("findings.no-clear-change-in-anything")}</p>}
      {rest > 0 && (
        <Row>
          <Button $quiet $small aria-expanded={all} onPress={() => setAll(!all)}>
            {all ? say("findings.only-clear-changes") : say("findings.rest-with-no-clear-change", { rest })}
          </Button>
        </Row>
      )}
      <Small>{say("findings.a-change-counts-when-it")}</Small>
    </Ruled>
  );
}

const number = (value: number) => Number(value.toFixed(1));

function Rows({ changes }: { changes: Change[] }) {
  return (
    <Table>
      <thead>
        <tr>
          <th>{say("findings.what")}</th>
          <th>{say("findings.then")}</th>
          <th>{say("findings.now")}</th>
          <th>{say("findings.says")}</th>
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
                {say("findings.beyond-chance-from-smallest-unit", {
                  smallest: number(c.smallest),
                  unit: c.unit,
                })}
              </Quiet>{" "}
              <Source text={c.source} memory={false} />
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
