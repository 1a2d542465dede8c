import { Link } from "react-router";
import styled from "styled-components";
import { findRung } from "../api/queries";
import type { Library, Performance, SessionItem } from "../api/types";
import type { LiveTrialState } from "../capture/liveTrial";
import { Table } from "../controls/Table";
import { ShareBar } from "../controls/ShareBar";
import { Quiet, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { doseWords, seconds, totalReps } from "../controls/words";

const Clean = styled.td`
  font: 700 21px/1.2 ${({ theme }) => theme.font.display};
  white-space: nowrap;
`;

/** The end of a session: what was clean, against what was asked. */
export function Summary(props: {
  items: SessionItem[];
  performances: Performance[];
  trials: LiveTrialState[];
  library: Library;
  decide: string;
}) {
  const { performances, items } = props;
  const asked = performances.reduce((sum, p) => sum + totalReps(p.prescribed), 0);
  const clean = performances.reduce((sum, p) => sum + (p.cleanReps ?? 0), 0);
  const pain = props.trials.flatMap((t) => (t.pain.after === null ? [] : [t.pain.after])).at(-1);
  const left = items.filter((i) => i.skipped);
  return (
    <Stack $gap={3}>
      <h1>
        {clean} of {asked} reps clean
      </h1>
      <p>
        <Quiet>
          {pain !== undefined && `Pain at the end ${pain}. `}
          {left.length > 0 &&
            `Left out: ${left.map((i) => findRung(props.library, i.item.rungId).rung.name.toLowerCase()).join(", ")}. `}
          Stored as it was marked; the proposals for each exercise and side are ready.
        </Quiet>
      </p>
      <Table>
        <thead>
          <tr>
            <th>Exercise</th>
            <th>Side</th>
            <th>Clean</th>
            <th>Asked</th>
            <th aria-hidden />
          </tr>
        </thead>
        <tbody>
          {performances.map((p) => (
            <Line key={p.planItemId + p.side} performance={p} library={props.library} />
          ))}
        </tbody>
      </Table>
      <p>
        <Link to={props.decide}>Go to Decide</Link>
      </p>
    </Stack>
  );
}

function Line(props: { performance: Performance; library: Library }) {
  const p = props.performance;
  const eased = p.sets.filter((s) => s.eased).length;
  const share = (p.cleanReps ?? 0) / totalReps(p.prescribed);
  return (
    <tr>
      <td>
        <strong>{findRung(props.library, p.rungId).rung.name}</strong>
        {eased > 0 && (
          <>
            <br />
            <Quiet>
              {eased} {eased === 1 ? "set" : "sets"} made easier
            </Quiet>
          </>
        )}
      </td>
      <td>{p.side === "both" ? <Quiet>–</Quiet> : <SideTag side={p.side} />}</td>
      <Clean>
        {p.cleanReps ?? 0}
        {(p.cleanSeconds ?? 0) > 0 && (
          <Quiet style={{ fontSize: 15 }}> · {seconds(p.cleanSeconds ?? 0)}</Quiet>
        )}
      </Clean>
      <td>
        {totalReps(p.prescribed)} · {doseWords(p.prescribed)}
      </td>
      <td aria-hidden>
        <ShareBar share={share} tone="sea" />
      </td>
    </tr>
  );
}
