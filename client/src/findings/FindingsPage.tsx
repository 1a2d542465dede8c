import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { findRung, useFindings, useLibrary } from "../api/queries";
import type { FindingsView, Library, ScreenFindings } from "../api/types";
import { Button } from "../controls/Button";
import { Empty, Quiet, Row, Small, Stack } from "../controls/layout";
import { Places } from "../controls/Tabs";
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
import { TaskRows, mostTelling } from "./TaskRows";
import { TaskTable } from "./TaskTable";
import { TrunkRing } from "./TrunkRing";
import { Term } from "../frame/Term";
import { Waits } from "../frame/Waits";
import { say } from "../words/say";

export function FindingsPage() {
  const { episode, visitId } = useVisit();
  const { data: library } = useLibrary();
  const [against, setAgainst] = useState<string | null>(null);
  const { data, error } = useFindings(visitId, against);
  if (!episode || !library) return null;
  if (isHeld(episode) && !episode.dischargedOn) return <Closed episode={episode} visitId={visitId} />;
  if (!data) return <Waits error={error} />;
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
  min-height: 48px;
  padding: 0 ${({ theme }) => theme.space(5)};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme }) => theme.colour.ink};
  color: ${({ theme }) => theme.colour.sheet};
  font-weight: 500;
  text-decoration: none;
`;

const Whole = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 4fr) minmax(0, 9fr);
  gap: ${({ theme }) => theme.space(6)};
  align-items: start;
  ${({ theme }) => theme.narrow} {
    grid-template-columns: minmax(0, 1fr);
    gap: ${({ theme }) => theme.space(3)};
  }
`;

/** Upright, the sentence stands beside the ring. */
const Sum = styled.div`
  display: grid;
  gap: ${({ theme }) => theme.space(2)};
  align-content: start;
  ${({ theme }) => theme.narrow} {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: ${({ theme }) => theme.space(5)};
  }
  h1 {
    font-size: 1.5rem;
  }
  svg {
    max-width: 350px;
    margin: 0 auto;
  }
  ${({ theme }) => theme.narrow} {
    svg {
      max-width: 320px;
    }
  }
  @media (max-width: 37.5em) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

interface Props {
  findings: ScreenFindings;
  view: FindingsView;
  library: Library;
  onAgainst: (visitId: string) => void;
  visitLink: string;
}

function Findings(props: Props) {
  const { findings, view } = props;
  return (
    <Whole>
      <Sum>
        <Stack $gap={2}>
          <h1>{findings.sentence}</h1>
          <Small style={{ fontSize: "0.875rem" }}>
            {say("findings.trials-of-them-cued", {
              trials: findings.trialCount,
              cued: findings.cuedCount,
              day: view.screenedAt ? ` · ${dayWords(view.screenedAt)}` : "",
              again: view.rescreenDue
                ? ` ${say("findings.again-from-rescreendue", { rescreenDue: dayWords(view.rescreenDue) })}`
                : "",
            })}
          </Small>
          {findings.weakLink?.typeWords && <p>{capital(findings.weakLink.typeWords)}</p>}
        </Stack>
        <div>
          <TrunkRing
            abilities={findings.abilities?.all ?? []}
            earlier={view.earlier?.abilities?.all ?? []}
            weakest={findings.weakLink?.sector ?? null}
          />
          <Small style={{ fontSize: "0.8125rem", lineHeight: 1.3 }}>
            <Term name="trunk-ring">{say("findings.trunk-ring")}</Term>.{" "}
            {say("findings.ring-legend", {
              before: view.earlier ? ` ${say("findings.thin-outline-the-screen-before")}` : "",
            })}
          </Small>
        </div>
      </Sum>
      <Places
        label={say("findings.looks-at-the-findings")}
        places={[
          { id: "tasks", name: say("findings.by-task"), content: <ByTask {...props} /> },
          { id: "directions", name: say("findings.by-direction"), content: <ByDirection {...props} /> },
          {
            id: "earlier",
            name: say("findings.earlier"),
            content: <ChangesTable view={view} onAgainst={props.onAgainst} />,
          },
          { id: "ladders", name: say("findings.ladders"), content: <Ladders {...props} /> },
        ]}
        more={<Next to={`${props.visitLink}/plan`}>{say("findings.make-a-plan")}</Next>}
      />
    </Whole>
  );
}

/** As many as stand on a tablet. */
const firstTasks = 7;

function ByTask(props: Props) {
  const { findings, view, library } = props;
  const [all, setAll] = useState(false);
  const tasks = mostTelling(findings);
  return (
    <Stack $gap={2}>
      {all ? (
        <TaskTable
          findings={findings}
          trials={view.trials}
          library={library}
          more={(trial) => <Measures trial={trial} visitId={view.screenVisitId ?? ""} />}
        />
      ) : (
        <TaskRows tasks={tasks.slice(0, firstTasks)} findings={findings} library={library} />
      )}
      <Row $between>
        <NotKnown findings={findings} />
        <Button $quiet $small onPress={() => setAll(!all)}>
          {all
            ? say("findings.the-most-telling")
            : say("findings.all-tasks-with-trials", { tasks: tasks.length })}
        </Button>
      </Row>
    </Stack>
  );
}

/** Which directions nothing was screened for, and what would tell. */
function NotKnown({ findings }: { findings: ScreenFindings }) {
  const notKnown = findings.control.filter((c) => c.percent === null);
  return (
    <p style={{ flex: "1 1 300px", fontSize: "0.9375rem", lineHeight: 1.25 }}>
      <strong>{say("findings.not-known-yet")}:</strong>{" "}
      {notKnown.length === 0
        ? say("findings.every-direction-was-seen")
        : notKnown.map((c, i) => (
            <span key={c.sector}>
              {i > 0 && "; "}
              {c.name}
              {c.telling && (
                <Quiet>, {say("findings.telling-would-tell", { telling: c.telling.toLowerCase() })}</Quiet>
              )}
            </span>
          ))}
    </p>
  );
}

function ByDirection({ findings, view, library }: Props) {
  return (
    <Stack $gap={5}>
      {findings.abilities && findings.abilities.all.length > 0 && (
        <AbilityTable abilities={findings.abilities} trials={view.trials} library={library} />
      )}
      <ControlTable control={findings.control} trials={view.trials} library={library} />
    </Stack>
  );
}

function Ladders({ findings, view, library }: Props) {
  return (
    <Stack $gap={4}>
      <LaddersBoard
        ladders={library.ladders.filter((l) =>
          findings.entries.some((e) => e.ladderId === l.id && (l.screened || e.trialIds.length > 0)),
        )}
        entries={findings.entries}
        earlier={view.earlier?.entries ?? []}
        forbidden={view.forbidden}
      />
      <Quiet>
        <SideTag side="left" /> {say("findings.peg-peg")} <SideTag side="right" />
        {say("findings.where-each-side-enters", {
          before: view.earlier ? say("findings.hollow-where-it-was-before") : "",
        })}
      </Quiet>
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
                  <td>{e.entryRungId ? findRung(library, e.entryRungId).rung.name : say("findings.none")}</td>
                  <td>
                    {e.why} <Quiet>{say("findings.trialids-trials", { trialIds: e.trialIds.length })}</Quiet>
                  </td>
                </tr>
              ))}
          </tbody>
        </Table>
      </section>
    </Stack>
  );
}
