import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { findRung, useFindings, useLibrary } from "../api/queries";
import type { FindingsView, Library, ScreenFindings } from "../api/types";
import { Columns, Empty, ProblemNote, Quiet, Row, Ruled, Small, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { dayWords } from "../api/clinicTime";
import { capital } from "../controls/words";
import { Closed, isHeld } from "../frame/Closed";
import { useVisit } from "../frame/useVisit";
import { ChangesTable } from "./ChangesTable";
import { AbilityTable } from "./AbilityTable";
import { ControlTable } from "./ControlTable";
import { LaddersBoard } from "./LaddersBoard";
import { Table } from "../controls/DataTable";
import { Measures } from "./Measures";
import { TaskTable } from "./TaskTable";
import { TrunkRing } from "./TrunkRing";
import { say } from "../words/say";

export function FindingsPage() {
  const { episode, visitId } = useVisit();
  const { data: library } = useLibrary();
  const [against, setAgainst] = useState<string | null>(null);
  const { data, error } = useFindings(visitId, against);
  if (!episode || !library) return null;
  if (isHeld(episode) && !episode.dischargedOn) return <Closed episode={episode} visitId={visitId} />;
  if (error) return <ProblemNote error={error} />;
  if (!data) return null;
  if (!data.findings || data.findings.trialCount === 0) {
    return (
      <Empty title={say("findings.nothing-screened-yet")}>
        <p>{say("findings.screen-a-ladder-on-both")}</p>
        <Link to={`/episodes/${episode.id}/visits/${visitId}/screen`}>
          {say("findings.go-to-the-screen")}
        </Link>
      </Empty>
    );
  }
  return (
    <Findings
      findings={data.findings}
      view={data}
      library={library}
      onAgainst={setAgainst}
      visitLink={`/episodes/${episode.id}/visits/${visitId}`}
    />
  );
}

const Next = styled(Link)`
  display: inline-flex;
  align-items: center;
  min-height: ${({ theme }) => theme.target};
  padding: 0 ${({ theme }) => theme.space(6)};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme }) => theme.colour.ink};
  color: ${({ theme }) => theme.colour.sheet};
  font-weight: 500;
  text-decoration: none;
`;

function Findings(props: {
  findings: ScreenFindings;
  view: FindingsView;
  library: Library;
  onAgainst: (visitId: string) => void;
  visitLink: string;
}) {
  const { findings, view, library } = props;
  const notKnown = findings.control.filter((c) => c.percent === null);
  const uneven = findings.tasks.filter((t) => t.weaker);
  return (
    <Stack $gap={6}>
      <Columns $at="minmax(300px, 5fr) 8fr">
        <Stack $gap={3}>
          <h1>{findings.sentence}</h1>
          <p>
            <Quiet>
              {say("findings.trials-of-them-cued", {
                trials: findings.trialCount,
                cued: findings.cuedCount,
                day: view.screenedAt ? ` · ${dayWords(view.screenedAt)}` : "",
                again: view.rescreenDue
                  ? ` ${say("findings.again-from-rescreendue", { rescreenDue: dayWords(view.rescreenDue) })}`
                  : "",
              })}
            </Quiet>
          </p>
          <TrunkRing
            abilities={findings.abilities?.all ?? []}
            earlier={view.earlier?.abilities?.all ?? []}
            weakest={findings.weakLink?.sector ?? null}
          />
          <Small>
            {say("findings.ring-legend", {
              before: view.earlier ? ` ${say("findings.thin-outline-the-screen-before")}` : "",
            })}
          </Small>
        </Stack>
        <Stack $gap={5}>
          <Columns $at="1fr 1fr 1fr" style={{ gap: 20 }}>
            <div>
              <Small>{say("findings.what-gives-way")}</Small>
              {findings.gaveWay.slice(0, 3).map((g) => (
                <p key={g.trialId} style={{ marginBottom: 6 }}>
                  <strong>{capital(g.words)}</strong>
                  <br />
                  <Quiet>{findRung(library, g.rungId).rung.name}</Quiet>
                </p>
              ))}
              {findings.gaveWay.length === 0 && <p>{say("findings.nothing-gave-way")}</p>}
              {findings.weakLink?.typeWords && <p>{capital(findings.weakLink.typeWords)}</p>}
            </div>
            <div>
              <Small>{say("findings.side-difference")}</Small>
              {uneven.map((t) => (
                <p key={`${t.taskId} ${t.variant} ${t.rungId}`} style={{ marginBottom: 6 }}>
                  <strong>
                    {t.name ?? findRung(library, t.rungId).rung.name}: <SideTag side={t.weaker!} />{" "}
                    {say("findings.differencepercent-behind", {
                      differencePercent: Math.round(t.differencePercent ?? 0),
                    })}
                  </strong>
                </p>
              ))}
              {uneven.length === 0 && <p>{say("findings.even-wherever-both-sides-were")}</p>}
              <Quiet>{say("findings.what-chance-alone-would-show")}</Quiet>
            </div>
            <div>
              <Small>{say("findings.not-known-yet")}</Small>
              {notKnown.map((c) => (
                <p key={c.sector}>
                  <strong>{capital(c.name)}</strong>
                  {c.telling && (
                    <>
                      <br />
                      <Quiet>
                        {say("findings.telling-would-tell", { telling: c.telling.toLowerCase() })}
                      </Quiet>
                    </>
                  )}
                </p>
              ))}
              {notKnown.length === 0 && <p>{say("findings.every-direction-was-seen")}</p>}
            </div>
          </Columns>
          <Ruled>
            <LaddersBoard
              ladders={library.ladders.filter((l) =>
                findings.entries.some((e) => e.ladderId === l.id && (l.screened || e.trialIds.length > 0)),
              )}
              entries={findings.entries}
              earlier={view.earlier?.entries ?? []}
              forbidden={view.forbidden}
            />
          </Ruled>
          <Row $gap={5}>
            <Next to={`${props.visitLink}/plan`}>{say("findings.make-a-plan-from-this")}</Next>
            <Quiet>
              <SideTag side="left" /> {say("findings.peg-peg")} <SideTag side="right" />
              {say("findings.where-each-side-enters", {
                before: view.earlier ? say("findings.hollow-where-it-was-before") : "",
              })}
            </Quiet>
          </Row>
        </Stack>
      </Columns>
      <Tables {...props} />
    </Stack>
  );
}

function Tables(props: {
  findings: ScreenFindings;
  view: FindingsView;
  library: Library;
  onAgainst: (visitId: string) => void;
}) {
  const { findings, view, library } = props;
  return (
    <Stack $gap={5}>
      <ChangesTable view={view} onAgainst={props.onAgainst} />
      {findings.abilities && findings.abilities.all.length > 0 && (
        <Ruled>
          <AbilityTable abilities={findings.abilities} trials={view.trials} library={library} />
        </Ruled>
      )}
      <Ruled>
        <Columns>
          <ControlTable control={findings.control} trials={view.trials} library={library} />
          <section>
            <h2>{say("findings.entry-rungs")}</h2>
            <Table>
              <tbody>
                {findings.entries
                  .filter((e) => e.trialIds.length > 0)
                  .map((e) => (
                    <tr key={e.ladderId + e.side}>
                      <th scope="row">
                        {library.ladders.find((l) => l.id === e.ladderId)?.name} <SideTag side={e.side} />
                      </th>
                      <td>
                        {e.entryRungId ? findRung(library, e.entryRungId).rung.name : say("findings.none")}
                      </td>
                      <td>
                        {e.why}{" "}
                        <Quiet>{say("findings.trialids-trials", { trialIds: e.trialIds.length })}</Quiet>
                      </td>
                    </tr>
                  ))}
              </tbody>
            </Table>
          </section>
        </Columns>
      </Ruled>
      <Ruled>
        <TaskTable
          findings={findings}
          trials={view.trials}
          library={library}
          more={(trial) => <Measures trial={trial} visitId={view.screenVisitId ?? ""} />}
        />
      </Ruled>
    </Stack>
  );
}
