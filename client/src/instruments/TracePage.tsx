import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, got } from "../api/client";
import { findRung, keys, useLibrary } from "../api/queries";
import type { Library, TraceView } from "../api/types";
import { liveTrials } from "../capture/liveTrial";
import { useCapture } from "../capture/useCapture";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { Columns, Note, ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { seconds } from "../controls/words";
import { PracticeConsent } from "../frame/PracticeConsent";
import { useTrialHome } from "../frame/useTrialHome";
import { useVisit } from "../frame/useVisit";
import { instrumentNames } from "../capture/instrumentNames";
import { ProposedMarks } from "../capture/ProposedMarks";
import { TraceChart, type Moment } from "../figure/TraceChart";
import { ChannelNumbers, LevelNumbers, RepNumbers, SideNumbers } from "./TraceNumbers";
import { traceWords } from "./traceWords";
import { say, sayRich } from "../words/say";

/** A trace after the fact: its course, what it shows, and what of that is not marked yet. */
export function TracePage() {
  const { traceId = "" } = useParams();
  const { data: library } = useLibrary();
  const [shown, setShown] = useState<{ from: number; seconds: number | null }>({ from: 0, seconds: null });
  const { data, error } = useQuery({
    queryKey: keys.trace(traceId, shown.from, shown.seconds),
    queryFn: () =>
      got(
        api.GET("/api/traces/{id}", {
          params: { path: { id: traceId }, query: { from: shown.from, seconds: shown.seconds ?? undefined } },
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  });
  if (error) return <Broken error={error} traceId={traceId} />;
  if (!data || !library) return null;
  return (
    <Shown view={data} library={library} onShow={(from, length) => setShown({ from, seconds: length })} />
  );
}

function Broken({ error, traceId }: { error: unknown; traceId: string }) {
  const home = useTrialHome(undefined);
  return (
    <Stack $gap={4}>
      <ProblemNote error={error} />
      <Row>
        <Remove traceId={traceId} home={home.path} />
        <Link to={home.path}>{home.words}</Link>
      </Row>
    </Stack>
  );
}

function Shown(props: {
  view: TraceView;
  library: Library;
  onShow: (from: number, seconds: number | null) => void;
}) {
  const { view, library } = props;
  const { visitId, episode } = useVisit();
  const { events, record } = useCapture(visitId);
  const home = useTrialHome(view.trial.purpose);
  const live = liveTrials(events, library).find((t) => t.trialId === view.trial.id);
  const started = Date.parse(view.trace.startedAt);
  const moment = (at: number) => Math.round(started + 1000 * at);
  const faultName = (code: string) => library.faults.find((f) => f.code === code)?.name ?? code;
  const marks: Moment[] = (live?.marks ?? []).map((m) => ({
    at: (m.at - started) / 1000,
    words: faultName(m.fault),
    told: m.instrument !== null,
  }));
  const { reading, trial } = view;
  return (
    <Stack $gap={4}>
      <Row $between>
        <h1>
          {findRung(library, trial.rungId).rung.name} {trial.side !== "both" && <SideTag side={trial.side} />}{" "}
          <Quiet style={{ fontSize: "1rem", fontWeight: 400 }}>
            {say("instruments.trace-by", {
              instrument: instrumentNames[view.trace.instrument],
              seconds: seconds(view.trace.seconds),
              rate: Math.round(10 * view.trace.rate) / 10,
              source: view.trace.source === "live" ? say("instruments.kept") : say("instruments.read-in"),
              by: view.trace.by,
            })}
          </Quiet>
        </h1>
        <Link to={home.path}>{home.words}</Link>
      </Row>
      <TraceChart
        view={view}
        marks={marks}
        label={traceWords(view)}
        tick={(at) => say("instruments.seconds-s", { seconds: at })}
      />
      <Row $between>
        <Stretch view={view} onShow={props.onShow} />
        <Small>{say("instruments.band-control-red-lost-below")}</Small>
      </Row>
      <NeutralNote view={view} />
      <Columns $at="minmax(0, 3fr) minmax(300px, 2fr)">
        <Stack $gap={4}>
          {reading.analysis && (
            <p>
              {sayRich("instruments.cleanseconds-before-control-was-lost", {
                cleanSeconds: seconds(reading.analysis.cleanSeconds),
                strong: (chunks) => <strong>{chunks}</strong>,
                inBandSeconds: seconds(reading.analysis.inBandSeconds),
                seenSeconds: seconds(reading.analysis.seenSeconds),
              })}
            </p>
          )}
          <LevelNumbers view={view} />
          <ChannelNumbers view={view} />
          <RepNumbers view={view} />
          <SideNumbers view={view} />
        </Stack>
        <Stack $gap={4}>
          {live && (
            <Stack as="section" $gap={2}>
              <h2>{say("instruments.not-marked-yet")}</h2>
              <ProposedMarks
                trial={live}
                losses={reading.losses.map((l) => ({
                  channel: l.channel,
                  fault: l.fault,
                  onset: moment(l.onset),
                  end: l.end == null ? null : moment(l.end),
                  excursion: l.excursion,
                }))}
                reps={reading.reps.map(({ rep }) => ({
                  start: moment(rep.start),
                  top: moment(rep.top),
                  leaves: moment(rep.leaves),
                  end: moment(rep.end),
                }))}
                askedSeconds={view.askedSeconds}
                setup={view.setup}
                faultName={faultName}
                record={record}
                nothing={say("instruments.everything-the-trace-shows-is")}
              />
            </Stack>
          )}
          <Row $gap={4}>
            <a href={`/api/traces/${view.trace.id}/file.csv`} download>
              {say("instruments.get-it-as-csv")}
            </a>
            <Remove traceId={view.trace.id} home={home.path} />
          </Row>
          {episode && <PracticeConsent episode={episode} />}
        </Stack>
      </Columns>
    </Stack>
  );
}

function NeutralNote({ view }: { view: TraceView }) {
  switch (view.reading.neutralFrom) {
    case "found":
      return <Note>{say("instruments.no-calibration-came-with-this")}</Note>;
    case "none":
      return <Note>{say("instruments.no-calibration-came-with-this-trace")}</Note>;
    default:
      return null;
  }
}

/** Which stretch of the trace is drawn. */
function Stretch(props: { view: TraceView; onShow: (from: number, seconds: number | null) => void }) {
  const { from, shown, trace } = props.view;
  const show = (start: number, length: number) => {
    const whole = length >= trace.seconds;
    const first = Math.max(0, Math.min(trace.seconds - length, start));
    props.onShow(whole ? 0 : Math.round(first * 10) / 10, whole ? null : Math.round(length * 10) / 10);
  };
  const whole = shown >= trace.seconds - 0.05;
  return (
    <Row $gap={2} role="group" aria-label={say("instruments.stretch-that-is-shown")}>
      <Button $quiet $small isDisabled={from <= 0} onPress={() => show(from - shown / 2, shown)}>
        {say("instruments.earlier")}
      </Button>
      <Button
        $quiet
        $small
        isDisabled={from + shown >= trace.seconds - 0.05}
        onPress={() => show(from + shown / 2, shown)}
      >
        {say("instruments.later")}
      </Button>
      <Button $quiet $small isDisabled={shown <= 4} onPress={() => show(from + shown / 4, shown / 2)}>
        {say("instruments.closer")}
      </Button>
      <Button $quiet $small isDisabled={whole} onPress={() => show(from - shown / 2, shown * 2)}>
        {say("instruments.wider")}
      </Button>
      <Button $quiet $small isDisabled={whole} onPress={() => show(0, trace.seconds)}>
        {say("instruments.whole")}
      </Button>
    </Row>
  );
}

function Remove({ traceId, home }: { traceId: string; home: string }) {
  const queries = useQueryClient();
  const go = useNavigate();
  const { visitId } = useVisit();
  const [sure, setSure] = useState(false);
  const [why, setWhy] = useState("");
  const remove = useMutation({
    mutationFn: () =>
      got(api.DELETE("/api/traces/{id}", { params: { path: { id: traceId }, query: { reason: why } } })),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.traces(visitId) });
      void go(home);
    },
  });
  return (
    <>
      {sure && (
        <>
          <Small role="status">{say("instruments.the-trial-and-its-marks")}</Small>
          <TextField label={say("instruments.why-it-is-removed")} value={why} onChange={setWhy} />
        </>
      )}
      <Button
        $quiet
        $small
        isDisabled={sure && !why.trim()}
        onPress={() => (sure ? remove.mutate() : setSure(true))}
      >
        {sure ? say("instruments.yes-take-the-trace-away") : say("instruments.take-this-trace-away")}
      </Button>
      <ProblemNote error={remove.error} />
    </>
  );
}
