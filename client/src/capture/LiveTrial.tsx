import { useEffect, useMemo, useState } from "react";
import styled from "styled-components";
import { findRung, useLibrary } from "../api/queries";
import type { CaptureEvent, EndReason, Fault, Library, Rung, ScreenTask, Side } from "../api/types";
import { Button } from "../controls/Button";
import { HiddenVisually, Quiet, Row, Small, Stack } from "../controls/layout";
import { useTakeFocus } from "../controls/useTakeFocus";
import { sideArrow } from "../controls/SideTag";
import { doseWords } from "../controls/words";
import { actionsOf, type Actions } from "./actions";
import { countsFor, findTask, measureOf, type SideCount } from "./counts";
import { FaultStage } from "./FaultStage";
import { HoldStrip, useNow } from "./HoldStrip";
import { KeysDialog } from "./KeysDialog";
import { useLiveSettings } from "./liveSettings";
import { cleanReps, type LiveTrialState } from "./liveTrial";
import { MainControl } from "./MainControl";
import { MoreDialog } from "./MoreDialog";
import { RangeRow, rangeStops } from "./RangeRow";
import { signalTarget } from "./signals";
import { clock, type RecordEvent } from "./useCapture";
import { useCountIn } from "./useCountIn";
import { useLiveKeys } from "./useLiveKeys";

interface Props {
  trial: LiveTrialState;
  events: CaptureEvent[];
  record: RecordEvent;
  /** The other trials of this kind in the visit: the other side's count, and which faults were seen lately. */
  others: LiveTrialState[];
  note?: string;
}

const Live = styled.div<{ $thumb: "left" | "right" }>`
  display: grid;
  grid-template-columns: ${({ $thumb }) => ($thumb === "left" ? "212px minmax(0, 1fr) 228px" : "228px minmax(0, 1fr) 212px")};
  .controls {
    order: ${({ $thumb }) => ($thumb === "left" ? 0 : 2)};
  }
  .stage {
    order: 1;
  }
  .panel {
    order: ${({ $thumb }) => ($thumb === "left" ? 2 : 0)};
  }
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
  grid-template-rows: minmax(0, 1fr) auto auto;
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
  grid-template-columns: minmax(0, 1fr);
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
  if (!library) return null;
  const { rung } = findRung(library, props.trial.rungId);
  return <Running {...props} library={library} rung={rung} />;
}

function Running(props: Props & { library: Library; rung: Rung }) {
  const { trial, record, rung, library } = props;
  const [asking, setAsking] = useState(false);
  const [more, setMore] = useState(false);
  const settings = useLiveSettings();
  const task = findTask(library, trial.taskId);
  const measure = measureOf(library, trial);
  const faults = useMemo(() => faultsOf(rung, library, props.others), [rung, library, props.others]);
  const actions = useMemo(() => actionsOf(trial, props.events, record), [trial, props.events, record]);
  const countIn = useCountIn(settings.delay, actions.hold);
  const [cm, setCm] = useState<number | null>(trial.reps.at(-1)?.amount ?? 60);
  const counted = measure === "yes-no" || measure === "effort" || measure === "centimetres";
  const main = () => {
    if (trial.paused) actions.resume();
    else if (measure === "yes-no") actions.measure(1);
    else if (measure === "centimetres" && cm !== null) actions.measure(cm);
    else if (counted) return;
    else if (trial.target.hold > 0 && trial.holdSince === null) countIn.press();
    else actions.rep();
  };
  const met = isMet(trial, measure, task?.tries ?? 1);
  const end = () => (met ? actions.end("target-met") : setAsking(true));
  useTarget(trial, measure === "seconds" ? actions.rep : null);
  const keys = keysOf({ actions, faults, trial, rung, task, main, end });
  useLiveKeys(keys, !asking && !more);
  const counts = new Map<string, number>();
  for (const mark of trial.marks) counts.set(mark.fault, (counts.get(mark.fault) ?? 0) + 1);
  const persisting = new Set(trial.marks.filter((m) => m.persists).map((m) => m.fault));
  const ranged = measure === "degrees" || (measure === "reps" && trial.purpose === "screen");
  return (
    <Live $thumb={settings.thumb}>
      <Controls className="controls">
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
        <MainControl
          key={trial.trialId}
          trial={trial}
          task={task}
          measure={measure}
          actions={actions}
          counting={countIn.left}
          cm={cm}
          onCm={setCm}
          onMain={main}
          met={met}
        />
        {!counted && <Cue trial={trial} actions={actions} cue={rung.cues[0] ?? ""} />}
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
          persisting={persisting}
          onMark={actions.mark}
        />
        {ranged && <RangeRow trial={trial} rung={rung} task={task} actions={actions} />}
        <HoldStrip
          trial={trial}
          faultName={(code) => library.faults.find((f) => f.code === code)?.name ?? code}
        />
      </Centre>
      {asking ? (
        <div className="panel">
          <WhyEnded onEnd={actions.end} onBack={() => setAsking(false)} />
        </div>
      ) : (
        <Panel className="panel">
          <HiddenVisually role="status">
            {trial.paused
              ? "Paused"
              : `${cleanReps(trial)} clean of ${trial.reps.length}, ${trial.side === "both" ? "no side" : trial.side}`}
          </HiddenVisually>
          <Counts trial={trial} others={props.others} library={library} />
          <PainStepper trial={trial} onPain={actions.pain} />
          {props.note && <Small>{props.note}</Small>}
          <Button $quiet={!met} onPress={end}>
            {trial.side === "both" ? "End this trial" : `End ${trial.side} side`}
          </Button>
          <Button $quiet onPress={() => setAsking(true)}>
            Stop: pain or worry
          </Button>
          <Row $gap={2}>
            {trial.paused ? (
              <strong style={{ flex: 1, minHeight: 56, display: "grid", placeItems: "center" }}>
                paused
              </strong>
            ) : (
              <Button $quiet style={{ flex: 1, padding: 0 }} onPress={actions.pause}>
                Pause
              </Button>
            )}
            <Button $quiet style={{ flex: 1, padding: 0 }} onPress={() => setMore(true)}>
              More
            </Button>
          </Row>
        </Panel>
      )}
      <MoreDialog
        trial={trial}
        rung={rung}
        library={library}
        actions={actions}
        isOpen={more}
        onOpenChange={setMore}
      />
    </Live>
  );
}

/** What each key does; KeysDialog lists them. Where effort is asked, digits answer it. */
function keysOf(live: {
  actions: Actions;
  faults: Fault[];
  trial: LiveTrialState;
  rung: Rung;
  task: ScreenTask | null;
  main: () => void;
  end: () => void;
}) {
  const { actions, trial, task } = live;
  const pain = trial.pain.peak ?? trial.pain.before ?? 0;
  const stops = rangeStops(task);
  const at = stops.findIndex((s) => s.share === trial.range?.share && s.degrees === trial.range.degrees);
  const stop = (by: number) =>
    stops[Math.max(0, Math.min(stops.length - 1, (at < 0 ? stops.length : at) + by))]!;
  const keys = new Map<string, () => void>([
    ["space", live.main],
    [".", live.end],
    ["c", actions.cue],
    ["v", () => actions.cueAnswer(true)],
    ["z", actions.undo],
    ["y", actions.redo],
    ["+", () => pain < 10 && actions.pain(pain + 1)],
    ["-", () => pain > 0 && actions.pain(pain - 1)],
    ["[", () => actions.range(stop(-1))],
    ["]", () => actions.range(stop(1))],
  ]);
  for (const fault of live.faults) {
    keys.set(fault.key, () => actions.mark(fault.code));
    keys.set(`shift+${fault.key}`, () => actions.mark(fault.code, true));
  }
  if (task?.measure === "yes-no") keys.set("/", () => actions.measure(0));
  if (task?.measure === "effort") {
    for (let points = 0; points <= (task.full ?? 5); points++)
      keys.set(String(points), () => actions.measure(points));
  }
  return keys;
}

/** The faults of this task, and any other that was marked in this visit; those seen lately first. */
function faultsOf(rung: Rung, library: Library, others: LiveTrialState[]) {
  const lately = others.flatMap((t) => t.marks.map((m) => m.fault)).reverse();
  const place = (code: string) => {
    const at = lately.indexOf(code);
    return at < 0 ? lately.length : at;
  };
  return rung.faults
    .flatMap((code) => library.faults.find((f) => f.code === code) ?? [])
    .map((fault, i) => ({ fault, i }))
    .sort((a, b) => place(a.fault.code) - place(b.fault.code) || a.i - b.i)
    .map(({ fault }) => fault);
}

function isMet(trial: LiveTrialState, measure: string, tries: number) {
  if (measure === "seconds") {
    return trial.reps.length >= tries || trial.reps.some((r) => r.held >= trial.target.hold);
  }
  if (measure === "yes-no" || measure === "effort") return trial.reps.length > 0;
  return trial.reps.length >= (measure === "centimetres" ? tries : trial.target.reps);
}

/** Tells when a hold has lasted as long as asked; where seconds are the measure, that also ends it. */
function useTarget(trial: LiveTrialState, atTarget: (() => void) | null) {
  const { holdSince } = trial;
  const { hold } = trial.target;
  useEffect(() => {
    if (holdSince === null || hold <= 0) return;
    const timer = setTimeout(
      () => {
        signalTarget();
        atTarget?.();
      },
      Math.max(0, holdSince + hold * 1000 - clock.now()),
    );
    return () => clearTimeout(timer);
    // A timer belongs to one hold; a new "atTarget" does the same as the old one.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [holdSince, hold]);
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

function Counts(props: { trial: LiveTrialState; others: LiveTrialState[]; library: Library }) {
  const measure = measureOf(props.library, props.trial);
  const now = useNow(measure === "seconds" && props.trial.holdSince !== null);
  const counts = countsFor(props.trial, props.others, measure, now);
  return (
    <div>
      <Numbers>
        {counts.map((c: SideCount) => (
          <div key={c.side} className={`side ${c.side}`}>
            <strong>{sideWords[c.side]}</strong>
            <span className="big">{c.big}</span>
            <Quiet style={{ fontSize: 15 }}>{c.small}</Quiet>
          </div>
        ))}
      </Numbers>
      {measure !== "effort" && measure !== "yes-no" && (
        <Small>
          asked:{" "}
          {measure === "seconds" ? `${props.trial.target.hold} s at most` : doseWords(props.trial.target)}
          {props.trial.load !== null && `, ${props.trial.load} kg`}
        </Small>
      )}
    </div>
  );
}

const sideWords: Record<Side, string> = { left: "◀ left", right: "right ▶", both: "together" };

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

function PainStepper(props: { trial: LiveTrialState; onPain: Actions["pain"] }) {
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
  const first = useTakeFocus<HTMLButtonElement>();
  return (
    <Stack $gap={3}>
      <h2>Why did it end?</h2>
      {reasons.map((r, i) => (
        <Button key={r.reason} ref={i === 0 ? first : undefined} $quiet onPress={() => props.onEnd(r.reason)}>
          {r.words}
        </Button>
      ))}
      <Button $quiet $small onPress={props.onBack}>
        It goes on
      </Button>
    </Stack>
  );
}
