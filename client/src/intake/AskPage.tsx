import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, got, ProblemError } from "../api/client";
import { keys } from "../api/queries";
import type { DangerReport, EpisodeView, VisitView } from "../api/types";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { Note, ProblemNote, Quiet, Row, Ruled, Small, Stack } from "../controls/layout";
import { dayWords } from "../api/clinicTime";
import { useVisit } from "../frame/useVisit";
import { IntakeFields, missing, toForm, type Draft } from "./IntakeFields";

export function AskPage() {
  const { episode, visit } = useVisit();
  if (!episode) return null;
  return (
    <Stack $gap={6}>
      <h1>Ask</h1>
      {episode.dangerReports.map((report) =>
        report.clearedAt === null ? (
          <OpenReport key={report.id} report={report} episodeId={episode.id} />
        ) : (
          <ClearedReport key={report.id} report={report} />
        ),
      )}
      {visit && <Edit key={episode.version} episode={episode} visit={visit} />}
    </Stack>
  );
}

function OpenReport(props: { report: DangerReport; episodeId: string }) {
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
    <Note grave>
      <Stack $gap={3}>
        <h2>{report.words}</h2>
        <p>
          Marked {dayWords(report.notedAt)} by {report.notedBy}.
          {report.sameDay && <strong> Send on the same day.</strong>} The later stations are closed until this
          is recorded.
        </p>
        <TextField
          long
          label="What was found"
          value={found}
          onChange={setFound}
          error={problem?.field("found")}
        />
        <TextField
          long
          label="What was done about it"
          value={done}
          onChange={setDone}
          error={problem?.field("done")}
        />
        {problem && problem.fields.length === 0 && <ProblemNote error={problem} />}
        <Row>
          <Button
            isDisabled={!found.trim() || !done.trim() || clear.isPending}
            onPress={() => clear.mutate()}
          >
            Record and open the stations
          </Button>
          <Small>Your name and the time are recorded with it.</Small>
        </Row>
      </Stack>
    </Note>
  );
}

function ClearedReport({ report }: { report: DangerReport }) {
  return (
    <Ruled>
      <strong>{report.words}</strong>
      <Small>
        {dayWords(report.notedAt)}, {report.notedBy}. Dealt with{" "}
        {report.clearedAt && dayWords(report.clearedAt)} by {report.clearedBy}. Found: {report.found} Done:{" "}
        {report.done}
      </Small>
    </Ruled>
  );
}

function Edit(props: { episode: EpisodeView; visit: VisitView }) {
  const { episode, visit } = props;
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [draft, setDraft] = useState<Draft>({
    ...episode.intake,
    flagsAsked: visit.flags === null ? null : true,
  });
  const save = useMutation({
    mutationFn: () =>
      got(
        api.PUT("/api/episodes/{id}/intake", {
          params: { path: { id: episode.id } },
          body: { ...toForm(draft), visitId: visit.id },
        }),
      ),
    onSuccess: (stored) => {
      queries.setQueryData(keys.episode(episode.id), stored);
      void queries.invalidateQueries();
      if (!stored.closed) void navigate(`/episodes/${episode.id}/visits/${visit.id}/neutral`);
    },
  });
  const problem = save.error instanceof ProblemError ? save.error : null;
  const lacks = missing(draft, visit.number === 1);
  return (
    <Stack $gap={6}>
      {visit.number > 1 && (
        <Small>
          Answers given here are this visit’s own; what was told at earlier visits stays as it was.
        </Small>
      )}
      <IntakeFields draft={draft} onChange={setDraft} problem={problem} />
      <ProblemNote error={save.error} />
      {problem?.status === 409 && <Conflict current={problem.current as EpisodeView} onTake={setDraft} />}
      <Row>
        <Button isDisabled={lacks !== null || save.isPending} onPress={() => save.mutate()}>
          Keep and go on
        </Button>
        {lacks && <Quiet>Still to ask: {lacks}.</Quiet>}
      </Row>
    </Stack>
  );
}

/** Both versions of what differs, and a way to go on from the stored one. */
function Conflict(props: { current: EpisodeView | null; onTake: (form: EpisodeView["intake"]) => void }) {
  const theirs = props.current?.intake;
  if (!theirs) return null;
  return (
    <Note>
      <p>
        Stored meanwhile: {theirs.name}, pain now {theirs.pain.now}, usual {theirs.pain.usual};{" "}
        {theirs.complaint}
      </p>
      <Row style={{ marginTop: 8 }}>
        <Button $quiet onPress={() => props.onTake(theirs)}>
          Go on from the stored version
        </Button>
      </Row>
    </Note>
  );
}
