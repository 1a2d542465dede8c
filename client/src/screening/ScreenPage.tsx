import { useState, useSyncExternalStore } from "react";
import { Link } from "react-router";
import { v7 as uuid } from "uuid";
import { findRung, useLibrary, useScreen } from "../api/queries";
import type { EpisodeView, Library, ScreenStep, ScreenView, Side, TaskState } from "../api/types";
import { LiveTrial } from "../capture/LiveTrial";
import { findTask } from "../capture/sideCounts";
import { lastDiscarded, liveTrials, plainRules, type LiveTrialState } from "../capture/liveTrial";
import { useOutbox } from "../capture/OutboxContext";
import { useCapture, type RecordEvent } from "../capture/useCapture";
import { Button } from "../controls/Button";
import { Columns, Note, ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { Closed, isHeld } from "../frame/Closed";
import { HandOver } from "../frame/HandOver";
import { LiveHead } from "../frame/LiveHead";
import { useVisit } from "../frame/useVisit";
import { openWorry, WorryQuestion } from "../frame/WorryQuestion";
import { askedWords } from "./asked";
import { BatteryList } from "./BatteryList";
import { BatteryPage, taskName } from "./BatteryPage";
import { Elsewhere } from "./Elsewhere";
import { LastTrial } from "./LastTrial";
import { ClockOff } from "../frame/ClockOff";
import { PutRight } from "./PutRight";
import { Ready, type Chosen } from "./Ready";
import { say } from "../words/say";

export function ScreenPage() {
  const { episode, visitId } = useVisit();
  const { data: library } = useLibrary();
  if (!episode || !library) return null;
  if (isHeld(episode)) return <Closed episode={episode} visitId={visitId} />;
  return <Screen key={visitId} episode={episode} visitId={visitId} library={library} />;
}

/** What comes next: the first task of the battery that is not finished. */
export const nextStep = (states: TaskState[]): ScreenStep | null =>
  states.find((s) => !s.done && s.next)?.next ?? null;

/**
 * While the server is away it cannot say what comes next: each task as it stood then, on both sides, once.
 * @param news trials that it does not know
 */
export function stepWithoutServer(states: TaskState[], news: LiveTrialState[]): ScreenStep | null {
  for (const { next, done } of states) {
    if (!next || done) continue;
    const tried = (side: Side) =>
      news.some((t) => t.taskId === next.taskId && t.side === side && t.variant === next.variant);
    const side = sidesFrom(next.side).find((one) => !tried(one));
    if (side === next.side) return next;
    if (side) return { ...next, side, why: say("screening.the-server-is-away-the") };
  }
  return null;
}

const sidesFrom = (first: Side): Side[] =>
  first === "both" ? ["both"] : [first, first === "left" ? "right" : "left"];

function Screen(props: { episode: EpisodeView; visitId: string; library: Library }) {
  const { episode, visitId, library } = props;
  const { events, record, isOwn, ready } = useCapture(visitId);
  const screen = useScreen(visitId);
  const outbox = useOutbox();
  const status = useSyncExternalStore(outbox.subscribe, outbox.getStatus);
  const [picked, setPicked] = useState<ScreenStep | null>(null);
  const [planning, setPlanning] = useState<boolean | null>(null);
  const [taken, setTaken] = useState<string | null>(null);
  const [examined, setExamined] = useState<string | null>(null);
  const rules = screen.data
    ? { pain: screen.data.stop.pain, painNow: screen.data.painNow }
    : { ...plainRules, painNow: episode.visits.find((v) => v.id === visitId)?.pain ?? null };
  const trials = liveTrials(events, library, rules)
    .filter((t) => t.purpose === "screen")
    .sort((a, b) => a.startedAt - b.startedAt);
  if (!ready) return null;
  const open = trials.filter((t) => t.ended === null);
  const here = open.findLast((t) => isOwn(t.trialId) || t.trialId === taken);
  if (here) return <Live trial={here} trials={trials} events={events} record={record} library={library} />;

  const worry = openWorry(trials, events);
  if (worry && worry.trialId !== examined) {
    return (
      <WorryQuestion
        trial={worry}
        episodeId={episode.id}
        record={record}
        onPassed={() => setExamined(worry.trialId)}
      />
    );
  }
  const begun = trials.length > 0 || (screen.data?.battery.version ?? 0) > 0;
  if (screen.data && (planning ?? !begun)) {
    return (
      <BatteryPage
        visitId={visitId}
        screen={screen.data}
        library={library}
        begun={trials.length > 0}
        onEdit={() => setPlanning(true)}
        onBegin={() => setPlanning(false)}
      />
    );
  }
  const last = trials.findLast((t) => t.ended !== null) ?? null;
  // Until the server has the last trial, what it proposes is what was just done.
  const known = new Set(screen.data?.trials.filter((t) => t.endedAt !== null).map((t) => t.id));
  const news = trials.filter((t) => t.ended !== null && !known.has(t.trialId));
  const behind = news.length > 0;
  const away = status.offline || status.signedOut || screen.isError;
  const proposed = !screen.data
    ? null
    : !behind
      ? nextStep(screen.data.states)
      : away
        ? stepWithoutServer(screen.data.states, news)
        : null;
  const step = picked ?? proposed;
  const discarded = lastDiscarded(events);
  const start = (chosen: Chosen) => {
    setPicked(null);
    startTrial(chosen, record);
  };
  return (
    <Columns $at="minmax(0, 1.5fr) minmax(280px, 1fr)">
      <Stack $gap={4}>
        <Elsewhere trials={open} library={library} record={record} onTake={setTaken} />
        {step ? (
          <Ready
            key={`${step.taskId} ${step.rungId} ${step.side} ${step.variant ?? ""} ${step.load ?? ""}`}
            step={step}
            picked={picked !== null}
            lastSide={last && sameTask(last, step) ? last.side : null}
            cautions={cautionsOf(step, screen.data)}
            legLength={screen.data?.legLength ?? null}
            episode={episode}
            library={library}
            onStart={start}
            onBack={() => setPicked(null)}
          />
        ) : behind && !away ? (
          <Small role="status">{say("screening.looking-up-what-comes-next")}</Small>
        ) : (
          <Finished
            screen={behind ? undefined : screen.data}
            tried={behind}
            error={screen.error}
            episodeId={episode.id}
            visitId={visitId}
          />
        )}
        {discarded && (
          <Row>
            <Quiet>{say("screening.the-last-trial-was-discarded")}</Quiet>
            <Button
              $quiet
              $small
              onPress={() => record(discarded.trialId, "undone", { undoes: discarded.id })}
            >
              {say("screening.bring-it-back")}
            </Button>
          </Row>
        )}
        {last && (
          <LastTrial key={last.trialId} trial={last} events={events} library={library} record={record} />
        )}
        {screen.data && (
          <ClockOff trials={screen.data.trials} clockOff={screen.data.clockOff} library={library} />
        )}
        <PutRight
          trials={trials.filter((t) => t.ended !== null)}
          events={events}
          library={library}
          record={record}
        />
      </Stack>
      <Stack $gap={5}>
        {screen.data && (
          <BatteryList
            screen={screen.data}
            library={library}
            now={step}
            tried={new Set(news.map((t) => t.taskId ?? ""))}
            onPick={setPicked}
            onPlan={() => setPlanning(true)}
          />
        )}
        <HandOver />
      </Stack>
    </Columns>
  );
}

const sameTask = (trial: LiveTrialState, step: ScreenStep) =>
  trial.taskId === step.taskId || trial.rungId === step.rungId;

const cautionsOf = (step: ScreenStep, screen?: ScreenView) =>
  screen?.battery.battery.items.find((item) => item.taskId === step.taskId)?.cautions ?? [];

function Live(props: {
  trial: LiveTrialState;
  trials: LiveTrialState[];
  events: Parameters<typeof LiveTrial>[0]["events"];
  record: RecordEvent;
  library: Library;
}) {
  const { trial, library } = props;
  const { ladder, rung } = findRung(library, trial.rungId);
  const task = findTask(library, trial.taskId);
  const way = task?.variants?.find((v) => v.id === trial.variant)?.name;
  return (
    <div>
      <LiveHead
        title={(task && !task.ladder ? taskName(library, task.id) : rung.name) + (way ? `, ${way}` : "")}
        asked={
          <>
            {ladder.trained && `${ladder.name.toLowerCase()} · `}
            {askedWords(trial, task)} · {rung.limit}
          </>
        }
      />
      <LiveTrial
        key={trial.trialId}
        trial={trial}
        events={props.events}
        record={props.record}
        others={props.trials.filter((t) => t.trialId !== trial.trialId)}
      />
    </div>
  );
}

function startTrial({ step, legLength }: Chosen, record: RecordEvent) {
  record(uuid(), "trial-started", {
    rungId: step.rungId,
    side: step.side,
    purpose: "screen",
    target: { ...step.target, sets: 1 },
    taskId: step.taskId,
    variant: step.variant ?? undefined,
    load: step.load ?? undefined,
    legLength: legLength ?? undefined,
  });
}

function Finished(props: {
  screen?: ScreenView;
  /** Everything was, and the server has not seen it. */
  tried: boolean;
  error: unknown;
  episodeId: string;
  visitId: string;
}) {
  if (props.tried) {
    return (
      <Stack $gap={4}>
        <h1>{say("screening.all-tried")}</h1>
        <p>{say("screening.what-comes-after-waits")}</p>
      </Stack>
    );
  }
  if (!props.screen) {
    return props.error ? (
      <Note>
        <p>{say("screening.the-server-is-away-so")}</p>
        <ProblemNote error={props.error} />
      </Note>
    ) : null;
  }
  return (
    <Stack $gap={4}>
      <h1>{say("screening.screened")}</h1>
      <p>{say("screening.every-task-of-the-battery")}</p>
      <Row>
        <Link to={`/episodes/${props.episodeId}/visits/${props.visitId}/findings`}>
          {say("screening.see-the-findings")}
        </Link>
      </Row>
    </Stack>
  );
}
