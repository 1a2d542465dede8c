import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, got, ProblemError } from "../api/client";
import { keys } from "../api/queries";
import type { DangerReport, EpisodeView, VisitView } from "../api/types";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { Columns, Note, ProblemNote, Row, Ruled, Small, Stack } from "../controls/layout";
import { dayWords } from "../api/clinicTime";
import { useHold } from "../frame/useHold";
import { useRoles } from "../frame/useRoles";
import { useUnsaved } from "../frame/unsaved";
import { useVisit } from "../frame/useVisit";
import { AsItStands } from "./AsItStands";
import { missing, toForm, type Draft } from "./IntakeFields";
import { IntakeSteps, type StepName } from "./IntakeSteps";
import { say } from "../words/say";

export function AskPage() {
  const { episode, visit } = useVisit();
  if (!episode) return null;
  return (
    <Stack $gap={4}>
      {episode.closed && <h1>{say("intake.ask")}</h1>}
      {episode.dangerReports.map((report) =>
        report.clearedAt === null ? (
          <OpenReport key={report.id} report={report} episodeId={episode.id} />
        ) : (
          <ClearedReport key={report.id} report={report} />
        ),
      )}
      {/* Until it has been dealt with nothing else is asked. */}
      {visit && !episode.closed && <Edit key={episode.version} episode={episode} visit={visit} />}
    </Stack>
  );
}

function OpenReport(props: { report: DangerReport; episodeId: string }) {
  const { report } = props;
  const { judges } = useRoles();
  return (
    <Note grave>
      <Stack $gap={3}>
        <h2>{report.words}</h2>
        <p>
          {say("intake.marked-notedat-by-notedby", {
            notedAt: dayWords(report.notedAt),
            notedBy: report.notedBy,
          })}
          {report.sameDay && <strong> {say("intake.send-on-the-same-day")}</strong>}{" "}
          {say("intake.the-later-stations-are-closed")}
        </p>
        {judges ? <DealtWith {...props} /> : <p>{say("intake.a-practitioner-records")}</p>}
      </Stack>
    </Note>
  );
}

function DealtWith(props: { report: DangerReport; episodeId: string }) {
  const { report, episodeId } = props;
  const queries = useQueryClient();
  const [found, setFound] = useState("");
  const [done, setDone] = useState("");
  const clear = useMutation({
    mutationFn: () =>
      got(
        api.POST("/api/episodes/{id}/danger-reports/{reportId}/cleared", {
          params: { path: { id: episodeId, reportId: report.id } },
          body: { found, done },
        }),
      ),
    onSuccess: () => queries.invalidateQueries(),
  });
  const problem = clear.error instanceof ProblemError ? clear.error : null;
  return (
    <>
      <Columns style={{ gap: 16 }}>
        <TextField
          long
          label={say("intake.what-was-found")}
          value={found}
          onChange={setFound}
          error={problem?.field("found")}
        />
        <TextField
          long
          label={say("intake.what-was-done-about-it")}
          value={done}
          onChange={setDone}
          error={problem?.field("done")}
        />
      </Columns>
      {problem && problem.fields.length === 0 && <ProblemNote error={problem} />}
      <Row>
        <Button isDisabled={!found.trim() || !done.trim() || clear.isPending} onPress={() => clear.mutate()}>
          {say("intake.record-and-open-the-stations")}
        </Button>
        <Small>{say("intake.your-name-and-the-time")}</Small>
      </Row>
    </>
  );
}

function ClearedReport({ report }: { report: DangerReport }) {
  return (
    <Ruled>
      <strong>{report.words}</strong>
      <Small>
        {say("intake.notedat-notedby-dealt-with-clearedat", {
          notedAt: dayWords(report.notedAt),
          notedBy: report.notedBy,
          clearedAt: report.clearedAt ? dayWords(report.clearedAt) : "",
          clearedBy: report.clearedBy ?? "",
          found: report.found ?? "",
          done: report.done ?? "",
        })}
      </Small>
    </Ruled>
  );
}

function Edit(props: { episode: EpisodeView; visit: VisitView }) {
  const { episode, visit } = props;
  const queries = useQueryClient();
  const navigate = useNavigate();
  const hold = useHold();
  const [first] = useState<Draft>(() => ({
    ...episode.intake,
    // Opened at the desk: nothing was answered yet, and a zero would be an answer.
    ...(episode.asked ? {} : { pain: { now: null, worst: null, usual: null }, settleHours: null }),
    // Its own answers, where it has some: those of other visits are not written over from here.
    ...visit.intake,
    flagsAsked: visit.flags === null ? null : true,
  }));
  const [draft, setDraft] = useState(first);
  const kept = useUnsaved(JSON.stringify(draft) !== JSON.stringify(first));
  const save = useMutation({
    mutationFn: () => {
      const form = { ...toForm(draft), visitId: visit.id };
      const path = { id: episode.id };
      return hold(() => got(api.PUT("/api/episodes/{id}/intake", { params: { path }, body: form })), {
        kind: "intake",
        episodeId: episode.id,
        visitId: visit.id,
        form,
        before: episode.intake,
      });
    },
    onSuccess: (stored) => {
      kept();
      // Held on the tablet: what is worked out of it comes later, and the screen can begin.
      if (!stored) return void navigate(`/episodes/${episode.id}/visits/${visit.id}/screen`);
      queries.setQueryData(keys.episode(episode.id), stored);
      void queries.invalidateQueries();
      if (!stored.closed && !stored.held) void navigate(`/episodes/${episode.id}/visits/${visit.id}/neutral`);
    },
  });
  const problem = save.error instanceof ProblemError ? save.error : null;
  const again = visit.number > 1 && episode.asked;
  const [open, setOpen] = useState<StepName | null>(again ? null : "first");
  if (open === null)
    return <AsItStands episode={episode} visitId={visit.id} draft={draft} onChange={setOpen} />;
  return (
    <IntakeSteps
      draft={draft}
      onChange={setDraft}
      problem={problem}
      head={<h1>{say("intake.ask")}</h1>}
      lacks={missing(draft, !again)}
      done={say("intake.keep-and-go-on")}
      pending={save.isPending}
      onDone={() => save.mutate()}
      begin={open}
      more={
        <>
          <ProblemNote error={save.error} />
          {problem?.status === 409 && <Conflict current={problem.current as EpisodeView} onTake={setDraft} />}
          {again && (
            <Button $quiet onPress={() => setOpen(null)}>
              {say("intake.back-to-what-stands")}
            </Button>
          )}
          <Link to={`/episodes/${episode.id}/visits/${visit.id}/chart`} style={{ marginInlineStart: "auto" }}>
            {say("intake.to-the-body-chart")}
          </Link>
        </>
      }
    />
  );
}

/** Both versions of what differs, and a way to go on from the stored one. */
function Conflict(props: { current: EpisodeView | null; onTake: (form: EpisodeView["intake"]) => void }) {
  const theirs = props.current?.intake;
  if (!theirs) return null;
  return (
    <Note>
      <p>
        {say("intake.stored-meanwhile-theirs-pain-now", {
          theirs: theirs.name,
          now: theirs.pain.now,
          usual: theirs.pain.usual,
          complaint: theirs.complaint,
        })}
      </p>
      <Row style={{ marginTop: 8 }}>
        <Button $quiet onPress={() => props.onTake(theirs)}>
          {say("intake.go-on-from-the-stored")}
        </Button>
      </Row>
    </Note>
  );
}
