import { useState } from "react";
import { useSearchParams } from "react-router";
import { v7 as uuid } from "uuid";
import { findRung } from "../api/queries";
import type { Dose, EpisodeView, Library, Plan, SessionItem, SessionView, VisitView } from "../api/types";
import { effective, liveTrials, type LiveTrialState } from "../capture/liveTrial";
import { useCapture, type RecordEvent } from "../capture/useCapture";
import type { CaptureEvent } from "../api/types";
import { Button } from "../controls/Button";
import { Columns, Note, Row, Stack } from "../controls/layout";
import { repsOf } from "../controls/words";
import { AdvicePanel } from "./AdvicePanel";
import { AfterSet } from "./AfterSet";
import { CorrectSets } from "./CorrectSets";
import { HomeLog } from "./HomeLog";
import { Overview, type OnTheFly } from "./Overview";
import { ProbeCard } from "./ProbeCard";
import { Rest } from "./Rest";
import { RunningSet } from "./RunningSet";
import { SetCard } from "./SetCard";
import { Summary } from "./Summary";
import { openWorry, WorryQuestion } from "../frame/WorryQuestion";
import { awaitingAfter, doseOf, isDone, itemsOf, readyNow, setsOf, type SetToDo } from "./sessionWork";
import { ClockOff } from "../frame/ClockOff";
import { say } from "../words/say";

interface Props {
  episode: EpisodeView;
  visitId: string;
  visit: VisitView;
  session: SessionView;
  plan: Plan;
  library: Library;
  onCorrect: () => void;
}

/** The session, set by set: the card of the next one, the set itself, the questions and the rest after it. */
export function Session(props: Props) {
  const { episode, visitId, session, plan, library } = props;
  const { events, record, ready } = useCapture(visitId);
  const [picked, setPicked] = useState<SetToDo | null>(null);
  const [passed, setPassed] = useState<string | null>(null);
  const [easier, setEasier] = useState(true);
  const [before, setBefore] = useState<number | null>(null);
  const [examined, setExamined] = useState<string | null>(null);
  const [asked] = useSearchParams();
  const [untried, setUntried] = useState<string[]>([]);
  if (!ready) return null;
  const rules = { pain: session.stop.pain, painNow: session.painNow };
  const trials = liveTrials(events, library, rules).filter((t) => t.purpose === "session");
  // A set tried one up is none of the day's work.
  const work = trials.filter((t) => !t.probe);
  const items = itemsOf(session, events, library);
  const open = trials.findLast((t) => t.ended === null);
  if (open) {
    return (
      <RunningSet
        key={open.trialId}
        trial={open}
        item={items.find((i) => i.item.id === open.planItemId)}
        trials={trials}
        events={events}
        record={record}
        session={session}
        library={library}
      />
    );
  }
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
  const legs = trials.filter((t) => t.worry === "down-the-leg").map((t) => t.planItemId);
  const sets = setsOf(session, items)
    // The exercise in which pain moved down the leg is over for today.
    .filter((s) => !legs.includes(s.item.id) || isDone(s, work))
    .filter((s) => !(easier && session.advice?.half === true && s.set > 1 && s.set === doseOf(s).sets));
  const next = picked ?? sets.find((s) => !isDone(s, work)) ?? null;
  const waiting = awaitingAfter(trials);
  const asks = waiting && waiting.trialId !== passed ? waiting : null;
  const last = [...trials].sort((a, b) => a.startedAt - b.startedAt).at(-1) ?? null;
  const begin = (todo: SetToDo) => {
    setPicked(null);
    setPassed(waiting?.trialId ?? null);
    startSet(todo, easier ? advised(todo, session) : null, before, record);
    setBefore(null);
  };
  const offers = picked
    ? []
    : readyNow(session, sets, trials, { untried, asked: asked.get("try"), atTheEnd: next === null });
  const probe = offers[0] && (
    <ProbeCard
      offers={offers}
      planned={items.find((i) => i.item.id === offers[0]!.planItemId)?.item.rungId ?? ""}
      library={library}
      record={record}
      onPass={() => setUntried([...untried, offers[0]!.planItemId])}
    />
  );
  const card = next && (
    <SetCard
      todo={next}
      plan={plan}
      library={library}
      guide={
        items.find((i) => i.item.id === next.item.id)?.sides.find((s) => s.side === next.side)?.rep ?? null
      }
      changedFrom={sideBefore(next, last)}
      compact={asks !== null}
      easier={easier ? advised(next, session) : null}
      painBefore={
        trials.some((t) => t.planItemId === next.item.id)
          ? undefined
          : { value: before, onTell: setBefore, atStart: session.painNow }
      }
      onStart={() => begin(next)}
    />
  );
  if (asks) {
    return (
      <Columns $at="minmax(0, 1.15fr) minmax(300px, 1fr)">
        <Stack $gap={4}>
          <AfterSet trial={asks} events={events} library={library} record={record} />
          {probe}
          {next && (
            <Row>
              <Button $quiet $small onPress={() => setPassed(asks.trialId)}>
                {say("visits.show-the-whole-session")}
              </Button>
            </Row>
          )}
        </Stack>
        <Stack $gap={3}>
          {next && asks.endedAt && (
            <Rest key={asks.trialId} since={asks.endedAt} seconds={restFor(asks, next, session)} />
          )}
          {card ?? (
            <Button $big onPress={() => setPassed(asks.trialId)}>
              {say("visits.see-the-session")}
            </Button>
          )}
        </Stack>
      </Columns>
    );
  }
  return (
    <Columns $at="minmax(0, 1.5fr) minmax(300px, 1fr)" style={{ gap: "16px 32px" }}>
      <Stack $gap={3}>
        <Notes session={session} />
        <ClockOff trials={session.trials} clockOff={session.clockOff} library={library} />
        {trials.length === 0 && (
          <AdvicePanel session={session} visit={props.visit} easier={easier} onEasier={setEasier} />
        )}
        {probe}
        {card ?? (
          <Summary
            items={items}
            performances={session.performances}
            trials={trials}
            events={events}
            record={record}
            painNow={session.painNow}
            library={library}
            decide={`/episodes/${episode.id}/visits/${visitId}/decide`}
          />
        )}
      </Stack>
      <Stack $gap={3}>
        <Overview
          episodeId={episode.id}
          items={items}
          sets={sets}
          trials={work}
          performances={session.performances}
          library={library}
          onPick={setPicked}
          onTheFly={onTheFlyOf(events, record, library)}
        />
        <Row $gap={2}>
          <Button $quiet $small onPress={props.onCorrect}>
            {say("visits.put-the-check-in-right")}
          </Button>
          <HomeLog episodeId={episode.id} visitId={visitId} library={library} folded />
        </Row>
        <CorrectSets trials={trials} events={events} record={record} library={library} />
      </Stack>
    </Columns>
  );
}

function Notes({ session }: { session: SessionView }) {
  return (
    <>
      {session.newerPlan !== null && (
        <Note>{say("visits.plan-revision-newerplan-was-accepted", { newerPlan: session.newerPlan })}</Note>
      )}
    </>
  );
}

/** The side of the set before, where this one is the other side of the same exercise. */
const sideBefore = (next: SetToDo, last: LiveTrialState | null) =>
  last &&
  last.planItemId === next.item.id &&
  last.side !== next.side &&
  next.side !== "both" &&
  last.side !== "both"
    ? last.side
    : null;

/** Between sides only the change; between sets of holds longer than between others. */
function restFor(last: LiveTrialState, next: SetToDo, session: SessionView) {
  if (sideBefore(next, last)) return session.rest.side;
  return last.target.hold > 0 ? session.rest.holds : session.rest.other;
}

/** How an exercise is begun after time away, where it stays on its rung; null where nothing is advised. */
const advised = (todo: SetToDo, session: SessionView) =>
  session.advice?.eased.find(
    (e) => e.planItemId === todo.item.id && e.side === todo.side && e.rungId === todo.item.rungId,
  )?.dose ?? null;

function startSet(todo: SetToDo, easier: Dose | null, before: number | null, record: RecordEvent) {
  const trialId = uuid();
  const dose = easier ?? doseOf(todo);
  record(trialId, "trial-started", {
    rungId: todo.item.rungId,
    side: todo.side,
    purpose: "session",
    target: { ...dose, reps: repsOf(dose, todo.set), sets: 1, fewer: 0 },
    planItemId: todo.item.id,
    set: todo.set,
    variant: todo.way ?? undefined,
    share: dose.range < 1 ? dose.range : undefined,
    load: dose.load ?? undefined,
    eased: easier ? ["shorter-range"] : undefined,
  });
  if (before !== null) record(trialId, "pain-marked", { phase: "before", value: before });
}

function onTheFlyOf(events: CaptureEvent[], record: RecordEvent, library: Library): OnTheFly {
  const skipOf = (item: SessionItem) =>
    effective(events).findLast((e) => e.kind === "exercise-skipped" && e.planItemId === item.item.id);
  return {
    skip: (item) => record(uuid(), "exercise-skipped", { planItemId: item.item.id }),
    bringBack: (item) => {
      const skip = skipOf(item);
      if (skip) record(skip.trialId, "undone", { undoes: skip.id });
    },
    add: (rungId, inPlaceOf) =>
      record(uuid(), "exercise-added", {
        rungId,
        planItemId: uuid(),
        target: findRung(library, rungId).rung.start,
        inPlaceOf: inPlaceOf ?? undefined,
      }),
  };
}
