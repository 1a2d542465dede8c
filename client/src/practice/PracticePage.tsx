import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, got } from "../api/client";
import { dayWords, momentWords, timeWords } from "../api/clinicTime";
import { useLibrary } from "../api/queries";
import type { PracticeRun, PracticeTeamRow, PracticeView } from "../api/types";
import { Button } from "../controls/Button";
import { NumberField, TextField, Ticks } from "../controls/fields";
import { Columns, Note, Page, ProblemNote, Row, Ruled, Small, Stack } from "../controls/layout";
import { PageHead } from "../controls/PageHead";
import { useRoles } from "../frame/useRoles";
import { say } from "../words/say";
import { OwnFigures } from "./OwnFigures";
import { usePractice } from "./usePractice";

/** Of either kind; more tire. */
const recordedMost = 40;

/** Where the eye is trained: drills of one's own, sessions of the team, and what is known of one's own eye. */
export function PracticePage() {
  const { settles } = useRoles();
  const { data, error } = usePractice();
  return (
    <Page>
      <PageHead
        title={say("practice.practice-room")}
        ways={[
          ...(settles ? [{ to: "/settings?part=eye", name: say("practice.what-it-changes") }] : []),
          { to: "/library", name: say("practice.library") },
          { to: "/", name: say("practice.the-day") },
        ]}
      />
      <ProblemNote error={error} />
      {data && (
        <Columns $at="minmax(0, 400px) minmax(0, 1fr)">
          <Stack $gap={6}>
            <Begin view={data} />
            <Runs view={data} />
          </Stack>
          <Stack $gap={6}>
            <section aria-labelledby="own">
              <h2 id="own">{say("practice.your-eye")}</h2>
              <Row $between style={{ marginBottom: 12 }}>
                <Small as="span">{say("practice.yours-alone")}</Small>
                {data.own.enough && (
                  <Link to="/practice/certificate">{say("practice.certificate-of-practice")}</Link>
                )}
              </Row>
              <OwnFigures own={data.own} />
            </section>
            <Columns $at="repeat(2, minmax(0, 1fr))">
              <Teams teams={data.teams} />
              <Recorded view={data} />
            </Columns>
          </Stack>
        </Columns>
      )}
    </Page>
  );
}

function Begin({ view }: { view: PracticeView }) {
  const { data: library } = useLibrary();
  const navigate = useNavigate();
  const [faults, setFaults] = useState<string[]>([]);
  const [chosen, setChosen] = useState(false);
  const [clips, setClips] = useState<number | null>(20);
  const begin = useMutation({
    mutationFn: (episode: string | null) =>
      got(
        api.POST("/api/practice/drills", {
          body: { faults: chosen ? faults : [], episode, clips: clips ?? 20, minutes: 8 },
        }),
      ),
    onSuccess: (run: PracticeRun) => void navigate(`/practice/runs/${run.id}`),
  });
  return (
    <section aria-labelledby="drill">
      <Stack $gap={3}>
        <h2 id="drill">{say("practice.a-drill")}</h2>
        <p>{say("practice.what-a-drill-is")}</p>
        {view.due && (
          <Note>
            {view.lastOn
              ? say("practice.due-since", { day: dayWords(view.lastOn) })
              : say("practice.due-never")}
          </Note>
        )}
        {view.open && (
          <Link to={`/practice/runs/${view.open.id}`}>
            {say("practice.go-on", { answered: view.open.answered })}
          </Link>
        )}
        <NumberField
          label={say("practice.clips-at-most")}
          value={clips}
          onChange={setClips}
          min={12}
          max={30}
        />
        <Button isDisabled={begin.isPending} onPress={() => begin.mutate(null)}>
          {say("practice.begin")}
        </Button>
        {view.coming.map((client) => (
          <Button
            key={client.episode}
            $quiet
            isDisabled={begin.isPending}
            onPress={() => begin.mutate(client.episode)}
          >
            {say("practice.for-client", { name: client.name, at: timeWords(client.at) })}
          </Button>
        ))}
        <Button $quiet aria-expanded={chosen} onPress={() => setChosen(!chosen)}>
          {say("practice.choose-faults")}
        </Button>
        {chosen && library && (
          <Ticks
            label={say("practice.only-these-faults")}
            ticked={faults}
            onChange={setFaults}
            options={view.faults.map((code) => ({
              id: code,
              name: library.faults.find((fault) => fault.code === code)?.name ?? code,
            }))}
          />
        )}
        <ProblemNote error={begin.error} />
        <Small>{say("practice.caution")}</Small>
      </Stack>
    </section>
  );
}

function Teams({ teams }: { teams: PracticeTeamRow[] }) {
  const navigate = useNavigate();
  const [name, setName] = useState("");
  const [clips, setClips] = useState<number | null>(24);
  const make = useMutation({
    mutationFn: () => got(api.POST("/api/practice/teams", { body: { name, clips: clips ?? 24 } })),
    onSuccess: (made) => void navigate(`/practice/teams/${made.team.id}`),
  });
  return (
    <Ruled aria-labelledby="teams">
      <Stack $gap={3}>
        <h2 id="teams">{say("practice.team-sessions")}</h2>
        <p>{say("practice.what-a-team-session-is")}</p>
        {teams.map((team) => (
          <Row key={team.id} $between>
            <Link to={`/practice/teams/${team.id}`}>{team.name}</Link>
            <Small as="span">{say("practice.done-by", { done: team.done })}</Small>
          </Row>
        ))}
        <TextField label={say("practice.its-name")} value={name} onChange={setName} />
        <NumberField
          label={say("practice.different-clips")}
          value={clips}
          onChange={setClips}
          min={12}
          max={40}
        />
        <ProblemNote error={make.error} />
        <Button $quiet isDisabled={make.isPending || name.trim() === ""} onPress={() => make.mutate()}>
          {say("practice.make-it")}
        </Button>
      </Stack>
    </Ruled>
  );
}

function Recorded({ view }: { view: PracticeView }) {
  const navigate = useNavigate();
  const { there } = view;
  const [name, setName] = useState("");
  const [traces, setTraces] = useState<number | null>(Math.min(there.traces, recordedMost));
  const [photos, setPhotos] = useState<number | null>(Math.min(there.photos, recordedMost));
  const make = useMutation({
    mutationFn: () =>
      got(api.POST("/api/practice/recorded", { body: { name, traces: traces ?? 0, photos: photos ?? 0 } })),
    onSuccess: (made) => void navigate(`/practice/recorded/${made.session.id}`),
  });
  const none = there.traces + there.photos === 0;
  return (
    <Ruled aria-labelledby="recorded">
      <Stack $gap={3}>
        <h2 id="recorded">{say("practice.on-recorded")}</h2>
        <p>{say("practice.what-recorded-is")}</p>
        {view.recorded.map((session) => (
          <Row key={session.id} $between>
            <Link to={`/practice/recorded/${session.id}`}>{session.name}</Link>
            <Small as="span">
              {say("practice.rated-of", { rated: session.rated, items: session.items })}
            </Small>
          </Row>
        ))}
        {none ? (
          <Small>{say("practice.nobody-agreed-yet")}</Small>
        ) : (
          <>
            <TextField label={say("practice.recorded-name")} value={name} onChange={setName} />
            <Row $gap={4}>
              {there.traces > 0 && (
                <NumberField
                  label={say("practice.traces-of", { there: there.traces })}
                  value={traces}
                  onChange={setTraces}
                  min={0}
                  max={Math.min(there.traces, recordedMost)}
                />
              )}
              {there.photos > 0 && (
                <NumberField
                  label={say("practice.photographs-of", { there: there.photos })}
                  value={photos}
                  onChange={setPhotos}
                  min={0}
                  max={Math.min(there.photos, recordedMost)}
                />
              )}
            </Row>
            <ProblemNote error={make.error} />
            <Button
              $quiet
              isDisabled={make.isPending || name.trim() === "" || (traces ?? 0) + (photos ?? 0) === 0}
              onPress={() => make.mutate()}
            >
              {say("practice.make-it-of-these")}
            </Button>
          </>
        )}
      </Stack>
    </Ruled>
  );
}

function Runs({ view }: { view: PracticeView }) {
  if (view.runs.length === 0) return null;
  return (
    <Ruled aria-labelledby="runs">
      <h2 id="runs">{say("practice.what-you-did")}</h2>
      <ul>
        {view.runs.map((run) => (
          <li key={run.id}>
            <Link to={`/practice/runs/${run.id}`}>{run.teamName ?? say("practice.drill")}</Link>{" "}
            <Small as="span">
              {momentWords(run.startedAt)} · {say("practice.clips-answered", { answered: run.answered })}
            </Small>
          </li>
        ))}
      </ul>
    </Ruled>
  );
}
