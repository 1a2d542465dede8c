import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, got, ProblemError } from "../api/client";
import { birthWords, dayWords, momentWords, timeWords, today } from "../api/clinicTime";
import { keys, useLibrary } from "../api/queries";
import type { DischargeAsk } from "../api/types";
import { Button } from "../controls/Button";
import { Choice, TextField } from "../controls/fields";
import { DayField } from "../controls/DateField";
import { Columns, Note, ProblemNote, Quiet, Row, Ruled, Small, Stack } from "../controls/layout";
import { SubmitForm } from "../controls/SubmitForm";
import { useRoles } from "../frame/useRoles";
import { useUnsaved } from "../frame/unsaved";
import { useVisit } from "../frame/useVisit";
import { say } from "../words/say";

/** The end of an episode: what was reached, what was not and why, what the client goes on with. */
export function DischargePage() {
  const { episodeId, visitId } = useVisit();
  const { data: ask, error } = useQuery({
    queryKey: keys.discharge(episodeId),
    queryFn: () => got(api.GET("/api/episodes/{id}/discharge", { params: { path: { id: episodeId } } })),
  });
  if (!ask) return <ProblemNote error={error} />;
  return (
    <Columns $at="minmax(0, 1.4fr) minmax(280px, 1fr)">
      <Stack $gap={5}>
        <h1>{say("outcomes.discharge")}</h1>
        {ask.dischargedOn ? (
          <Reopen key={ask.version} ask={ask} episodeId={episodeId} visitId={visitId} />
        ) : (
          <Fields key={ask.version} ask={ask} episodeId={episodeId} />
        )}
        <History ask={ask} />
      </Stack>
      <Stack $gap={4}>
        <h2>{say("outcomes.how-it-went")}</h2>
        {ask.status.length === 0 && <Small>{say("outcomes.nothing-measured")}</Small>}
        {ask.status.map((line) => (
          <p key={line}>{line}</p>
        ))}
        <Still ask={ask} />
      </Stack>
    </Columns>
  );
}

/** What is open yet, and what goes with the discharge. */
function Still({ ask }: { ask: DischargeAsk }) {
  return (
    <>
      {ask.undecided.length > 0 && (
        <Note>
          {say("outcomes.undecided-sessions", { days: ask.undecided.map((d) => dayWords(d)).join(", ") })}
        </Note>
      )}
      {ask.booked.length > 0 && (
        <Note>
          {say("outcomes.booked-are-cancelled", {
            visits: ask.booked.map((b) => `${dayWords(b.plannedAt)} ${timeWords(b.plannedAt)}`).join(", "),
          })}
        </Note>
      )}
    </>
  );
}

interface Judged {
  goal: string;
  reached: boolean | null;
  why: string;
}

function useChange(episodeId: string, send: () => Promise<DischargeAsk>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: (stored) => {
      queries.setQueryData(keys.discharge(episodeId), stored);
      void queries.invalidateQueries();
    },
  });
}

function Fields(props: { ask: DischargeAsk; episodeId: string }) {
  const { ask, episodeId } = props;
  const { data: library } = useLibrary();
  const { judges } = useRoles();
  const [goals, setGoals] = useState<Judged[]>(ask.goals.map((goal) => ({ goal, reached: null, why: "" })));
  const [goOn, setGoOn] = useState("");
  const [note, setNote] = useState("");
  const [day, setDay] = useState(today());
  const discharge = useChange(episodeId, () =>
    got(
      api.POST("/api/episodes/{id}/discharge", {
        params: { path: { id: episodeId } },
        body: {
          summary: {
            goals: goals.map((g) => ({
              goal: g.goal,
              reached: g.reached === true,
              why: g.why.trim() || null,
            })),
            goOn,
            note: note.trim() || null,
          },
          version: ask.version,
          day,
        },
      }),
    ),
  );
  const problem = discharge.error instanceof ProblemError ? discharge.error : null;
  const judge = (i: number, change: Partial<Judged>) =>
    setGoals(goals.map((g, j) => (j === i ? { ...g, ...change } : g)));
  useUnsaved(goOn.trim() !== "" || note.trim() !== "" || goals.some((g) => g.reached !== null));
  const ready = goals.every((g) => g.reached !== null) && goOn.trim() !== "";
  if (!judges) return <Note>{say("outcomes.a-practitioner-discharges")}</Note>;
  return (
    <SubmitForm gap={5} onSubmit={() => ready && !discharge.isPending && discharge.mutate()}>
      {ask.why && <Note grave>{ask.why}</Note>}
      {goals.length === 0 && <Small>{say("outcomes.no-goals-were-named")}</Small>}
      {goals.map((g, i) => (
        <Stack key={g.goal} $gap={2}>
          <Choice
            label={library?.goals.find((goal) => goal.id === g.goal)?.name ?? g.goal}
            value={g.reached === null ? null : g.reached ? "yes" : "no"}
            onChange={(v) => judge(i, { reached: v === "yes" })}
            options={[
              { value: "yes", label: say("outcomes.reached") },
              { value: "no", label: say("outcomes.not-reached") },
            ]}
            error={problem?.field(`summary.goals[${i}].goal`)}
          />
          {g.reached === false && (
            <TextField
              label={say("outcomes.why-not")}
              value={g.why}
              onChange={(why) => judge(i, { why })}
              error={problem?.field(`summary.goals[${i}].why`)}
            />
          )}
        </Stack>
      ))}
      <TextField
        long
        label={say("outcomes.goes-on-with")}
        hint={say("outcomes.goes-on-hint")}
        value={goOn}
        onChange={setGoOn}
        error={problem?.field("summary.goOn")}
      />
      <TextField
        long
        label={say("outcomes.whatever-else")}
        value={note}
        onChange={setNote}
        error={problem?.field("summary.note")}
      />
      <div style={{ maxWidth: 300 }}>
        <DayField
          label={say("outcomes.day-of-discharge")}
          value={day}
          onChange={setDay}
          error={problem?.field("day")}
        />
      </div>
      {problem && problem.fields.length === 0 && <ProblemNote error={problem} />}
      <Row>
        <Button type="submit" isDisabled={!ready || discharge.isPending}>
          {say("outcomes.discharge-it")}
        </Button>
        <Small>{say("outcomes.discharge-means")}</Small>
      </Row>
    </SubmitForm>
  );
}

function Reopen(props: { ask: DischargeAsk; episodeId: string; visitId: string }) {
  const { ask, episodeId } = props;
  const { judges } = useRoles();
  const [reason, setReason] = useState("");
  const reopen = useChange(episodeId, () =>
    got(
      api.POST("/api/episodes/{id}/reopen", {
        params: { path: { id: episodeId } },
        body: { version: ask.version, reason },
      }),
    ),
  );
  return (
    <Stack $gap={4}>
      <Note>
        {say("outcomes.is-discharged", { day: birthWords(ask.dischargedOn ?? "") })}{" "}
        <Link to={`/episodes/${episodeId}/visits/${props.visitId}/letter`}>
          {say("outcomes.the-last-letter")}
        </Link>
      </Note>
      {judges && (
        <SubmitForm onSubmit={() => reason.trim() && reopen.mutate()}>
          <TextField label={say("outcomes.why-reopen")} value={reason} onChange={setReason} />
          <ProblemNote error={reopen.error} />
          <Row>
            <Button type="submit" $quiet isDisabled={!reason.trim() || reopen.isPending}>
              {say("outcomes.reopen")}
            </Button>
          </Row>
        </SubmitForm>
      )}
    </Stack>
  );
}

function History({ ask }: { ask: DischargeAsk }) {
  const { data: library } = useLibrary();
  const name = (id: string) => library?.goals.find((goal) => goal.id === id)?.name ?? id;
  return ask.discharges.map((d) => (
    <Ruled key={d.at}>
      <strong>{say("outcomes.discharged-on", { day: birthWords(d.day) })}</strong>{" "}
      <Quiet>{say("outcomes.by-at", { by: d.by, at: momentWords(d.at) })}</Quiet>
      <ul>
        {d.summary.goals.map((g) => (
          <li key={g.goal}>
            {name(g.goal)}: {g.reached ? say("outcomes.reached") : say("outcomes.not-reached")}
            {g.why && ` (${g.why})`}
          </li>
        ))}
      </ul>
      <p>{d.summary.goOn}</p>
      {d.summary.note && <p>{d.summary.note}</p>}
      {d.reopenedOn && (
        <Small>
          {say("outcomes.reopened-on", {
            day: birthWords(d.reopenedOn),
            by: d.reopenedBy ?? "",
            reason: d.reopenReason ?? "",
          })}
        </Small>
      )}
    </Ruled>
  ));
}
