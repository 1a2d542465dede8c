import { Link } from "react-router";
import styled from "styled-components";
import { findRung } from "../api/queries";
import type { CaptureEvent, Library, Performance, SessionItem } from "../api/types";
import { effective, type LiveTrialState } from "../capture/liveTrial";
import type { RecordEvent } from "../capture/useCapture";
import { Table } from "../controls/Table";
import { ShareBar } from "../controls/ShareBar";
import { Quiet, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { doseWords, seconds, totalReps } from "../controls/words";
import { EndPain } from "./EndPain";
import { sessionFold, type SessionFold } from "./sessionWork";
import { Term } from "../frame/Term";
import { say } from "../words/say";

const Clean = styled.td`
  font: 700 1.3125rem/1.2 ${({ theme }) => theme.font.display};
  white-space: nowrap;
`;

/** The end of a session: what was clean, against what was asked. */
export function Summary(props: {
  items: SessionItem[];
  performances: Performance[];
  trials: LiveTrialState[];
  events: CaptureEvent[];
  record: RecordEvent;
  painNow: number | null;
  library: Library;
  decide: string;
}) {
  const { performances, items, trials, library } = props;
  const asked = performances.reduce((sum, p) => sum + totalReps(p.prescribed), 0);
  const clean = performances.reduce((sum, p) => sum + (p.cleanReps ?? 0), 0);
  const fold = sessionFold(props.events, trials);
  const asked10 = effective(props.events).findLast((e) => e.kind === "session-pain-asked");
  const rises = risesOf(trials, library);
  const left = items.filter((i) => i.skipped);
  return (
    <Stack $gap={3}>
      <h1>{painHeading(fold.pain, props.painNow)}</h1>
      {rises.map((words) => (
        <p key={words}>
          <strong>{words}</strong>
        </p>
      ))}
      <EndPain
        asked={asked10?.kind === "session-pain-asked" ? asked10.value : null}
        since={trials.reduce<number | null>((last, t) => Math.max(last ?? 0, t.endedAt ?? 0), null)}
        record={props.record}
      />
      <h2>{say("visits.clean-of-asked-reps-clean", { clean, asked })}</h2>
      <p>
        <Quiet>
          {say("visits.session-done", {
            left:
              left.length > 0
                ? `${say("visits.left-out-left", { left: left.map((i) => findRung(props.library, i.item.rungId).rung.name.toLowerCase()).join(", ") })} `
                : "",
          })}
        </Quiet>
      </p>
      <Table>
        <thead>
          <tr>
            <th>{say("visits.exercise")}</th>
            <th>{say("visits.side")}</th>
            <th>
              <Term name="clean-work">{say("visits.clean")}</Term>
            </th>
            <th>{say("visits.asked")}</th>
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
        <Link to={props.decide}>{say("visits.go-to-decide")}</Link>
      </p>
    </Stack>
  );
}

/** Pain first, whatever was clean. */
export function painHeading(pain: SessionFold["pain"], painNow: number | null) {
  if (pain === null || pain.peak === null) return say("visits.pain-was-not-told-in");
  const end = pain.end === null ? "" : say("visits.end-at-the-end", { end: pain.end });
  const rose = painNow !== null && pain.peak > painNow;
  return rose
    ? say("visits.pain-rose-from-painnow-to", { painNow, peak: pain.peak, end })
    : say("visits.pain-did-not-rise-at", { peak: pain.peak, end });
}

/** Where pain rose by two or more, exercise by exercise. */
export function risesOf(trials: LiveTrialState[], library: Library) {
  const byItem = new Map<string, { rung: string; from: number; to: number }>();
  for (const t of trials) {
    const most = Math.max(t.pain.peak ?? -1, t.pain.after ?? -1);
    if (t.pain.before === null || most - t.pain.before < 2) continue;
    const key = t.planItemId ?? t.trialId;
    const known = byItem.get(key);
    if (!known || most > known.to) byItem.set(key, { rung: t.rungId, from: t.pain.before, to: most });
  }
  return [...byItem.values()].map((r) =>
    say("visits.rung-pain-rose-from-from", {
      rung: findRung(library, r.rung).rung.name,
      from: r.from,
      to: r.to,
    }),
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
            <Quiet>{say("visits.eased-eased-made-easier", { eased })}</Quiet>
          </>
        )}
      </td>
      <td>{p.side === "both" ? <Quiet>–</Quiet> : <SideTag side={p.side} />}</td>
      <Clean>
        {p.cleanReps ?? 0}
        {(p.cleanSeconds ?? 0) > 0 && (
          <Quiet style={{ fontSize: "0.9375rem" }}> · {seconds(p.cleanSeconds ?? 0)}</Quiet>
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
