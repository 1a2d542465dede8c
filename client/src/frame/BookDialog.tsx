import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Dialog, Heading } from "react-aria-components";
import { v7 as uuid } from "uuid";
import { api, got, ProblemError } from "../api/client";
import { addDays, dayWords, today } from "../api/clinicTime";
import { useClient } from "../api/queries";
import type { ClientCard, SeriesBooked } from "../api/types";
import { Button } from "../controls/Button";
import { Choice, NumberField } from "../controls/fields";
import { Columns, Note, ProblemNote, Row, Small, Stack } from "../controls/layout";
import { Sheet, Veil } from "../controls/Modal";
import { Picker } from "../controls/Picker";
import { SubmitForm } from "../controls/SubmitForm";
import { say } from "../words/say";
import { useRoles } from "./useRoles";
import { Taken, WhenFields, wrongIn, type VisitTime } from "./WhenFields";

type When = "then" | "now" | "paper";

/** What was booked: where to go on. */
export interface Booked {
  episodeId: string;
  visitId: string;
  now: boolean;
}

/** Books a visit of a client: at a time, now, several at once, or one that has been, from paper. */
export function BookDialog(props: {
  clientId: string;
  /** Day to begin with; none: today in a week. */
  day?: string;
  onDone: (booked: Booked | null) => void;
}) {
  const { data: client, error } = useClient(props.clientId);
  return (
    <Veil isOpen isDismissable onOpenChange={(open) => !open && props.onDone(null)}>
      <Sheet>
        <Dialog>{client ? <Fields {...props} client={client} /> : <ProblemNote error={error} />}</Dialog>
      </Sheet>
    </Veil>
  );
}

const newEpisode = "new";

/** What is sent, with the id that makes a second tap the same one. */
function useBooking(client: ClientCard, onBooked: (booked: Booked, series: SeriesBooked | null) => void) {
  const queries = useQueryClient();
  const [id] = useState(() => uuid());
  return useMutation({
    mutationFn: async (asked: {
      episode: string;
      when: When;
      at: string;
      who: string | null;
      minutes: number;
      count: number;
      everyDays: number;
      anyway: boolean;
    }) => {
      const visit = {
        id,
        plannedAt: asked.when === "now" ? null : `${asked.at}:00`,
        withId: asked.who,
        minutes: asked.minutes,
        fromPaper: asked.when === "paper",
        anyway: asked.anyway,
      };
      let { episode } = asked;
      let first: string | null = null;
      if (episode === newEpisode) {
        const opened = await got(
          api.POST("/api/clients/{clientId}/episodes", {
            params: { path: { clientId: client.id } },
            body: { visit },
          }),
        );
        episode = opened.episodeId;
        first = opened.visitId;
      }
      const path = { params: { path: { id: episode } } };
      const { at, everyDays, who, minutes, anyway } = asked;
      // The first of a new episode is booked with it; the others follow.
      const left = asked.when === "then" ? asked.count - (first ? 1 : 0) : 1;
      const from = first ? `${addDays(at.slice(0, 10), everyDays)}${at.slice(10)}:00` : `${at}:00`;
      if (left > 1) {
        const series = await got(
          api.POST("/api/episodes/{id}/visits/series", {
            ...path,
            body: { id, first: from, everyDays, count: left, withId: who, minutes, anyway },
          }),
        );
        const visitId = first ?? series.booked[0]?.visitId ?? "";
        return { booked: { episodeId: episode, visitId, now: false }, series };
      }
      if (first && left === 1 && asked.count > 1) {
        await got(
          api.POST("/api/episodes/{id}/visits", { ...path, body: { ...visit, id: uuid(), plannedAt: from } }),
        );
      }
      const visitId =
        first ?? (await got(api.POST("/api/episodes/{id}/visits", { ...path, body: visit }))).id;
      return { booked: { episodeId: episode, visitId, now: asked.when === "now" }, series: null };
    },
    onSuccess: async ({ booked, series }) => {
      // What was booked is there when the dialog closes.
      await queries.invalidateQueries();
      onBooked(booked, series);
    },
  });
}

function Fields(props: { client: ClientCard; day?: string; onDone: (booked: Booked | null) => void }) {
  const { client } = props;
  const { clinical } = useRoles();
  const open = client.episodes.filter((e) => e.dischargedOn === null);
  const [episode, setEpisode] = useState(open[0]?.id ?? newEpisode);
  const [when, setWhen] = useState<When>("then");
  const [time, setTime] = useState<VisitTime>({
    at: `${props.day ?? addDays(today(), 7)}T10:00`,
    who: client.inChargeId ?? null,
    minutes: 30,
  });
  const [count, setCount] = useState<number | null>(1);
  const [everyDays, setEveryDays] = useState<number | null>(7);
  const [series, setSeries] = useState<{ booked: Booked; told: SeriesBooked } | null>(null);
  const book = useBooking(client, (booked, told) =>
    told && told.leftOut.length > 0 ? setSeries({ booked, told }) : props.onDone(booked),
  );
  if (series) {
    return (
      <Stack $gap={4}>
        <Heading slot="title">{say("frame.n-visits-booked", { n: series.told.booked.length })}</Heading>
        <Note>
          <strong>{say("frame.left-out")}</strong>
          <ul>
            {series.told.leftOut.map((left) => (
              <li key={left.at}>
                {dayWords(left.at.slice(0, 10))}: {left.why}
              </li>
            ))}
          </ul>
        </Note>
        <Row>
          <Button onPress={() => props.onDone(series.booked)}>{say("frame.done")}</Button>
        </Row>
      </Stack>
    );
  }
  const problem = book.error instanceof ProblemError ? book.error : null;
  const send = (anyway: boolean) =>
    book.mutate({
      episode,
      when,
      at: time.at,
      who: time.who,
      minutes: time.minutes ?? 30,
      count: count ?? 1,
      everyDays: everyDays ?? 7,
      anyway,
    });
  const episodes = [
    ...open.map((e) => ({
      value: e.id,
      label: e.complaint || say("frame.episode-since", { day: dayWords(e.openedOn) }),
    })),
    { value: newEpisode, label: say("frame.a-new-episode") },
  ];
  return (
    <SubmitForm onSubmit={() => send(false)}>
      <Heading slot="title">{say("frame.book-name", { name: client.name })}</Heading>
      <Choice
        label={say("frame.when")}
        value={when}
        onChange={setWhen}
        options={[
          { value: "then", label: say("frame.at-a-time") },
          { value: "now", label: say("frame.now-walked-in") },
          ...(clinical ? [{ value: "paper" as const, label: say("frame.it-has-been-from-paper") }] : []),
        ]}
      />
      <WhenFields time={time} onChange={setTime} timed={when !== "now"} error={wrongIn(problem)} />
      {when === "then" && (
        <Columns $at="1fr 1fr" style={{ gap: 16 }}>
          <NumberField
            label={say("frame.how-many-visits")}
            value={count}
            onChange={setCount}
            min={1}
            max={26}
            error={problem?.field("count")}
          />
          {(count ?? 1) > 1 && (
            <NumberField
              label={say("frame.days-apart")}
              value={everyDays}
              onChange={setEveryDays}
              min={1}
              max={60}
              error={problem?.field("everyDays")}
            />
          )}
        </Columns>
      )}
      {episodes.length > 1 && (
        <Picker label={say("frame.episode")} value={episode} onPick={setEpisode} options={episodes} />
      )}
      {when === "paper" && <Small>{say("frame.paper-is-marked")}</Small>}
      <Taken error={problem} busy={book.isPending} onAnyway={() => send(true)} />
      <Row>
        <Button type="submit" isDisabled={book.isPending || (when !== "now" && !time.at)}>
          {say("frame.book")}
        </Button>
        <Button $quiet onPress={() => props.onDone(null)}>
          {say("frame.close")}
        </Button>
      </Row>
    </SubmitForm>
  );
}
