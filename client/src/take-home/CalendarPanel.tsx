import { useMutation, useQueryClient } from "@tanstack/react-query";
import styled from "styled-components";
import { api, got } from "../api/client";
import { findRung, keys, useCalendar } from "../api/queries";
import type { CalendarView, Library } from "../api/types";
import { Button } from "../controls/Button";
import { ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { addDays, daysBetween, dayWords, today } from "../api/clinicTime";
import { say, sayRich } from "../words/say";

const Week = styled.ol`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(80px, 1fr));
  gap: ${({ theme }) => theme.space(1)};
  margin: 0;
  padding: 0;
  list-style: none;
`;

const Day = styled.li<{ $rest: boolean }>`
  min-height: 48px;
  padding: ${({ theme }) => theme.space(1)} ${({ theme }) => theme.space(2)};
  border-top: 4px solid ${({ theme, $rest }) => ($rest ? theme.colour.rule : theme.colour.ink)};
  background: ${({ theme, $rest }) => ($rest ? "none" : theme.colour.sheet)};
  font-size: 0.875rem;
  line-height: 1.25;
`;

/** The days of the plan, with rest days and days away, and the feed for calendar programs. */
export function CalendarPanel(props: { episodeId: string; library: Library }) {
  const { data, error } = useCalendar(props.episodeId);
  return (
    <section aria-label={say("take-home.calendar")} className="screen-only">
      <Stack $gap={3}>
        <h2>{say("take-home.calendar")}</h2>
        <ProblemNote error={error} />
        {data && (
          <>
            <Days calendar={data} library={props.library} />
            <Small>
              {say("take-home.review-by", {
                review: dayWords(data.review),
                rescreen: data.rescreen
                  ? say("take-home.screen-again-by-rescreen", { rescreen: dayWords(data.rescreen) })
                  : "",
              })}
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
  if (!first) return <p>{say("take-home.no-day-is-left-before")}</p>;
  const count = Math.min(21, Math.ceil((daysBetween(first, calendar.days.at(-1)!.day) + 1) / 7) * 7);
  const most = Math.max(...calendar.days.map((d) => d.rungIds.length));
  return (
    <Week aria-label={say("take-home.days")}>
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
            {trained ? (
              say("take-home.minutes-min", { minutes: trained.minutes.toFixed(0) })
            ) : (
              <Quiet>{away ? say("take-home.away") : say("take-home.rest")}</Quiet>
            )}
            {trained && trained.rungIds.length < most && (
              <>
                <br />
                <Quiet>
                  {say("take-home.without-left", {
                    left: left.map((id) => findRung(library, id).rung.name).join(", "),
                  })}
                </Quiet>
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
        {say("take-home.save-as-a-calendar-file")}
      </a>
      <a
        href={`/api/episodes/${props.episodeId}/calendar.ics?alarm=60`}
        download
        style={{ color: "inherit" }}
      >
        {say("take-home.with-a-reminder")}
      </a>
      {props.feed ? (
        <>
          <span>
            {sayRich("take-home.feed", {
              address: `${window.location.origin}${props.feed}`,
              code: (chunks) => <code style={{ overflowWrap: "anywhere" }}>{chunks}</code>,
            })}
          </span>
          <Button $quiet $small onPress={() => change.mutate(false)}>
            {say("take-home.close-the-feed")}
          </Button>
        </>
      ) : (
        <Button $quiet $small onPress={() => change.mutate(true)}>
          {say("take-home.open-a-feed-for-the")}
        </Button>
      )}
      <ProblemNote error={change.error} />
      <Small>{say("take-home.a-newer-plan-takes-the")}</Small>
    </Row>
  );
}
