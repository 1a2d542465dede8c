import { useMutation, useQueryClient } from "@tanstack/react-query";
import styled from "styled-components";
import { api, got } from "../api/client";
import { findRung, keys, useCalendar } from "../api/queries";
import type { CalendarView, Library } from "../api/types";
import { Button } from "../controls/Button";
import { ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { addDays, daysBetween, dayWords, today } from "../api/clinicTime";

const Week = styled.ol`
  display: grid;
  grid-template-columns: repeat(7, minmax(0, 1fr));
  gap: ${({ theme }) => theme.space(1)};
  margin: 0;
  padding: 0;
  list-style: none;
  ${({ theme }) => theme.narrow} {
    grid-template-columns: repeat(auto-fill, minmax(88px, 1fr));
  }
`;

const Day = styled.li<{ $rest: boolean }>`
  min-height: 62px;
  padding: ${({ theme }) => theme.space(1)} ${({ theme }) => theme.space(2)};
  border-top: 4px solid ${({ theme, $rest }) => ($rest ? theme.colour.rule : theme.colour.ink)};
  background: ${({ theme, $rest }) => ($rest ? "none" : theme.colour.sheet)};
  font-size: 14px;
  line-height: 1.25;
`;

/** The days of the plan, with rest days and days away, and the feed for calendar programs. */
export function CalendarPanel(props: { episodeId: string; library: Library }) {
  const { data, error } = useCalendar(props.episodeId);
  return (
    <section aria-label="Calendar" className="screen-only">
      <Stack $gap={3}>
        <h2>Calendar</h2>
        <ProblemNote error={error} />
        {data && (
          <>
            <Days calendar={data} library={props.library} />
            <Small>
              Look at the plan together by {dayWords(data.review)}
              {data.rescreen && `; screen again by ${dayWords(data.rescreen)}`}.
            </Small>
            <Feed episodeId={props.episodeId} feed={data.feed ?? null} />
          </>
        )}
      </Stack>
    </section>
  );
}

function Days(props: { calendar: CalendarView; library: Library }) {
  const { library } = props;
  const from = today();
  const calendar = { ...props.calendar, days: props.calendar.days.filter((d) => d.day >= from) };
  const first = calendar.days[0]?.day;
  if (!first)
    return <p>No day is left before the review: look at the plan together, or the client is away.</p>;
  const count = Math.min(21, Math.ceil((daysBetween(first, calendar.days.at(-1)!.day) + 1) / 7) * 7);
  const most = Math.max(...calendar.days.map((d) => d.rungIds.length));
  return (
    <Week aria-label="Days">
      {Array.from({ length: count }, (_, i) => {
        const day = addDays(first, i);
        const trained = calendar.days.find((d) => d.day === day);
        const away = calendar.away.some((a) => a.from <= day && day <= a.to);
        const left = trained
          ? calendar.days
              .flatMap((d) => d.rungIds)
              .filter((id, at, all) => all.indexOf(id) === at && !trained.rungIds.includes(id))
          : [];
        return (
          <Day key={day} $rest={!trained}>
            <strong>{dayWords(day)}</strong>
            <br />
            {trained ? `${trained.minutes.toFixed(0)} min` : <Quiet>{away ? "away" : "rest"}</Quiet>}
            {trained && trained.rungIds.length < most && (
              <>
                <br />
                <Quiet>without {left.map((id) => findRung(library, id).rung.name).join(", ")}</Quiet>
              </>
            )}
          </Day>
        );
      })}
    </Week>
  );
}

function Feed(props: { episodeId: string; feed: string | null }) {
  const queries = useQueryClient();
  const path = { params: { path: { id: props.episodeId } } };
  const change = useMutation({
    mutationFn: (open: boolean) =>
      open
        ? got(api.POST("/api/episodes/{id}/feed", path))
        : got(api.DELETE("/api/episodes/{id}/feed", path)),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.calendar(props.episodeId) }),
  });
  return (
    <Row>
      <a href={`/api/episodes/${props.episodeId}/calendar.ics`} download style={{ color: "inherit" }}>
        Save as a calendar file
      </a>
      {props.feed ? (
        <>
          <span>
            Feed: <code style={{ overflowWrap: "anywhere" }}>{`${window.location.origin}${props.feed}`}</code>
          </span>
          <Button $quiet $small onPress={() => change.mutate(false)}>
            Close the feed
          </Button>
        </>
      ) : (
        <Button $quiet $small onPress={() => change.mutate(true)}>
          Open a feed for the client&apos;s calendar
        </Button>
      )}
      <ProblemNote error={change.error} />
      <Small>
        A newer plan takes the place of the older days. Whoever has the address of the feed can read it,
        without signing in.
      </Small>
    </Row>
  );
}
