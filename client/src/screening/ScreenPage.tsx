import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { v7 as uuid } from "uuid";
import { findRung, useLibrary, useScreen } from "../api/queries";
import type { EpisodeView, Library, RungSearch, ScreenView, Side } from "../api/types";
import { countsFor, LiveTrial } from "../capture/LiveTrial";
import { liveTrials, openTrial, type LiveTrialState } from "../capture/liveTrial";
import { useCapture, type RecordEvent } from "../capture/useCapture";
import { Button } from "../controls/Button";
import { Columns, Note, ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { doseWords, strategyWords, switchOnWords } from "../controls/words";
import { RungFigure } from "../figure/FigureView";
import { Closed } from "../frame/Closed";
import { useVisit } from "../frame/useVisit";
import { TaskPicker } from "./TaskPicker";

export function ScreenPage() {
  const { episode, visitId } = useVisit();
  const { data: library } = useLibrary();
  if (!episode || !library) return null;
  if (episode.closed) return <Closed episode={episode} visitId={visitId} />;
  return <Screen key={visitId} episode={episode} visitId={visitId} library={library} />;
}

export interface Task {
  rungId: string;
  side: Side;
  why: string;
}

/** What comes next: the first ladder that is not finished, left before right. */
export function nextTask(searches: RungSearch[], library: Library): Task | null {
  const search = searches.find((s) => !s.done && s.nextRungId);
  if (!search?.nextRungId) return null;
  const { rung } = findRung(library, search.nextRungId);
  return { rungId: rung.id, side: rung.sides === "each" ? search.side : "both", why: search.why };
}

/** The pain a trial starts from: the last one told in this visit, else what was told at its start. */
export function painBefore(trials: LiveTrialState[], atStart: number) {
  const told = trials
    .flatMap((t) => [t.pain.after ?? t.pain.peak ?? t.pain.before])
    .filter((p) => p !== null);
  return told.at(-1) ?? atStart;
}

function Screen(props: { episode: EpisodeView; visitId: string; library: Library }) {
  const { episode, visitId, library } = props;
  const { events, record, ready } = useCapture(visitId);
  const screen = useScreen(visitId);
  const [picked, setPicked] = useState<Task | null>(null);
  const trials = liveTrials(events, library).filter((t) => t.purpose === "screen");
  const open = openTrial(events, library);
  if (!ready) return null;
  if (open && open.purpose === "screen") {
    const { ladder, rung } = findRung(library, open.rungId);
    return (
      <Stack $gap={3}>
        <h1>
          {rung.name}{" "}
          <Quiet style={{ fontSize: 16, fontWeight: 400 }}>
            {ladder.name.toLowerCase()} · {doseWords(open.target)} · {rung.limit}
          </Quiet>
        </h1>
        <LiveTrial trial={open} events={events} record={record} counts={countsFor(open, trials)} />
      </Stack>
    );
  }
  const proposed = screen.data ? nextTask(screen.data.searches, library) : null;
  const task = picked ?? proposed;
  const start = (chosen: Task) => {
    setPicked(null);
    startTrial(chosen, episode, visitId, trials, library, record);
  };
  return (
    <Columns $at="minmax(0, 1.5fr) minmax(280px, 1fr)">
      <Stack $gap={4}>
        {task ? (
          <Ready
            task={task}
            picked={picked !== null}
            episode={episode}
            library={library}
            onStart={() => start(task)}
            onBack={() => setPicked(null)}
          />
        ) : (
          <Finished screen={screen.data} error={screen.error} episodeId={episode.id} visitId={visitId} />
        )}
      </Stack>
      <Stack $gap={5}>
        <Progress screen={screen.data} library={library} />
        <TaskPicker library={library} allowances={screen.data?.allowances ?? []} onPick={setPicked} />
      </Stack>
    </Columns>
  );
}

function startTrial(
  task: Task,
  episode: EpisodeView,
  visitId: string,
  trials: LiveTrialState[],
  library: Library,
  record: RecordEvent,
) {
  const { rung } = findRung(library, task.rungId);
  const trialId = uuid();
  const visit = episode.visits.find((v) => v.id === visitId);
  record(trialId, "trial-started", {
    rungId: rung.id,
    side: task.side,
    purpose: "screen",
    target: { reps: rung.start.reps, sets: 1, hold: rung.start.hold },
  });
  record(trialId, "pain-marked", {
    phase: "before",
    value: painBefore(trials, visit?.pain ?? episode.intake.pain.now),
  });
}

const Setup = styled.ol`
  margin: 0;
  padding-left: 1.2em;
`;

function Ready(props: {
  task: Task;
  picked: boolean;
  episode: EpisodeView;
  library: Library;
  onStart: () => void;
  onBack: () => void;
}) {
  const { task, episode } = props;
  const { rung, ladder } = findRung(props.library, task.rungId);
  const neutral = episode.neutral;
  const strategy = neutral.strategy ?? neutral.proposal.strategy ?? "neutral";
  const switchOn = neutral.switchOn ?? neutral.proposal.switchOn ?? "brace";
  return (
    <>
      <h1>
        {rung.name}{" "}
        <Quiet style={{ fontSize: 16, fontWeight: 400 }}>
          {ladder.name.toLowerCase()} · {doseWords(rung.start)}
        </Quiet>
      </h1>
      <Columns $at="1fr 1fr" style={{ gap: 8 }}>
        <RungFigure rungId={rung.id} side={task.side} frame="start" width="100%" height={190} />
        <RungFigure rungId={rung.id} side={task.side} width="100%" height={190} />
      </Columns>
      <Row $gap={4}>
        <Button $big style={{ minWidth: 220, minHeight: 76 }} onPress={props.onStart}>
          Start{task.side === "both" ? "" : `, ${task.side}`}
        </Button>
        <div>
          {rung.sides === "none" ? (
            <Quiet>no side</Quiet>
          ) : (
            <>
              <SideTag side={task.side} /> <Quiet>· {rung.sideMeans}</Quiet>
            </>
          )}
          <br />
          <Quiet>{props.picked ? "Chosen by hand." : task.why}</Quiet>{" "}
          {props.picked && (
            <Button $quiet $small onPress={props.onBack}>
              Back to the proposal
            </Button>
          )}
        </div>
      </Row>
      <Columns $at="1fr 1fr">
        <div>
          <h3>Set up</h3>
          <Setup>
            {rung.setup.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </Setup>
          <Small>
            {strategyWords[strategy]} · {switchOnWords[switchOn]} · {rung.breath}
          </Small>
        </div>
        <div>
          <h3>Task</h3>
          <p>{rung.movement}</p>
          <Small>
            Limit: {rung.limit}. Cue, if needed: “{rung.cues[0]}”.
          </Small>
        </div>
      </Columns>
    </>
  );
}

function Finished(props: { screen?: ScreenView; error: unknown; episodeId: string; visitId: string }) {
  if (!props.screen) {
    return props.error ? (
      <Note>
        <p>
          The server is away, so it cannot say what comes next. Pick a task by hand; everything is kept here.
        </p>
        <ProblemNote error={props.error} />
      </Note>
    ) : null;
  }
  return (
    <Stack $gap={4}>
      <h1>Screened</h1>
      <p>Every ladder has its entry rung on both sides. Any other task can still be added.</p>
      <Row>
        <Link to={`/episodes/${props.episodeId}/visits/${props.visitId}/findings`}>See the findings</Link>
      </Row>
    </Stack>
  );
}

const Table = styled.table`
  width: 100%;
  td,
  th {
    padding: 6px 8px 6px 0;
    border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
    text-align: left;
    vertical-align: top;
    font-size: 15px;
  }
`;

function Progress({ screen, library }: { screen?: ScreenView; library: Library }) {
  if (!screen) return null;
  const name = (id?: string | null) => (id ? findRung(library, id).rung.name : "");
  const ladders = [...new Set(screen.searches.map((s) => s.ladderId))];
  const cell = (s?: RungSearch) =>
    !s ? (
      ""
    ) : s.done ? (
      s.entryRungId ? (
        <strong>{name(s.entryRungId)}</strong>
      ) : (
        <Quiet>{s.why}</Quiet>
      )
    ) : (
      <Quiet>next: {name(s.nextRungId)}</Quiet>
    );
  const find = (ladder: string, side: Side) =>
    screen.searches.find((s) => s.ladderId === ladder && s.side === side);
  return (
    <section aria-label="Where each ladder stands">
      <h2>Entry rungs</h2>
      <Table>
        <thead>
          <tr>
            <th>Ladder</th>
            <th>
              <SideTag side="left" />
            </th>
            <th>
              <SideTag side="right" />
            </th>
          </tr>
        </thead>
        <tbody>
          {ladders.map((id) => (
            <tr key={id}>
              <th scope="row">{library.ladders.find((l) => l.id === id)?.name}</th>
              <td>{cell(find(id, "left"))}</td>
              <td>{cell(find(id, "right"))}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </section>
  );
}
