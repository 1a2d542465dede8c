import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, got, ProblemError } from "../api/client";
import { birthWords } from "../api/clinicTime";
import { useFoundClients } from "../api/queries";
import type { ClientCard, ClientLine } from "../api/types";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { Note, ProblemNote, Quiet, Row, Ruled, Small, Stack } from "../controls/layout";
import { Opener } from "../controls/DataTable";
import { Picker } from "../controls/Picker";
import { SubmitForm } from "../controls/SubmitForm";
import { say } from "../words/say";

/** The same person twice, or two people in one: everything is filed where it belongs, and the record says so. */
export function MergePanel({ client }: { client: ClientCard }) {
  const [open, setOpen] = useState(false);
  return (
    <Ruled>
      <Opener aria-expanded={open} onPress={() => setOpen(!open)}>
        {say("clients.twice-or-mixed-up")}
      </Opener>
      {open && (
        <Stack $gap={5}>
          <Merge client={client} />
          {client.episodes.length > 0 && <Split client={client} />}
        </Stack>
      )}
    </Ruled>
  );
}

/** Another client, found by words. */
function Other(props: {
  label: string;
  not: string;
  picked: ClientLine | null;
  onPick: (line: ClientLine) => void;
}) {
  const [words, setWords] = useState("");
  const { data } = useFoundClients(words.trim());
  const lines = words.trim() ? (data ?? []).filter((line) => line.clientId !== props.not) : [];
  return (
    <Stack $gap={2}>
      <TextField label={props.label} value={words} onChange={setWords} />
      {lines.slice(0, 6).map((line) => (
        <Row key={line.clientId} $between>
          <span>
            {line.name} <Quiet>{`${birthWords(line.birthDate)}, ${line.number}`}</Quiet>
          </span>
          <Button $quiet $small onPress={() => props.onPick(line)}>
            {say("clients.this-one")}
          </Button>
        </Row>
      ))}
      {props.picked && (
        <Note>
          <strong>{props.picked.name}</strong> {birthWords(props.picked.birthDate)}, {props.picked.number}
        </Note>
      )}
    </Stack>
  );
}

function Merge({ client }: { client: ClientCard }) {
  const [into, setInto] = useState<ClientLine | null>(null);
  const [reason, setReason] = useState("");
  const queries = useQueryClient();
  const navigate = useNavigate();
  const merge = useMutation({
    mutationFn: () =>
      got(
        api.POST("/api/clients/{clientId}/merge", {
          params: { path: { clientId: client.id } },
          body: { intoId: into?.clientId ?? "", reason },
        }),
      ),
    onSuccess: (card) => {
      void queries.invalidateQueries();
      void navigate(`/clients/${card.id}`);
    },
  });
  return (
    <SubmitForm onSubmit={() => merge.mutate()}>
      <h3>{say("clients.the-same-as-another")}</h3>
      <Small>{say("clients.merge-means", { name: client.name })}</Small>
      <Other label={say("clients.the-other-client")} not={client.id} picked={into} onPick={setInto} />
      <TextField label={say("clients.why")} value={reason} onChange={setReason} />
      <ProblemNote error={merge.error} />
      <Row>
        <Button type="submit" $quiet isDisabled={!into || !reason.trim() || merge.isPending}>
          {say("clients.merge")}
        </Button>
      </Row>
    </SubmitForm>
  );
}

function Split({ client }: { client: ClientCard }) {
  const [episode, setEpisode] = useState(client.episodes[0]?.id ?? "");
  const [to, setTo] = useState<ClientLine | null>(null);
  const [reason, setReason] = useState("");
  const queries = useQueryClient();
  const navigate = useNavigate();
  const file = useMutation({
    mutationFn: () =>
      got(
        api.POST("/api/episodes/{id}/client", {
          params: { path: { id: episode } },
          body: { clientId: to?.clientId ?? null, reason, name: null, birthDate: null },
        }),
      ),
    onSuccess: (card) => {
      void queries.invalidateQueries();
      void navigate(`/clients/${card.id}`);
    },
  });
  const problem = file.error instanceof ProblemError ? file.error : null;
  return (
    <SubmitForm onSubmit={() => file.mutate()}>
      <h3>{say("clients.an-episode-of-somebody-else")}</h3>
      <Small>{say("clients.split-means")}</Small>
      <Picker
        label={say("clients.episode")}
        value={episode}
        onPick={setEpisode}
        options={client.episodes.map((e) => ({
          value: e.id,
          label: e.complaint || say("clients.episode-of-day", { day: birthWords(e.openedOn) }),
        }))}
      />
      <Other label={say("clients.belongs-to")} not={client.id} picked={to} onPick={setTo} />
      <TextField
        label={say("clients.why")}
        value={reason}
        onChange={setReason}
        error={problem?.field("reason")}
      />
      {problem && problem.fields.length === 0 && <ProblemNote error={problem} />}
      <Row>
        <Button type="submit" $quiet isDisabled={!to || !reason.trim() || file.isPending}>
          {say("clients.file-it-there")}
        </Button>
      </Row>
    </SubmitForm>
  );
}
