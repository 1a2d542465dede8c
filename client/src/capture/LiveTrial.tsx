import { useMemo, useState } from "react";
import styled from "styled-components";
import { findRung, useLibrary } from "../api/queries";
import type { CaptureEvent, EndReason, Library, Rung, Side } from "../api/types";
import { Button } from "../controls/Button";
import { HiddenVisually, Quiet, Row, Small, Stack } from "../controls/layout";
import { sideArrow } from "../controls/SideTag";
import { doseWords, seconds } from "../controls/words";
import { FaultStage } from "./FaultStage";
import { HoldStrip } from "./HoldStrip";
import { KeysDialog } from "./KeysDialog";
import { cleanReps, type LiveTrialState } from "./liveTrial";
import type { RecordEvent } from "./useCapture";
import { useLiveKeys } from "./useLiveKeys";

export interface SideCount {
  side: Side;
  clean: number;
  total: number;
  seconds: number | null;
}

interface Props {
  trial: LiveTrialState;
  events: CaptureEvent[];
  record: RecordEvent;
  /** Clean work of the sides so far, this trial included. */
  counts: SideCount[];
  note?: string;
}

const Live = styled.div`
  display: grid;
  grid-template-columns: 212px minmax(0, 1fr) 228px;
  gap: ${({ theme }) => theme.space(5)};
  height: calc(100dvh - 214px);
  min-height: 500px;
  ${({ theme }) => theme.narrow} {
    grid-template-columns: minmax(0, 1fr);
    height: auto;
    .stage {
      order: -1;
    }
  }
`;

const SideBlock = styled.div<{ $side: Side }>`
  padding: ${({ theme }) => theme.space(3)} ${({ theme }) => theme.space(4)};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme, $side }) =>
    $side === "left" ? theme.colour.sea : $side === "right" ? theme.colour.bark : theme.colour.slate};
  color: ${({ theme }) => theme.colour.sheet};
  text-align: ${({ $side }) => ($side === "right" ? "right" : "left")};
  strong {
    display: block;
    font: 800 33px/1.1 ${({ theme }) => theme.font.display};
  }
`;

const Centre = styled.div`
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  gap: ${({ theme }) => theme.space(3)};
  min-width: 0;
`;

/** Counts, pain and the end of the trial: a column at the desk, two on a tablet held upright, all above the fold. */
const Panel = styled.div`
  display: grid;
  gap: ${({ theme }) => theme.space(4)};
  align-content: start;
  ${({ theme }) => theme.narrow} {
    grid-template-columns: 1fr 1fr;
    gap: ${({ theme }) => theme.space(3)};
  }
`;

const Controls = styled.div`
  display: grid;
  gap: ${({ theme }) => theme.space(3)};
  align-content: start;
  grid-auto-rows: min-content;
  .keys button {
    width: 100%;
  }
  ${({ theme }) => theme.narrow} {
    grid-template-columns: 1fr 1fr;
    /* Keys are for the desk; "?" still shows them. */
    .keys {
      display: none;
    }
  }
`;

export function LiveTrial(props: Props) {
  const { data: library } = useLibrary();
  const [asking, setAsking] = useState(false);
  if (!library) return null;
  const { rung } = findRung(library, props.trial.rungId);
  return <Running {...props} library={library} rung={rung} asking={asking} setAsking={setAsking} />;
}

function Running(
  props: Props & { library: Library; rung: Rung; asking: boolean; setAsking: (asking: boolean) => void },
) {
  const { trial, record, rung, library, asking, setAsking } = props;
  const faults = useMemo(
    () => rung.faults.flatMap((code) => library.faults.find((f) => f.code === code) ?? []),
    [rung, library],
  );
  const actions = useMemo(() => actionsOf(trial, props.events, record), [trial, props.events, record]);
  const end = () => (trial.reps.length >= trial.target.reps ? actions.end("target-met") : setAsking(true));
  const keys = useMemo(() => {
    const map = new Map<string, () => void>([
      ["space", actions.main],
      ["c", actions.cue],
      ["v", () => actions.cueAnswer(true)],
      ["z", actions.undo],
      ["y", actions.redo],
    ]);
    for (const fault of faults) map.set(fault.key, () => actions.mark(fault.code));
    return map;
  }, [actions, faults]);
  useLiveKeys(keys, !asking);
  const counts = new Map<string, number>();
  for (const mark of trial.marks) counts.set(mark.fault, (counts.get(mark.fault) ?? 0) + 1);
  const met = trial.reps.length >= trial.target.reps;
  return (
    <Live>
      <Controls>
        <SideBlock $side={trial.side}>
          {trial.side !== "both" && <>client&apos;s</>}
          <strong>
            {trial.side === "left" && `${sideArrow("left")} `}
            {trial.side !== "both"
              ? trial.side.toUpperCase()
              : rung.sides === "both"
                ? "BOTH SIDES"
                : "NO SIDE"}
            {trial.side === "right" && ` ${sideArrow("right")}`}
          </strong>
          {rung.sides === "none" ? "the whole trunk" : rung.sideMeans}
        </SideBlock>
        <Button $big $quiet={met} style={{ minHeight: 116 }} onPress={actions.main}>
          {trial.target.hold > 0 && trial.holdSince === null ? "Start hold" : "Rep done"}
        </Button>
        <Cue trial={trial} actions={actions} cue={rung.cues[0] ?? ""} />
        <Row $gap={2}>
          <Button $quiet style={{ flex: 1 }} isDisabled={trial.lastEventId === null} onPress={actions.undo}>
            Undo
          </Button>
          <Button $quiet style={{ flex: 1 }} isDisabled={!actions.canRedo} onPress={actions.redo}>
            Redo
          </Button>
        </Row>
        <div className="keys">
          <KeysDialog faults={faults} />
        </div>
      </Controls>
      <Centre className="stage">
        <FaultStage
          rungId={rung.id}
          side={trial.side}
          frame="end"
          faults={faults}
          counts={counts}
          onMark={actions.mark}
        />
        <HoldStrip trial={trial} faultName={(code) => faults.find((f) => f.code === code)?.name ?? code} />
      </Centre>
      {asking ? (
        <WhyEnded onEnd={actions.end} onBack={() => setAsking(false)} />
      ) : (
        <Panel>
          <HiddenVisually role="status">
            {cleanReps(trial)} clean of {trial.reps.length}, {trial.side === "both" ? "no side" : trial.side}
          </HiddenVisually>
          <Counts counts={props.counts} target={doseWords(trial.target)} />
          <PainStepper trial={trial} onPain={actions.pain} />
          {props.note && <Small>{props.note}</Small>}
          <Button $quiet={!met} onPress={end}>
            {trial.side === "both" ? "End this trial" : `End ${trial.side} side`}
          </Button>
          <Button $quiet onPress={() => setAsking(true)}>
            Stop: pain or worry
          </Button>
        </Panel>
      )}
    </Live>
  );
}

type Actions = ReturnType<typeof actionsOf>;

function actionsOf(trial: LiveTrialState, events: CaptureEvent[], record: RecordEvent) {
  const id = trial.trialId;
  const lastUndo = redoable(trial, events);
  return {
    main: () => record(id, trial.target.hold > 0 && trial.holdSince === null ? "hold-started" : "rep-done"),
    mark: (fault: string) => record(id, "fault-marked", { fault }),
    cue: () => record(id, "cue-given"),
    cueAnswer: (worked: boolean) => trial.cueGiven && record(id, "cue-answered", { worked }),
    undo: () => trial.lastEventId && record(id, "undone", { undoes: trial.lastEventId }),
    redo: () => lastUndo && record(id, "undone", { undoes: lastUndo }),
    canRedo: lastUndo !== null,
    pain: (value: number) => record(id, "pain-marked", { phase: "peak", value }),
    end: (reason: EndReason) => record(id, "trial-ended", { reason }),
  };
}

/** The latest undo of this trial, if nothing was done since it: that one can be taken back. */
function redoable(trial: LiveTrialState, events: CaptureEvent[]): string | null {
  const own = events
    .filter((e) => e.trialId === trial.trialId)
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : a.id < b.id ? -1 : 1));
  const takenBack = new Set(own.filter((e) => e.kind === "undone").map((e) => e.undoes));
  const last = own.at(-1);
  if (last?.kind !== "undone") return null;
  const undone = own.find((e) => e.id === last.undoes);
  if (undone?.kind !== "undone") return last.id;
  // The last step was a redo: an earlier undo that still stands may follow.
  return (
    own.findLast(
      (e) =>
        e.kind === "undone" && !takenBack.has(e.id) && own.find((u) => u.id === e.undoes)?.kind !== "undone",
    )?.id ?? null
  );
}

function Cue(props: { trial: LiveTrialState; actions: Actions; cue: string }) {
  const { trial, actions } = props;
  if (!trial.cueGiven) {
    return (
      <Button $quiet onPress={actions.cue}>
        Cue given
      </Button>
    );
  }
  if (trial.cueWorked === null) {
    return (
      <Row $gap={2} role="group" aria-label="Did the cue work?">
        <Button $quiet style={{ flex: 1, padding: 0 }} onPress={() => actions.cueAnswer(true)}>
          Cue worked
        </Button>
        <Button $quiet style={{ flex: 1, padding: 0 }} onPress={() => actions.cueAnswer(false)}>
          It did not
        </Button>
      </Row>
    );
  }
  return (
    <Small>
      {trial.cueWorked ? "The cue worked" : "The cue did not work"}: “{props.cue}”. Reps from here on are
      counted apart.
    </Small>
  );
}

const Numbers = styled.div`
  display: flex;
  gap: ${({ theme }) => theme.space(3)};
  .side {
    flex: 1;
    padding-top: ${({ theme }) => theme.space(2)};
    border-top: 5px solid currentColor;
  }
  .left {
    color: ${({ theme }) => theme.colour.sea};
  }
  .right {
    color: ${({ theme }) => theme.colour.bark};
  }
  .big {
    display: block;
    color: ${({ theme }) => theme.colour.ink};
    font: 800 52px/1.05 ${({ theme }) => theme.font.display};
    font-variant-numeric: tabular-nums;
  }
`;

function Counts(props: { counts: SideCount[]; target: string }) {
  return (
    <div>
      <Numbers>
        {props.counts.map((c) => (
          <div key={c.side} className={`side ${c.side}`}>
            <strong>{c.side === "left" ? "◀ left" : c.side === "right" ? "right ▶" : "together"}</strong>
            <span className="big">{c.clean}</span>
            <Quiet style={{ fontSize: 15 }}>
              clean of {c.total} reps
              {c.seconds !== null && (
                <>
                  <br />
                  {seconds(c.seconds)} clean
                </>
              )}
            </Quiet>
          </div>
        ))}
      </Numbers>
      <Small>asked: {props.target}</Small>
    </div>
  );
}

const PainRow = styled.div`
  display: grid;
  grid-template-columns: 56px 1fr 56px;
  align-items: center;
  text-align: center;
  .value {
    font: 800 30px/1 ${({ theme }) => theme.font.display};
  }
  button {
    padding: 0;
    font-size: 24px;
  }
`;

function PainStepper(props: { trial: LiveTrialState; onPain: (value: number) => void }) {
  const { pain } = props.trial;
  const now = pain.peak ?? pain.before ?? 0;
  return (
    <div role="group" aria-label="Pain during this trial">
      <Small>Pain now; was {pain.before ?? "not asked"}</Small>
      <PainRow>
        <Button $quiet aria-label="Less pain" isDisabled={now <= 0} onPress={() => props.onPain(now - 1)}>
          −
        </Button>
        <span className="value" aria-live="polite">
          {now}
        </span>
        <Button $quiet aria-label="More pain" isDisabled={now >= 10} onPress={() => props.onPain(now + 1)}>
          +
        </Button>
      </PainRow>
    </div>
  );
}

const reasons: { reason: EndReason; words: string }[] = [
  { reason: "breaking-fault", words: "The trunk gave way" },
  { reason: "pain", words: "Pain" },
  { reason: "fatigue", words: "Tired" },
  { reason: "stopped", words: "Stopped for another reason" },
];

function WhyEnded(props: { onEnd: (reason: EndReason) => void; onBack: () => void }) {
  return (
    <Stack $gap={3}>
      <h2>Why did it end?</h2>
      {reasons.map((r) => (
        <Button key={r.reason} $quiet onPress={() => props.onEnd(r.reason)}>
          {r.words}
        </Button>
      ))}
      <Button $quiet $small onPress={props.onBack}>
        It goes on
      </Button>
    </Stack>
  );
}

/** This trial's count beside the last one of the other side on the same rung. */
export function countsFor(trial: LiveTrialState, others: LiveTrialState[]): SideCount[] {
  const of = (t: LiveTrialState): SideCount => ({
    side: t.side,
    clean: cleanReps(t),
    total: t.reps.length,
    seconds: t.target.hold > 0 ? t.reps.filter((r) => !r.broken).reduce((sum, r) => sum + r.held, 0) : null,
  });
  if (trial.side === "both") return [of(trial)];
  const other = others.findLast(
    (t) => t.rungId === trial.rungId && t.side !== trial.side && t.ended !== null,
  );
  const blank: SideCount = {
    side: trial.side === "left" ? "right" : "left",
    clean: 0,
    total: 0,
    seconds: null,
  };
  return [of(trial), other ? of(other) : blank].sort((a) => (a.side === "left" ? -1 : 1));
}
