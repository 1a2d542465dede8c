import { useState } from "react";
import { Link, useNavigate } from "react-router";
import styled from "styled-components";
import { useDay, useFoundClients, useStart } from "../api/queries";
import type { DayView, DayVisit } from "../api/types";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { Columns, Empty, Note, Page, ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { longDayWords, momentWords, timeWords, wallHours } from "../api/clinicTime";
import { RungFigure } from "../figure/FigureView";
import { SyncMark } from "../frame/SyncMark";
import { useSignOut } from "../frame/useSignOut";
import { useRoles } from "../frame/useRoles";
import { say } from "../words/say";

const Head = styled.header`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${({ theme }) => theme.space(3)} ${({ theme }) => theme.space(5)};
  padding: ${({ theme }) => theme.space(3)} ${({ theme }) => theme.space(5)};
  border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  h1 {
    margin-right: auto;
  }
`;

export function DayPage() {
  const { data: day, error } = useDay();
  const navigate = useNavigate();
  const { clinical, settles } = useRoles();
  return (
    <>
      <Head>
        <h1>
          {day && longDayWords(day.date)}{" "}
          <Quiet style={{ fontSize: 17, fontWeight: 400 }}>{day && count(day.visits.length)}</Quiet>
        </h1>
        <SyncMark />
        <Link to="/library" style={{ color: "inherit", fontWeight: 600 }}>
          {say("day.library")}
        </Link>
        {settles && (
          <Link to="/settings" style={{ color: "inherit", fontWeight: 600 }}>
            {say("day.settings")}
          </Link>
        )}
        <WhoIsHere />
        {clinical && <Button onPress={() => void navigate("/new")}>{say("day.new-client")}</Button>}
      </Head>
      <Page>
        <ProblemNote error={error} />
        <BackupWarning />
        <SecondFactorDue />
        {day && (day.visits.length + day.others.length > 0 ? <Day day={day} /> : <FirstDay />)}
      </Page>
    </>
  );
}

const count = (n: number) =>
  n === 0 ? say("day.no-visits-planned") : n === 1 ? say("day.one-visit") : say("day.n-visits", { n });

function FirstDay() {
  const navigate = useNavigate();
  return (
    <Empty title={say("day.nobody-here-yet")}>
      <p style={{ marginBottom: 16 }}>{say("day.begin-with-a-client-ask")}</p>
      <Button onPress={() => void navigate("/new")}>{say("day.new-client")}</Button>
    </Empty>
  );
}

/** Told to administrators alone, until they have set it up. */
function SecondFactorDue() {
  const { data } = useStart();
  return data?.secondFactorDue ? (
    <Note>
      {say("day.second-factor-by", { due: momentWords(data.secondFactorDue) })}{" "}
      <Link to="/account">{say("day.your-account")}</Link>
    </Note>
  ) : null;
}

/** Told to administrators alone. */
function BackupWarning() {
  const { data } = useStart();
  return data?.backupWarning ? (
    <Note grave>
      {data.backupWarning} <Link to="/settings#backups">{say("day.see-backups")}</Link>
    </Note>
  ) : null;
}

function WhoIsHere() {
  const { data } = useStart();
  const leave = useSignOut();
  return (
    <Row $gap={2}>
      <Link to="/account" style={{ color: "inherit" }}>
        {data?.signedInAs}
      </Link>
      <Button $quiet $small onPress={() => leave.mutate()}>
        {say("day.sign-out")}
      </Button>
    </Row>
  );
}

const hourHeight = 84;

const Rail = styled.div<{ $hours: number }>`
  position: relative;
  height: ${({ $hours }) => $hours * hourHeight}px;
  margin: ${({ theme }) => theme.space(2)} 0 0 52px;
  border-left: 3px solid ${({ theme }) => theme.colour.ink};
  .hour {
    position: absolute;
    left: -52px;
    width: 42px;
    text-align: right;
    transform: translateY(-50%);
    color: ${({ theme }) => theme.colour.grey};
    font-variant-numeric: tabular-nums;
  }
  .now {
    position: absolute;
    left: -20px;
    right: 0;
    height: 2px;
    background: ${({ theme }) => theme.colour.clay};
    pointer-events: none;
  }
  .now span {
    position: absolute;
    right: 0;
    bottom: 3px;
    color: ${({ theme }) => theme.colour.clay};
    font: 600 14px/1 ${({ theme }) => theme.font.text};
  }
`;

const Slot = styled(Link)<{ $tone: "closed" | "new" | "plain"; $drawn: boolean }>`
  position: absolute;
  left: 14px;
  right: 0;
  height: ${hourHeight - 12}px;
  display: grid;
  grid-template-columns: ${({ $drawn }) => ($drawn ? "118px minmax(0, 1fr) auto" : "minmax(0, 1fr) auto")};
  gap: ${({ theme }) => theme.space(3)};
  align-items: center;
  padding: 0 ${({ theme }) => theme.space(4)} 0 ${({ theme, $drawn }) => theme.space($drawn ? 2 : 5)};
  border-left: 6px solid
    ${({ theme, $tone }) =>
      $tone === "closed" ? theme.colour.clay : $tone === "new" ? theme.colour.sea : theme.colour.ink};
  background: ${({ theme }) => theme.colour.sheet};
  color: ${({ theme }) => theme.colour.ink};
  text-decoration: none;
  strong {
    display: block;
    font-size: 18px;
    line-height: 1.2;
  }
  .says {
    color: ${({ theme }) => theme.colour.grey};
    font-size: 15px;
    line-height: 1.25;
  }
  ${({ theme }) => theme.narrow} {
    grid-template-columns: minmax(0, 1fr) auto;
    .drawing {
      display: none;
    }
  }
`;

function Day({ day }: { day: DayView }) {
  const hours = day.visits.map((v) => Math.floor(wallHours(v.plannedAt)));
  const first = Math.min(8, ...hours);
  const last = Math.max(17, ...hours.map((h) => h + 1));
  const offset = (time: string) => (wallHours(time) - first) * hourHeight;
  const now = offset(day.now);
  const { clinical } = useRoles();
  return (
    <Columns $at="minmax(0, 1.7fr) minmax(260px, 1fr)">
      <section aria-label={say("day.visits-by-hour")}>
        <Rail $hours={last - first + 0.5}>
          {Array.from({ length: last - first + 1 }, (_, i) => (
            <span key={i} className="hour" style={{ top: i * hourHeight }}>
              {first + i}
            </span>
          ))}
          {stacked(day.visits, offset).map(({ visit, top }) => (
            <Slot
              key={visit.visitId}
              as={clinical ? undefined : "div"}
              to={`/episodes/${visit.episodeId}/visits/${visit.visitId}/${station(visit)}`}
              style={{ top }}
              $drawn={clinical}
              $tone={visit.closed ? "closed" : visit.number === 1 ? "new" : "plain"}
            >
              {clinical && (
                <div className="drawing">
                  {visit.rungId && <RungFigure rungId={visit.rungId} side="right" width={114} height={56} />}
                </div>
              )}
              <div>
                <strong>{visit.name}</strong>
                <span className="says">
                  {[timeWords(visit.plannedAt), visit.says].filter(Boolean).join(" · ")}
                </span>
              </div>
              <span>{painWords(visit)}</span>
            </Slot>
          ))}
          {now > 0 && now < (last - first + 0.5) * hourHeight && (
            <div className="now" style={{ top: now }}>
              <span>{say("day.now")}</span>
            </div>
          )}
        </Rail>
      </section>
      <Pile day={day} clinical={clinical} />
    </Columns>
  );
}

/** Visits at the same time stand under each other instead of hiding one another. */
function stacked(visits: DayVisit[], offset: (time: string) => number) {
  let free = 0;
  return visits.map((visit) => {
    const top = Math.max(offset(visit.plannedAt), free);
    free = top + hourHeight - 8;
    return { visit, top };
  });
}

function station(visit: DayVisit) {
  if (visit.closed) return "ask";
  if (visit.number === 1) return visit.state === "done" ? "findings" : "ask";
  return visit.state === "done" ? "decide" : "session";
}

const painWords = (visit: DayVisit) =>
  visit.closed
    ? say("day.red-flag")
    : visit.painFirst !== null && visit.painLast !== null
      ? say("day.pain-painfirst-painlast", { painFirst: visit.painFirst, painLast: visit.painLast })
      : visit.painLast !== null
        ? say("day.pain-painlast", { painLast: visit.painLast })
        : "";

const Entry = styled.li`
  border-top: 1px solid ${({ theme }) => theme.colour.rule};
  a {
    display: block;
    padding: ${({ theme }) => theme.space(3)} 0;
    color: inherit;
    text-decoration: none;
  }
  a:hover strong {
    text-decoration: underline;
  }
  strong {
    display: block;
  }
`;

function Pile({ day, clinical }: { day: DayView; clinical: boolean }) {
  return (
    <Stack $gap={6}>
      {clinical && (
        <section>
          <h2 style={{ marginBottom: 10 }}>{say("day.wants-a-decision")}</h2>
          {day.behind > 0 && (
            <Small>{say("day.still-looking-through-behind-records", { behind: day.behind })}</Small>
          )}
          {day.pile.length === 0 && <Small>{say("day.nothing-every-session-is-decided")}</Small>}
          <ul>
            {day.pile.map((entry) => (
              <Entry key={entry.episodeId}>
                <Link to={`/episodes/${entry.episodeId}/visits/${entry.visitId}/${entry.station}`}>
                  <strong>{entry.name}</strong>
                  {entry.what}
                  <br />
                  <Quiet>{entry.step}</Quiet>
                </Link>
              </Entry>
            ))}
          </ul>
          {day.pileCount > day.pile.length && (
            <Small>
              {say("day.the-most-pressing-pile-of", { pile: day.pile.length, pileCount: day.pileCount })}
            </Small>
          )}
        </section>
      )}
      {day.others.length > 0 && <Others day={day} clinical={clinical} />}
    </Stack>
  );
}

/** Clients without a visit today: those seen last, and any other by name or complaint. */
function Others({ day, clinical }: { day: DayView; clinical: boolean }) {
  const [words, setWords] = useState("");
  const sought = words.trim();
  const { data: found } = useFoundClients(sought);
  const lines = sought === "" ? day.others : (found ?? []);
  return (
    <section>
      <h2 style={{ marginBottom: 10 }}>{say("day.not-here-today")}</h2>
      {day.othersCount > 8 && (
        <TextField label={say("day.find-a-client")} value={words} onChange={setWords} />
      )}
      <ul>
        {lines.map((line) => (
          <Entry key={line.episodeId}>
            {clinical ? (
              <Link to={`/episodes/${line.episodeId}/visits/${line.visitId}/ask`}>
                <strong>{line.name}</strong>
                <Quiet>{line.complaint}</Quiet>
              </Link>
            ) : (
              <strong style={{ padding: "12px 0" }}>{line.name}</strong>
            )}
          </Entry>
        ))}
      </ul>
      {sought !== "" && found?.length === 0 && <Small>{say("day.nobody-of-that-name-or")}</Small>}
      {sought === "" && day.othersCount > lines.length && (
        <Small>
          {say("day.the-last-lines-of-otherscount", { lines: lines.length, othersCount: day.othersCount })}
        </Small>
      )}
    </section>
  );
}
