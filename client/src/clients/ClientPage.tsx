import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, got, ProblemError } from "../api/client";
import { birthWords, dayWords, timeWords } from "../api/clinicTime";
import { keys, useClient } from "../api/queries";
import type { Booking, ClientCard, ClientForm, EpisodeLine, ErasureCertificate } from "../api/types";
import { Button } from "../controls/Button";
import { Columns, Note, Page, ProblemNote, Quiet, Row, Ruled, Small, Stack } from "../controls/layout";
import { PageHead } from "../controls/PageHead";
import { SubmitForm } from "../controls/SubmitForm";
import { Alike } from "../frame/Alike";
import { BookDialog } from "../frame/BookDialog";
import { useRoles } from "../frame/useRoles";
import { useUnsaved } from "../frame/unsaved";
import { VisitDialog } from "../frame/VisitDialog";
import { calledOffWords } from "../frame/calledOffWords";
import { say } from "../words/say";
import { Certificate } from "./Certificate";
import { ClientFields } from "./ClientFields";
import { ErasePanel } from "./ErasePanel";
import { MergePanel } from "./MergePanel";
import { RecordPanel } from "./RecordPanel";

/** A client at the desk: who they are, their visits and episodes. */
export function ClientPage() {
  const { clientId = "" } = useParams();
  const { data: client, error } = useClient(clientId);
  const [erased, setErased] = useState<ErasureCertificate | null>(null);
  // Of them there is nothing left but this.
  if (erased) return <Certificate certificate={erased} />;
  if (!client) {
    return (
      <Page>
        <ProblemNote error={error} />
      </Page>
    );
  }
  return (
    <Page>
      <PageHead
        title={
          <>
            {client.name}{" "}
            <Quiet style={{ fontSize: "1.0625rem", fontWeight: 400 }}>
              {say("clients.born-day", { day: birthWords(client.birthDate), age: client.age })} ·{" "}
              {client.number}
            </Quiet>
          </>
        }
        ways={[
          { to: "/clients", name: say("clients.clients") },
          { to: "/", name: say("clients.the-day") },
        ]}
      />
      {client.mergedIntoId ? (
        <Note>
          {say("clients.merged")}{" "}
          <Link to={`/clients/${client.mergedIntoId}`}>{say("clients.open-that")}</Link>
        </Note>
      ) : (
        <Card client={client} onErased={setErased} />
      )}
    </Page>
  );
}

function Card({ client, onErased }: { client: ClientCard; onErased: (of: ErasureCertificate) => void }) {
  const [booking, setBooking] = useState(false);
  const [changing, setChanging] = useState<Booking | null>(null);
  const navigate = useNavigate();
  const { books, clinical, administers, settles } = useRoles();
  const [now] = useState(() => Date.now());
  const later = client.bookings.filter((b) => new Date(b.plannedAt).getTime() > now).reverse();
  const before = client.bookings.filter((b) => new Date(b.plannedAt).getTime() <= now);
  return (
    <Stack $gap={5}>
      {client.archived && <Note>{say("clients.is-archived")}</Note>}
      {client.imports.map((from) => (
        <Small key={from.at}>
          {from.from
            ? say("clients.imported-from", { clinic: from.from, day: dayWords(from.at), by: from.by })
            : say("clients.imported", { day: dayWords(from.at), by: from.by })}
        </Small>
      ))}
      {client.guardianMissing && <Note>{say("clients.guardian-missing")}</Note>}
      <Columns $at="minmax(0, 1fr) minmax(0, 1fr)">
        <Stack $gap={4}>
          <Row $between>
            <h2>{say("clients.visits")}</h2>
            {books && <Button onPress={() => setBooking(true)}>{say("clients.book")}</Button>}
          </Row>
          {later.length === 0 && <Small>{say("clients.nothing-booked")}</Small>}
          <Visits bookings={later} onChange={books ? setChanging : null} />
          {before.length > 0 && <h3>{say("clients.before-now")}</h3>}
          <Visits bookings={before.slice(0, 12)} onChange={books ? setChanging : null} />
        </Stack>
        <Stack $gap={4}>
          <h2>{say("clients.episodes")}</h2>
          {client.episodes.length === 0 && <Small>{say("clients.no-episode")}</Small>}
          {client.episodes.map((episode) => (
            <Episode key={episode.id} episode={episode} clinical={clinical} />
          ))}
        </Stack>
      </Columns>
      {books && <Details key={client.version} client={client} />}
      <Columns>
        {settles && <MergePanel client={client} />}
        <Stack $gap={4}>
          {settles && <RecordPanel client={client} />}
          {books && <Archive client={client} />}
          {administers && <ErasePanel client={client} onErased={onErased} />}
        </Stack>
      </Columns>
      {booking && (
        <BookDialog
          clientId={client.id}
          onDone={(booked) => {
            setBooking(false);
            if (booked?.now && clinical)
              void navigate(`/episodes/${booked.episodeId}/visits/${booked.visitId}/ask`);
          }}
        />
      )}
      {changing && (
        <VisitDialog
          visit={changing}
          open={clinical ? `/episodes/${changing.episodeId}/visits/${changing.visitId}/ask` : null}
          onDone={() => setChanging(null)}
        />
      )}
    </Stack>
  );
}

function Visits(props: { bookings: Booking[]; onChange: ((booking: Booking) => void) | null }) {
  const { onChange } = props;
  return (
    <ul style={{ margin: 0, padding: 0, listStyle: "none" }}>
      {props.bookings.map((b) => (
        <li key={b.visitId}>
          <Ruled>
            <Row $between style={{ flexWrap: "nowrap" }}>
              <span style={{ textDecoration: b.calledOff ? "line-through" : undefined }}>
                <strong>{dayWords(b.plannedAt)}</strong> {timeWords(b.plannedAt)} {b.withName}
              </span>
              <Quiet>
                {[b.calledOff && calledOffWords[b.calledOff], b.fromPaper && say("clients.from-paper")]
                  .filter(Boolean)
                  .join(", ")}
              </Quiet>
              {onChange && (
                <Button
                  $quiet
                  $small
                  aria-label={say("clients.change-visit-of-day", { day: dayWords(b.plannedAt) })}
                  onPress={() => onChange(b)}
                >
                  {say("clients.change")}
                </Button>
              )}
            </Row>
          </Ruled>
        </li>
      ))}
    </ul>
  );
}

function Episode(props: { episode: EpisodeLine; clinical: boolean }) {
  const { episode } = props;
  const name = episode.complaint || say("clients.episode-of-day", { day: birthWords(episode.openedOn) });
  return (
    <Ruled>
      <p>
        {props.clinical && episode.visitId ? (
          <Link to={`/episodes/${episode.id}/visits/${episode.visitId}/ask`} style={{ fontWeight: 600 }}>
            {name}
          </Link>
        ) : (
          <strong>{name}</strong>
        )}
      </p>
      <Small>
        {say("clients.since-day-n-visits", { day: birthWords(episode.openedOn), n: episode.visits })}{" "}
        {episode.dischargedOn
          ? say("clients.discharged-on", { day: birthWords(episode.dischargedOn) })
          : episode.asked
            ? say("clients.open")
            : say("clients.not-asked-yet")}
      </Small>
      {props.clinical && episode.visitId && (
        <Link to={`/episodes/${episode.id}/visits/${episode.visitId}/discharge`}>
          {episode.dischargedOn ? say("clients.discharge-and-reopen") : say("clients.discharge")}
        </Link>
      )}
    </Ruled>
  );
}

function Details({ client }: { client: ClientCard }) {
  const stored: ClientForm = {
    name: client.name,
    birthDate: client.birthDate,
    number: client.number,
    phone: client.phone,
    email: client.email,
    address: client.address,
    guardian: client.guardian,
    deskNotes: client.deskNotes,
    inChargeId: client.inChargeId,
    version: client.version,
  };
  const [form, setForm] = useState(stored);
  const queries = useQueryClient();
  const save = useMutation({
    mutationFn: () =>
      got(api.PUT("/api/clients/{clientId}", { params: { path: { clientId: client.id } }, body: form })),
    onSuccess: (card) => {
      queries.setQueryData(keys.client(client.id), card);
      void queries.invalidateQueries();
    },
  });
  const problem = save.error instanceof ProblemError ? save.error : null;
  const changed = JSON.stringify(form) !== JSON.stringify(stored);
  useUnsaved(changed);
  return (
    <Ruled>
      <SubmitForm onSubmit={() => changed && !save.isPending && save.mutate()}>
        <h2>{say("clients.details")}</h2>
        <Alike name={form.name} birthDate={form.birthDate} phone={form.phone} besides={client.id} />
        <ClientFields form={form} onChange={setForm} problem={problem} />
        {problem && problem.fields.length === 0 && <ProblemNote error={problem} />}
        {problem?.status === 409 && (
          <Row>
            <Button
              $quiet
              $small
              onPress={() => void queries.invalidateQueries({ queryKey: keys.client(client.id) })}
            >
              {say("clients.show-the-stored-one")}
            </Button>
          </Row>
        )}
        <Row>
          <Button type="submit" isDisabled={!changed || save.isPending}>
            {say("clients.keep")}
          </Button>
        </Row>
      </SubmitForm>
    </Ruled>
  );
}

function Archive({ client }: { client: ClientCard }) {
  const queries = useQueryClient();
  const put = useMutation({
    mutationFn: () =>
      got(
        api.PUT("/api/clients/{clientId}/archived", {
          params: { path: { clientId: client.id } },
          body: { archived: !client.archived, version: client.version },
        }),
      ),
    onSuccess: () => queries.invalidateQueries(),
  });
  return (
    <Ruled>
      <Stack $gap={2}>
        <Small>{say("clients.archive-means")}</Small>
        <ProblemNote error={put.error} />
        <Row>
          <Button $quiet isDisabled={put.isPending} onPress={() => put.mutate()}>
            {client.archived ? say("clients.back-into-the-lists") : say("clients.archive")}
          </Button>
        </Row>
      </Stack>
    </Ruled>
  );
}
