import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { api, got } from "../api/client";
import { findRung, keys, useLibrary } from "../api/queries";
import type { Decision, Library, ReplayView } from "../api/types";
import { Checkbox } from "../controls/fields";
import { Empty, ProblemNote, Quiet, Small, Stack } from "../controls/layout";
import { Wide } from "../controls/Table";
import { dayWords } from "../api/clinicTime";
import { outcomeWords } from "../controls/words";
import { useVisit } from "../frame/useVisit";
import { DecisionMark } from "./DecisionMark";
import { differs, replayLines, type ReplayedVisit } from "./replay";
import { useRuleName } from "./useRuleName";
import { say, sayRich } from "../words/say";

const Table = styled.table`
  border-collapse: collapse;
  th,
  td {
    padding: ${({ theme }) => theme.space(2)} ${({ theme }) => theme.space(3)};
    border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
    text-align: start;
    vertical-align: top;
  }
  tbody th {
    font-weight: 500;
  }
  thead th {
    max-width: 150px;
  }
  .visit th {
    padding-top: ${({ theme }) => theme.space(4)};
    font: 700 1.1875rem/1.2 ${({ theme }) => theme.font.display};
    border-bottom: 2px solid ${({ theme }) => theme.colour.ink};
  }
  .own {
    background: ${({ theme }) => theme.colour.wash};
  }
`;

const Mark = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  svg {
    flex: none;
    width: 20px;
    height: 20px;
  }
`;

/** A course under every policy: the same work, other rules, side by side. */
export function ReplayPage() {
  const { episode, visitId } = useVisit();
  const { data: library } = useLibrary();
  const id = episode?.id ?? "";
  const [all, setAll] = useState(false);
  const { data, error } = useQuery({
    queryKey: keys.replay(id),
    queryFn: () => got(api.GET("/api/episodes/{id}/replay", { params: { path: { id } } })),
    enabled: id !== "",
  });
  if (!episode || !library) return null;
  if (error) return <ProblemNote error={error} />;
  if (!data) return null;
  if (data.visits.length === 0) {
    return (
      <Empty title={say("progression.nothing-to-replay-yet")}>
        <p>{say("progression.after-the-first-session-this")}</p>
        <Link to={`/episodes/${id}/visits/${visitId}/session`}>{say("progression.go-to-the-session")}</Link>
      </Empty>
    );
  }
  const apart = data.visits.filter((visit) => replayLines(visit, data).some(differs)).length;
  return (
    <Stack $gap={3}>
      <h1>{say("progression.what-each-policy-would-have")}</h1>
      <Small>{say("progression.the-same-work-and-answers")}</Small>
      <p>{agreeWords(apart, data.visits.length)}</p>
      <Checkbox selected={all} onChange={setAll}>
        {say("progression.show-the-lines-where-all")}
      </Checkbox>
      {(all || apart > 0) && (
        <Wide label={say("progression.decisions-by-visit-and-policy")}>
          <Table>
            <thead>
              <tr>
                <th>{say("progression.exercise-and-side")}</th>
                <th>{say("progression.chosen")}</th>
                {data.policies.map((p) => (
                  <th key={p.id} className={p.inForce ? "own" : undefined}>
                    {p.name}
                    {p.inForce && (
                      <>
                        <br />
                        <Quiet>{say("progression.in-force")}</Quiet>
                      </>
                    )}
                  </th>
                ))}
              </tr>
            </thead>
            {data.visits.map((visit) => (
              <Visit key={visit.visit} visit={visit} view={data} library={library} all={all} />
            ))}
          </Table>
        </Wide>
      )}
    </Stack>
  );
}

const agreeWords = (apart: number, visits: number) =>
  apart === 0
    ? say("progression.at-all-visits-visits-every", { visits })
    : say("progression.at-apart-of-visits-visits", { apart, visits });

function Visit(props: { visit: ReplayedVisit; view: ReplayView; library: Library; all: boolean }) {
  const { visit, view, library } = props;
  const shown = replayLines(visit, view).filter((line) => props.all || differs(line));
  if (shown.length === 0) return null;
  return (
    <tbody>
      <tr className="visit">
        <th colSpan={2 + view.policies.length} scope="rowgroup">
          {sayRich("progression.visit-visit-date", {
            visit: visit.visit,
            date: dayWords(visit.date),
            quiet: (chunks) => <Quiet>{chunks}</Quiet>,
          })}
        </th>
      </tr>
      {shown.map(({ line, mine, theirs }) => (
        <tr key={line.planItemId + line.side}>
          <th scope="row">
            {nameOf(visit, line, library)} {line.side !== "both" && <Quiet>{line.side}</Quiet>}
          </th>
          <td>{mine ? <What decision={mine} /> : <Quiet>{say("progression.not-decided")}</Quiet>}</td>
          {view.policies.map((p, i) => {
            const d = theirs[i];
            return (
              <td key={p.id} className={p.inForce ? "own" : undefined}>
                {d &&
                  (mine?.outcome === d.outcome ? (
                    <Quiet>{say("progression.the-same")}</Quiet>
                  ) : (
                    <What decision={d} rule />
                  ))}
              </td>
            );
          })}
        </tr>
      ))}
    </tbody>
  );
}

/** The rung the exercise was on: the one a decision to stay keeps, else the one it moves to. */
function nameOf(visit: ReplayedVisit, line: Decision, library: Library) {
  const stays = visit.policies
    .flatMap((p) => p.decisions)
    .find((d) => d.planItemId === line.planItemId && ["stay", "add", "ease", "stop"].includes(d.outcome));
  return findRung(library, (stays ?? line).rungId).rung.name;
}

function What(props: { decision: Decision; rule?: boolean }) {
  const ruleName = useRuleName();
  return (
    <Mark title={props.decision.evidence.join(" ")}>
      <DecisionMark outcome={props.decision.outcome} />
      <span>
        {outcomeWords[props.decision.outcome]}
        {props.rule && (
          <>
            <br />
            <Quiet>{ruleName(props.decision.ruleId)}</Quiet>
          </>
        )}
      </span>
    </Mark>
  );
}
