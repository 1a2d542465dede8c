import { Link } from "react-router";
import { Disclosure, DisclosurePanel, Button as AriaButton, Heading } from "react-aria-components";
import styled from "styled-components";
import { findRung, useFindings, useLibrary } from "../api/queries";
import type { ForbiddenRung, Library, ScreenFindings, Trial } from "../api/types";
import { Columns, Empty, ProblemNote, Quiet, Row, Ruled, Small, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { capital, dayWords, seconds } from "../controls/words";
import { Closed } from "../frame/Closed";
import { useVisit } from "../frame/useVisit";
import { LaddersBoard } from "./LaddersBoard";
import { TrunkRing } from "./TrunkRing";

export function FindingsPage() {
  const { episode, visitId } = useVisit();
  const { data: library } = useLibrary();
  const { data, error } = useFindings(visitId);
  if (!episode || !library) return null;
  if (episode.closed) return <Closed episode={episode} visitId={visitId} />;
  if (error) return <ProblemNote error={error} />;
  if (!data) return null;
  if (!data.findings || data.findings.trialCount === 0) {
    return (
      <Empty title="Nothing screened yet">
        <p>Screen a ladder on both sides; what gives way, where and how early shows here.</p>
        <Link to={`/episodes/${episode.id}/visits/${visitId}/screen`}>Go to the screen</Link>
      </Empty>
    );
  }
  return (
    <Findings
      findings={data.findings}
      trials={data.trials}
      forbidden={data.forbidden}
      library={library}
      when={data.screenedAt ? dayWords(data.screenedAt) : ""}
      planLink={`/episodes/${episode.id}/visits/${visitId}/plan`}
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
  trials: Trial[];
  forbidden: ForbiddenRung[];
  library: Library;
  when: string;
  planLink: string;
}) {
  const { findings, library } = props;
  const notKnown = findings.control.filter((c) => c.percent === null);
  const uneven = findings.tasks.filter((t) => t.weaker);
  return (
    <Stack $gap={6}>
      <Columns $at="minmax(300px, 5fr) 8fr">
        <Stack $gap={3}>
          <h1>{findings.sentence}</h1>
          <p>
            <Quiet>
              {findings.trialCount} trials, {findings.cuedCount} of them cued · {props.when}
            </Quiet>
          </p>
          <TrunkRing control={findings.control} weakest={findings.weakLink?.sector ?? null} />
          <Small>
            A long arc is in control. Solid: three trials or more; hatched: one or two; dotted: not seen.
          </Small>
        </Stack>
        <Stack $gap={5}>
          <Columns $at="1fr 1fr 1fr" style={{ gap: 20 }}>
            <div>
              <Small>What gives way</Small>
              {findings.gaveWay.slice(0, 3).map((g) => (
                <p key={g.trialId} style={{ marginBottom: 6 }}>
                  <strong>{capital(g.words)}</strong>
                  <br />
                  <Quiet>{findRung(library, g.rungId).rung.name}</Quiet>
                </p>
              ))}
              {findings.gaveWay.length === 0 && <p>Nothing gave way.</p>}
              {findings.weakLink?.typeWords && <p>{capital(findings.weakLink.typeWords)}</p>}
            </div>
            <div>
              <Small>Side difference</Small>
              {uneven.map((t) => (
                <p key={t.rungId} style={{ marginBottom: 6 }}>
                  <strong>
                    {findRung(library, t.rungId).rung.name}: <SideTag side={t.weaker!} />{" "}
                    {Math.round(t.differencePercent ?? 0)} % behind
                  </strong>
                </p>
              ))}
              {uneven.length === 0 && <p>Even wherever both sides were seen.</p>}
              <Quiet>under 10 % is even</Quiet>
            </div>
            <div>
              <Small>Not known yet</Small>
              {notKnown.map((c) => (
                <p key={c.sector}>
                  <strong>{capital(c.name)}</strong>
                  {c.telling && (
                    <>
                      <br />
                      <Quiet>{c.telling.toLowerCase()} would tell</Quiet>
                    </>
                  )}
                </p>
              ))}
              {notKnown.length === 0 && <p>Every direction was seen.</p>}
            </div>
          </Columns>
          <Ruled>
            <LaddersBoard
              ladders={library.ladders.filter((l) => l.screened)}
              entries={findings.entries}
              forbidden={props.forbidden}
            />
          </Ruled>
          <Row $gap={5}>
            <Next to={props.planLink}>Make a plan from this</Next>
            <Quiet>
              <SideTag side="left" /> peg · peg <SideTag side="right" />: where each side enters
            </Quiet>
          </Row>
        </Stack>
      </Columns>
      <Tables {...props} />
    </Stack>
  );
}

const Table = styled.table`
  width: 100%;
  td,
  th {
    padding: 7px 10px 7px 0;
    border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
    text-align: left;
    vertical-align: top;
    font-size: 15px;
    font-variant-numeric: tabular-nums;
  }
`;

const Opener = styled(AriaButton)`
  min-height: 48px;
  border: 0;
  background: none;
  color: inherit;
  font: 700 17px/1 ${({ theme }) => theme.font.display};
  cursor: pointer;
  padding: 0;
  &::before {
    content: "▸ ";
  }
  &[aria-expanded="true"]::before {
    content: "▾ ";
  }
`;

function Tables(props: { findings: ScreenFindings; trials: Trial[]; library: Library }) {
  const { findings, library } = props;
  const name = (id: string) => findRung(library, id).rung.name;
  return (
    <Ruled>
      <Columns>
        <section>
          <h2>Control by direction</h2>
          <Table>
            <thead>
              <tr>
                <th>Direction</th>
                <th>Held</th>
                <th>Trials behind it</th>
              </tr>
            </thead>
            <tbody>
              {findings.control.map((c) => (
                <tr key={c.sector}>
                  <th scope="row">{c.name}</th>
                  <td>{c.percent === null ? "not enough seen" : `${Math.round(c.percent)} %`}</td>
                  <td>{c.trials.length}</td>
                </tr>
              ))}
            </tbody>
          </Table>
          <Small>
            Share of the demand that was held, over the rungs seen and implied. Demands by the body model:
            static, by gravity alone.
          </Small>
        </section>
        <section>
          <h2>Entry rungs</h2>
          <Table>
            <tbody>
              {findings.entries.map((e) => (
                <tr key={e.ladderId + e.side}>
                  <th scope="row">
                    {library.ladders.find((l) => l.id === e.ladderId)?.name} <SideTag side={e.side} />
                  </th>
                  <td>{e.entryRungId ? name(e.entryRungId) : "none"}</td>
                  <td>
                    {e.why} <Quiet>({e.trialIds.length} trials)</Quiet>
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        </section>
      </Columns>
      <Disclosure>
        <Heading level={2} style={{ margin: 0 }}>
          <Opener slot="trigger">Every trial</Opener>
        </Heading>
        <DisclosurePanel>
          <Table>
            <thead>
              <tr>
                <th>Task</th>
                <th>Side</th>
                <th>Clean</th>
                <th>Clean seconds</th>
                <th>What was marked</th>
                <th>Pain</th>
              </tr>
            </thead>
            <tbody>
              {props.trials.map((t) => (
                <tr key={t.id}>
                  <th scope="row">{name(t.rungId)}</th>
                  <td>
                    <SideTag side={t.side} />
                  </td>
                  <td>
                    {t.clean.reps} of {t.total}
                    {t.clean.cuedReps > 0 && `, ${t.clean.cuedReps} more after a cue`}
                  </td>
                  <td>{t.target.hold > 0 ? seconds(t.clean.seconds) : ""}</td>
                  <td>{markWords(t, library)}</td>
                  <td>
                    {t.painBefore ?? "–"}
                    {t.painPeak !== null && ` → ${t.painPeak}`}
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        </DisclosurePanel>
      </Disclosure>
    </Ruled>
  );
}

function markWords(trial: Trial, library: Library) {
  const words = trial.marks.map((m) => {
    const fault = library.faults.find((f) => f.code === m.fault)?.name ?? m.fault;
    return `${fault} (rep ${m.rep}${m.second === null ? "" : `, ${seconds(m.second ?? 0)}`})`;
  });
  return words.length === 0 ? "clean" : words.join("; ");
}
