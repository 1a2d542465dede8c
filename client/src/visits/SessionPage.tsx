import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { v7 as uuid } from "uuid";
import { findRung, useLibrary, useSession } from "../api/queries";
import type { EpisodeView, Library, Plan, PlanItem, SessionView, Side } from "../api/types";
import { LiveTrial } from "../capture/LiveTrial";
import { liveTrials, type LiveTrialState } from "../capture/liveTrial";
import { useCapture, type RecordEvent } from "../capture/useCapture";
import { Button } from "../controls/Button";
import { Columns, Empty, ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { doseWords, strategyWords, switchOnWords, repsOf } from "../controls/words";
import { RungFigure } from "../figure/FigureView";
import { Closed } from "../frame/Closed";
import { useVisit } from "../frame/useVisit";
import { painBefore } from "../screening/ScreenPage";
import { AfterSet } from "./AfterSet";
import { CheckInForm } from "./CheckInForm";

export function SessionPage() {
  const { episode, visitId, visit } = useVisit();
  const { data: library } = useLibrary();
  const { data: session, error } = useSession(visitId);
  if (!episode || !library || !visit) return null;
  if (episode.closed) return <Closed episode={episode} visitId={visitId} />;
  if (error && !session) return <ProblemNote error={error} />;
  if (!session) return null;
  if (!session.plan || session.plan.plan.items.length === 0) {
    return (
      <Empty title={visit.number === 1 ? "Sessions begin at the second visit" : "No plan to run"}>
        <p>
          {visit.number === 1
            ? "On the first visit the plan is made. The next visit runs it."
            : "There is no plan from an earlier visit. Screen and plan first."}
        </p>
        <Link to={`/episodes/${episode.id}/visits/${visitId}/plan`}>Go to the plan</Link>
      </Empty>
    );
  }
  if (!visit.checkIn) return <CheckInForm episodeId={episode.id} visit={visit} lastPain={session.lastPain} />;
  return <Session key={visitId} episode={episode} visitId={visitId} session={session} library={library} />;
}

/** One set of one side: what the session is made of. */
interface SetToDo {
  item: PlanItem;
  side: Side;
  set: number;
}

const setsOf = (plan: Plan): SetToDo[] =>
  plan.items.flatMap((item) =>
    item.doses.flatMap(({ side, dose }) =>
      Array.from({ length: dose.sets }, (_, i) => ({ item, side, set: i + 1 })),
    ),
  );

const isDone = (todo: SetToDo, trials: LiveTrialState[]) =>
  trials.some(
    (t) => t.planItemId === todo.item.id && t.side === todo.side && t.set === todo.set && t.ended !== null,
  );

/** The set waiting for its after-questions: the last one ended, until all three are told. */
const awaitingAfter = (trials: LiveTrialState[]) => {
  const last = [...trials].sort((a, b) => a.startedAt - b.startedAt).findLast((t) => t.ended !== null);
  return last && (last.pain.after === null || last.felt === null || last.effort === null) ? last : null;
};

function Session(props: { episode: EpisodeView; visitId: string; session: SessionView; library: Library }) {
  const { episode, visitId, session, library } = props;
  const { events, record, ready } = useCapture(visitId);
  const [picked, setPicked] = useState<SetToDo | null>(null);
  const [passed, setPassed] = useState<string | null>(null);
  if (!ready || !session.plan) return null;
  const plan = session.plan.plan;
  const trials = liveTrials(events, library).filter((t) => t.purpose === "session");
  const open = trials.findLast((t) => t.ended === null);
  const sets = setsOf(plan);
  const next = picked ?? sets.find((s) => !isDone(s, trials)) ?? null;
  if (open) {
    const { rung } = findRung(library, open.rungId);
    const item = plan.items.find((i) => i.id === open.planItemId);
    const of = item?.doses.find((d) => d.side === open.side)?.dose.sets ?? 1;
    return (
      <Stack $gap={3}>
        <h1>
          {rung.name}{" "}
          <Quiet style={{ fontSize: 16, fontWeight: 400 }}>
            set {open.set} of {of} · {doseWords(open.target)}
          </Quiet>
        </h1>
        <LiveTrial
          trial={open}
          events={events}
          record={record}
          others={trials.filter((t) => t.trialId !== open.trialId)}
          note={item ? `Cue: “${item.cue}”` : undefined}
        />
      </Stack>
    );
  }
  const waiting = awaitingAfter(trials);
  if (waiting && waiting.trialId !== passed) {
    return (
      <AfterSet trial={waiting} library={library} record={record} onGoOn={() => setPassed(waiting.trialId)} />
    );
  }
  return (
    <Columns $at="minmax(0, 1.5fr) minmax(280px, 1fr)">
      {next ? (
        <Ready
          todo={next}
          plan={plan}
          library={library}
          onStart={() => {
            setPicked(null);
            start(next, trials, session.visit.pain ?? episode.intake.pain.now, record);
          }}
        />
      ) : (
        <Stack $gap={4}>
          <h1>All sets done</h1>
          <p>
            What was clean and what was felt is stored. The proposals for each exercise and side are ready.
          </p>
          <Link to={`/episodes/${episode.id}/visits/${visitId}/decide`}>Go to Decide</Link>
        </Stack>
      )}
      <Overview
        plan={plan}
        trials={trials}
        sets={sets}
        library={library}
        onPick={setPicked}
        session={session}
      />
    </Columns>
  );
}

function start(todo: SetToDo, trials: LiveTrialState[], painAtStart: number, record: RecordEvent) {
  const trialId = uuid();
  const dose = todo.item.doses.find((d) => d.side === todo.side)!.dose;
  record(trialId, "trial-started", {
    rungId: todo.item.rungId,
    side: todo.side,
    purpose: "session",
    target: { reps: repsOf(dose, todo.set), sets: 1, hold: dose.hold, fewer: 0 },
    planItemId: todo.item.id,
    set: todo.set,
  });
  record(trialId, "pain-marked", { phase: "before", value: painBefore(trials, painAtStart) });
}

function Ready(props: { todo: SetToDo; plan: Plan; library: Library; onStart: () => void }) {
  const { todo, plan } = props;
  const { rung } = findRung(props.library, todo.item.rungId);
  const { dose, range, rangeEnds } = todo.item.doses.find((d) => d.side === todo.side)!;
  return (
    <Stack $gap={4}>
      <h1>
        {rung.name}{" "}
        <Quiet style={{ fontSize: 16, fontWeight: 400 }}>
          set {todo.set} of {dose.sets} · {doseWords({ ...dose, sets: 1 })}
          {rangeEnds && ` · ${rangeEnds}`}
        </Quiet>
      </h1>
      <Columns $at="1fr 1fr" style={{ gap: 8 }}>
        <RungFigure rungId={rung.id} side={todo.side} frame="start" width="100%" height={200} />
        <RungFigure rungId={rung.id} side={todo.side} range={range} width="100%" height={200} />
      </Columns>
      <Row $gap={4}>
        <Button $big style={{ minWidth: 220, minHeight: 76 }} onPress={props.onStart}>
          Start{todo.side === "both" ? "" : `, ${todo.side}`}
        </Button>
        <div>
          {rung.sides === "none" ? (
            <Quiet>no side</Quiet>
          ) : (
            <>
              <SideTag side={todo.side} /> <Quiet>· {rung.sideMeans}</Quiet>
            </>
          )}
          <br />
          Cue: “{todo.item.cue}”
        </div>
      </Row>
      <p>{rung.movement}</p>
      {todo.item.changes.map((change) => (
        <p key={change}>
          <strong>Change:</strong> {change}
        </p>
      ))}
      <Small>
        Back {strategyWords[plan.strategy]}; {switchOnWords[plan.switchOn]}; {rung.breath}. Feel it in:{" "}
        {rung.feel}. Not in: {rung.notFeel}.
      </Small>
    </Stack>
  );
}

const List = styled.ul`
  li {
    padding: ${({ theme }) => theme.space(2)} 0;
    border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  }
`;

const SetLine = styled.div`
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr) auto 60px;
  gap: ${({ theme }) => theme.space(2)};
  align-items: center;
  min-height: 48px;
`;

const Sets = styled.span`
  display: inline-flex;
  gap: 6px;
  i {
    width: 20px;
    height: 20px;
    border: 2px solid ${({ theme }) => theme.colour.slate};
    border-radius: 3px;
  }
  i.done {
    background: ${({ theme }) => theme.colour.slate};
  }
`;

function Overview(props: {
  plan: Plan;
  trials: LiveTrialState[];
  sets: SetToDo[];
  library: Library;
  session: SessionView;
  onPick: (todo: SetToDo) => void;
}) {
  const { plan, trials, sets, library, session } = props;
  return (
    <section aria-label="Exercises of this session">
      <h2>Today</h2>
      <List>
        {plan.items.map((item) => (
          <li key={item.id}>
            <strong>{findRung(library, item.rungId).rung.name}</strong>
            {item.doses.map(({ side }) => {
              const own = sets.filter((s) => s.item.id === item.id && s.side === side);
              const open = own.find((s) => !isDone(s, trials));
              const done = session.performances.find((p) => p.planItemId === item.id && p.side === side);
              return (
                <SetLine key={side}>
                  <SideTag side={side} />
                  <Sets
                    aria-label={`${own.filter((s) => isDone(s, trials)).length} of ${own.length} sets done`}
                    role="img"
                  >
                    {own.map((s) => (
                      <i key={s.set} className={isDone(s, trials) ? "done" : ""} />
                    ))}
                  </Sets>
                  <Quiet>
                    {done ? `${done.cleanReps} of ${done.prescribed.reps * done.prescribed.sets} clean` : ""}
                  </Quiet>
                  {open ? (
                    <Button
                      $quiet
                      $small
                      aria-label={`Do ${findRung(library, item.rungId).rung.name}, ${side}`}
                      onPress={() => props.onPick(open)}
                    >
                      Do
                    </Button>
                  ) : (
                    <Quiet>done</Quiet>
                  )}
                </SetLine>
              );
            })}
          </li>
        ))}
      </List>
    </section>
  );
}
