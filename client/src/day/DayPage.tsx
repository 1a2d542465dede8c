import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useNavigate } from "react-router";
import styled from "styled-components";
import { onNews } from "../api/live";
import { keys, useDay, useFoundClients, useStart } from "../api/queries";
import type { ClientLine, DayView, DayVisit } from "../api/types";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { Columns, Empty, Note, Page, ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { DayField } from "../controls/DateField";
import {
  addDays,
  birthWords,
  dayWords,
  longDayWords,
  momentWords,
  timeWords,
  today,
  wallHours,
} from "../api/clinicTime";
import { RungFigure } from "../figure/FigureView";
import { BookDialog } from "../frame/BookDialog";
import { FirstCards } from "../frame/FirstCards";
import { NewVersion } from "../frame/NewVersion";
import { HelpMark } from "../frame/HelpMark";
import { SyncMark } from "../frame/SyncMark";
import { VisitDialog } from "../frame/VisitDialog";
import { WithPicker } from "../frame/WithPicker";
import { useSignOut } from "../frame/useSignOut";
import { useRoles } from "../frame/useRoles";
import { calledOffWords } from "../frame/calledOffWords";
import { say } from "../words/say";
import { NoPinHere } from "./NoPinHere";

const Head = styled.header`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${({ theme }) => theme.space(3)};
  padding: ${({ theme }) => theme.space(3)} ${({ theme }) => theme.space(5)};
  border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  h1 {
    margin-inline-end: auto;
  }
`;

export function DayPage() {
  const [asked, setAsked] = useState<string | null>(null);
  const [who, setWho] = useState<string | null>(null);
  const { data: day, error } = useDay(asked, who);
  const navigate = useNavigate();
  const { clinical, settles, books, administers } = useRoles();
  useFresh();
  const stand = day?.visits.filter((v) => !v.calledOff).length ?? 0;
  return (
    <>
      <Head>
        <h1>
          {day && longDayWords(day.date)}{" "}
          <Quiet style={{ fontSize: "1.0625rem", fontWeight: 400 }}>{day && count(stand)}</Quiet>
        </h1>
        <SyncMark />
        <HelpMark />
        {(books || administers) && (
          <Link to="/clients" style={{ color: "inherit", fontWeight: 600 }}>
            {say("day.clients")}
          </Link>
        )}
        <Link to="/library" style={{ color: "inherit", fontWeight: 600 }}>
          {say("day.library")}
        </Link>
        {clinical && (
          <Link to="/practice" style={{ color: "inherit", fontWeight: 600 }}>
            {say("day.practice-room")}
          </Link>
        )}
        {settles && (
          <>
            <Link to="/clinic" style={{ color: "inherit", fontWeight: 600 }}>
              {say("day.clinic")}
            </Link>
            <Link to="/settings" style={{ color: "inherit", fontWeight: 600 }}>
              {say("day.settings")}
            </Link>
          </>
        )}
        <WhoIsHere />
        {clinical && <Button onPress={() => void navigate("/new")}>{say("day.new-client")}</Button>}
      </Head>
      <Page>
        <ProblemNote error={error} />
        <NewVersion />
        {clinical && <FirstCards />}
        <BackupWarning />
        <SecondFactorDue />
        {clinical && <NoPinHere />}
        {day?.practisedLastOn && <PractiseAgain lastOn={day.practisedLastOn} />}
        {day && <OtherDay day={day.date} onDay={setAsked} who={who} onWho={setWho} />}
        {day &&
          (day.visits.length + day.others.length > 0 || asked !== null ? <Day day={day} /> : <FirstDay />)}
      </Page>
    </>
  );
}

const Days = styled(Row)`
  align-items: flex-end;
  margin-bottom: ${({ theme }) => theme.space(3)};
  > :last-child {
    width: 240px;
  }
`;

/** The day before, the day after, any other, and one practitioner's alone. */
function OtherDay(props: {
  day: string;
  onDay: (day: string | null) => void;
  who: string | null;
  onWho: (who: string | null) => void;
}) {
  const go = (day: string) => props.onDay(day === today() ? null : day);
  return (
    <Days $gap={2} role="group" aria-label={say("day.which-day")}>
      <Button $quiet aria-label={say("day.the-day-before")} onPress={() => go(addDays(props.day, -1))}>
        ‹
      </Button>
      <DayField
        label={say("day.day")}
        value={props.day}
        onChange={(day) => day && Number(day.slice(0, 4)) > 1900 && go(day)}
      />
      <Button $quiet aria-label={say("day.the-day-after")} onPress={() => go(addDays(props.day, 1))}>
        ›
      </Button>
      {props.day !== today() && (
        <Button $quiet onPress={() => props.onDay(null)}>
          {say("day.today")}
        </Button>
      )}
      <WithPicker
        label={say("day.with")}
        nobody={say("day.everybody")}
        value={props.who}
        onPick={props.onWho}
      />
    </Days>
  );
}

const freshMs = 2000;

/** Somebody booked, moved or began a visit: the day is asked for again, at most every other second. */
function useFresh() {
  const queries = useQueryClient();
  useEffect(() => {
    let waiting: ReturnType<typeof setTimeout> | null = null;
    const stop = onNews(() => {
      waiting ??= setTimeout(() => {
        waiting = null;
        void queries.invalidateQueries({ queryKey: keys.day });
      }, freshMs);
    });
    return () => {
      stop();
      if (waiting) clearTimeout(waiting);
    };
  }, [queries]);
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

/** A quarter of a year has gone by since the eye was last trained. */
function PractiseAgain({ lastOn }: { lastOn: string }) {
  return (
    <Note>
      {say("day.practise-again", { day: dayWords(lastOn) })}{" "}
      <Link to="/practice">{say("day.practice-room")}</Link>
    </Note>
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

/** An hour in which somebody comes, and one in which nobody does, px. */
const hourHeight = 70;
const emptyHeight = 24;

const Rail = styled.div<{ $height: number }>`
  position: relative;
  height: ${({ $height }) => $height}px;
  margin: ${({ theme }) => theme.space(2)} 0 0 52px;
  border-inline-start: 3px solid ${({ theme }) => theme.colour.ink};
  .hour {
    position: absolute;
    inset-inline-start: -52px;
    width: 42px;
    text-align: end;
    transform: translateY(-50%);
    color: ${({ theme }) => theme.colour.grey};
    font-variant-numeric: tabular-nums;
  }
  .now {
    position: absolute;
    inset-inline-start: -20px;
    inset-inline-end: 0;
    height: 2px;
    background: ${({ theme }) => theme.colour.clay};
    pointer-events: none;
  }
  .now span {
    position: absolute;
    inset-inline-end: 0;
    bottom: 3px;
    color: ${({ theme }) => theme.colour.clay};
    font: 600 0.875rem/1 ${({ theme }) => theme.font.text};
  }
`;

const Place = styled.div`
  position: absolute;
  inset-inline-start: 14px;
  inset-inline-end: 0;
  display: flex;
  height: ${hourHeight - 8}px;
  > button {
    align-self: stretch;
    min-width: 52px;
    margin-inline-start: ${({ theme }) => theme.space(1)};
    border: 0;
    font-size: 1.375rem;
  }
`;

const Slot = styled(Link)<{ $tone: "closed" | "new" | "plain"; $drawn: boolean; $off: boolean }>`
  flex: 1;
  min-width: 0;
  display: grid;
  grid-template-columns: ${({ $drawn }) => ($drawn ? "118px minmax(0, 1fr) auto" : "minmax(0, 1fr) auto")};
  gap: ${({ theme }) => theme.space(3)};
  align-items: center;
  padding: 0 ${({ theme }) => theme.space(4)} 0 ${({ theme, $drawn }) => theme.space($drawn ? 2 : 5)};
  border-inline-start: 6px solid
    ${({ theme, $tone }) =>
      $tone === "closed" ? theme.colour.clay : $tone === "new" ? theme.colour.sea : theme.colour.ink};
  background: ${({ theme, $off }) => ($off ? "none" : theme.colour.sheet)};
  color: ${({ theme }) => theme.colour.ink};
  text-decoration: none;
  strong {
    display: block;
    font-size: 1.125rem;
    line-height: 1.2;
    text-decoration: ${({ $off }) => ($off ? "line-through" : "none")};
  }
  .says {
    color: ${({ theme }) => theme.colour.grey};
    font-size: 0.9375rem;
    line-height: 1.25;
  }
  ${({ theme }) => theme.narrow} {
    grid-template-columns: minmax(0, 1fr) auto;
    .drawing {
      display: none;
    }
  }
`;

/** The hours worked, from top to bottom: those in which nobody comes are small. */
function railOf(visits: DayVisit[]) {
  const hours = visits.map((v) => Math.floor(wallHours(v.plannedAt)));
  const first = Math.min(...(hours.length > 0 ? hours : [8]));
  const last = Math.max(...(hours.length > 0 ? hours.map((h) => h + 1) : [17]));
  const heights = Array.from({ length: last - first }, (_, i) => {
    const count = hours.filter((hour) => hour === first + i).length;
    return count === 0 ? emptyHeight : count * (hourHeight - 4) + 4;
  });
  const topOf = (hour: number) => heights.slice(0, hour - first).reduce((sum, h) => sum + h, 0);
  const offset = (time: string) => {
    const at = wallHours(time);
    const hour = Math.floor(at);
    // Before the first and after the last it goes on as through an hour in which nobody comes.
    if (hour < first) return (at - first) * emptyHeight;
    return topOf(hour) + (at - hour) * (heights[hour - first] ?? emptyHeight);
  };
  return { first, last, topOf, offset, height: topOf(last) + emptyHeight / 2 };
}

function Day({ day }: { day: DayView }) {
  const { first, last, topOf, offset, height } = railOf(day.visits);
  const now = offset(day.now);
  const { clinical, books } = useRoles();
  const [changing, setChanging] = useState<DayVisit | null>(null);
  return (
    <Columns $at="minmax(0, 1.7fr) minmax(260px, 1fr)">
      <section aria-label={say("day.visits-by-hour")}>
        <Rail $height={height}>
          {Array.from({ length: last - first + 1 }, (_, i) => (
            <span key={i} className="hour" style={{ top: topOf(first + i) }}>
              {first + i}
            </span>
          ))}
          {stacked(day.visits, (time) => topOf(Math.floor(wallHours(time)))).map(({ visit, top }) => (
            <Place key={visit.visitId} style={{ top }}>
              <Slot
                as={opens(visit) && clinical ? undefined : "div"}
                to={`/episodes/${visit.episodeId}/visits/${visit.visitId}/${station(visit)}`}
                $drawn={clinical}
                $off={!!visit.calledOff}
                $tone={visit.closed ? "closed" : visit.number === 1 ? "new" : "plain"}
              >
                {clinical && (
                  <div className="drawing">
                    {visit.rungId && !visit.calledOff && (
                      <RungFigure rungId={visit.rungId} side="right" width={114} height={56} />
                    )}
                  </div>
                )}
                <div>
                  <strong>{visit.name}</strong>
                  <span className="says">{lineOf(visit)}</span>
                </div>
                <span>{visit.calledOff ? calledOffWords[visit.calledOff] : painWords(visit)}</span>
              </Slot>
              {books && (
                <Button
                  $quiet
                  $small
                  aria-label={say("day.change-the-visit-of-name", { name: visit.name })}
                  onPress={() => setChanging(visit)}
                >
                  ⋯
                </Button>
              )}
            </Place>
          ))}
          {day.date === today() && now > 0 && now < height && (
            <div className="now" style={{ top: now }}>
              <span>{say("day.now")}</span>
            </div>
          )}
        </Rail>
        {changing && (
          <VisitDialog
            visit={changing}
            open={
              clinical
                ? `/episodes/${changing.episodeId}/visits/${changing.visitId}/${station(changing)}`
                : null
            }
            onDone={() => setChanging(null)}
          />
        )}
      </section>
      <Pile day={day} clinical={clinical} />
    </Columns>
  );
}

/** A visit that was called off, or whose client was discharged since, has nothing to open but its record. */
const opens = (visit: DayVisit) => !visit.calledOff;

const lineOf = (visit: DayVisit) =>
  [
    timeWords(visit.plannedAt),
    visit.withName,
    visit.says,
    visit.fromPaper && say("day.from-paper"),
    visit.phone,
  ]
    .filter(Boolean)
    .join(" · ");

/** Visits at the same time stand under each other instead of hiding one another. */
function stacked(visits: DayVisit[], offset: (time: string) => number) {
  let free = 0;
  return visits.map((visit) => {
    const top = Math.max(offset(visit.plannedAt), free);
    free = top + hourHeight - 4;
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

/** Clients without a visit today: those seen last, and any other by whatever is known of them. */
function Others({ day, clinical }: { day: DayView; clinical: boolean }) {
  const [words, setWords] = useState("");
  const [booking, setBooking] = useState<string | null>(null);
  const navigate = useNavigate();
  const { books } = useRoles();
  const sought = words.trim();
  const { data: found } = useFoundClients(sought);
  const lines = sought === "" ? day.others : (found ?? []);
  return (
    <section>
      <h2 style={{ marginBottom: 10 }}>{say("day.not-here-today")}</h2>
      <TextField
        label={say("day.find-a-client")}
        hint={say("day.by-name-number-birth-date")}
        value={words}
        onChange={setWords}
      />
      <ul>
        {lines.map((line) => (
          <Entry key={line.clientId}>
            <Row $between style={{ flexWrap: "nowrap" }}>
              <Link to={clinical ? recordOf(line) : `/clients/${line.clientId}`} style={{ flex: 1 }}>
                <strong>{line.name}</strong>
                <Quiet>{clinical ? line.complaint : birthWords(line.birthDate)}</Quiet>
              </Link>
              {books && (
                <Button
                  $quiet
                  $small
                  aria-label={say("day.book-name", { name: line.name })}
                  onPress={() => setBooking(line.clientId)}
                >
                  {say("day.book")}
                </Button>
              )}
            </Row>
          </Entry>
        ))}
      </ul>
      {booking && (
        <BookDialog
          clientId={booking}
          day={day.date > today() ? day.date : undefined}
          onDone={(booked) => {
            setBooking(null);
            if (booked?.now && clinical)
              void navigate(`/episodes/${booked.episodeId}/visits/${booked.visitId}/ask`);
          }}
        />
      )}
      {sought !== "" && found?.length === 0 && <Small>{say("day.nobody-of-that-name-or")}</Small>}
      {sought === "" && day.othersCount > lines.length && (
        <Small>
          {say("day.the-last-lines-of-otherscount", { lines: lines.length, othersCount: day.othersCount })}
        </Small>
      )}
    </section>
  );
}

/** A record that has a visit opens there; another client's card is all there is. */
const recordOf = (line: ClientLine) =>
  line.episodeId && line.visitId
    ? `/episodes/${line.episodeId}/visits/${line.visitId}/ask`
    : `/clients/${line.clientId}`;
