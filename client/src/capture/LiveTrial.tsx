import { useMemo, useState } from "react";
import styled from "styled-components";
import { findRung, useLibrary } from "../api/queries";
import type { CaptureEvent, Library, Rung, Side } from "../api/types";
import { Button } from "../controls/Button";
import { HiddenVisually, Row, Small } from "../controls/layout";
import { sideArrow } from "../controls/SideTag";
import { InstrumentControls } from "./InstrumentControls";
import { TraceCanvas } from "./TraceCanvas";
import { useWatched } from "./useWatched";
import { actionsOf, type Actions } from "./actions";
import { findTask, measureOf } from "./sideCounts";
import { Counts } from "./Counts";
import { Cue } from "./Cue";
import { FaultStage } from "./FaultStage";
import { HoldStrip } from "./HoldStrip";
import { KeysDialog } from "./KeysDialog";
import { keysOf, type LiveKey } from "./liveKeys";
import { useLiveSettings } from "./liveSettings";
import { cleanReps, type LiveTrialState } from "./liveTrial";
import { MainControl } from "./MainControl";
import { MoreDialog } from "./MoreDialog";
import { PainStepper } from "./PainStepper";
import { RangeRow } from "./RangeRow";
import { clock, type RecordEvent } from "./useCapture";
import { useCountIn } from "./useCountIn";
import { isPlainlyDone, plainlyGaveWay, useEndsItself } from "./useEndsItself";
import { useLiveKeys } from "./useLiveKeys";
import { useTarget } from "./useTarget";
import { StopWorry } from "./StopWorry";
import { WhyEnded } from "./WhyEnded";
import { say } from "../words/say";

interface Props {
  trial: LiveTrialState;
  events: CaptureEvent[];
  record: RecordEvent;
  /** The other trials of this kind in the visit: the other side's count, and which faults were seen lately. */
  others: LiveTrialState[];
  note?: string;
  /** Below the strip: the tempo of a session. */
  guide?: React.ReactNode;
  /** In place of counts and pain: something that must be answered first. */
  instead?: React.ReactNode;
  /** Offers to make it easier; null where that is not meant. */
  onEasier?: (() => void) | null;
  /** Seconds a rep is to take; where no tempo is asked, as in a screen, it is left out. */
  askedSeconds?: number;
  /** Keys beside those of every trial, or in the place of some. */
  moreKeys?: LiveKey[];
}

/**
 * The body between two thumbs, all of it in the window: beside it where it is wide, above them on a tablet held upright or a
 * phone. What is over it is the line of the frame.
 */
const Live = styled.div<{ $thumb: "left" | "right" }>`
  display: grid;
  grid-template-columns: ${({ $thumb }) => ($thumb === "left" ? "212px minmax(0, 1fr) 228px" : "228px minmax(0, 1fr) 212px")};
  gap: ${({ theme }) => theme.space(5)};
  height: calc(100dvh - 104px);
  min-height: 500px;
  /* The stage ends with the window, also where the controls need more. */
  grid-template-rows: minmax(0, 1fr);
  .controls {
    order: ${({ $thumb }) => ($thumb === "left" ? 0 : 2)};
  }
  .stage {
    order: 1;
  }
  .panel {
    order: ${({ $thumb }) => ($thumb === "left" ? 2 : 0)};
  }
  ${({ theme }) => theme.narrow} {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    grid-template-rows: minmax(0, 1fr);
    grid-auto-rows: auto;
    grid-template-areas: ${({ $thumb }) => areas($thumb === "left" ? doing : ending, $thumb === "left" ? ending : doing)};
    gap: ${({ theme }) => theme.space(3)};
    .controls,
    .panel {
      display: contents;
    }
    .panel.instead {
      display: block;
      grid-column: 1 / -1;
    }
    .stage {
      grid-area: stage;
    }
    .side {
      grid-area: side;
    }
    .main {
      grid-area: main;
    }
    .cue {
      grid-area: cue;
    }
    .all {
      grid-area: all;
    }
    .undo {
      grid-area: undo;
    }
    .watched {
      grid-area: watched;
    }
    .counts {
      grid-area: counts;
    }
    .pain {
      grid-area: pain;
    }
    .ends {
      grid-area: ends;
    }
    .note {
      grid-area: note;
    }
    .cue > button {
      width: 100%;
    }
    .undo button {
      padding: 0;
    }
    /* Keys are for the desk; "?" still shows them. */
    .keys {
      display: none;
    }
  }
  @media (max-width: 56.25em) and (max-height: 900px) {
    height: auto;
    min-height: calc(100dvh - 104px);
    grid-template-rows: minmax(440px, 1fr);
  }
`;

/** What lies under which thumb on a tablet held upright, row by row. */
const doing = ["side", "undo", "cue", "all", "counts", "counts"];
const ending = ["main", "pain", "ends", "ends", "ends", "note"];

const areas = (left: string[], right: string[]) =>
  [`"stage stage"`, ...left.map((name, i) => `"${name} ${right[i]}"`), `"watched watched"`].join(" ");

const SideBlock = styled.div<{ $side: Side }>`
  padding: ${({ theme }) => theme.space(3)} ${({ theme }) => theme.space(4)};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme, $side }) =>
    $side === "left" ? theme.colour.sea : $side === "right" ? theme.colour.bark : theme.colour.slate};
  color: ${({ theme }) => theme.colour.sheet};
  text-align: ${({ $side }) => ($side === "right" ? "right" : "left")};
  strong {
    display: block;
    white-space: nowrap;
    font: 800 2.0625rem/1.1 ${({ theme }) => theme.font.display};
  }
`;

const Centre = styled.div`
  display: grid;
  grid-template-rows: minmax(0, 1fr);
  grid-auto-rows: auto;
  gap: ${({ theme }) => theme.space(3)};
  min-width: 0;
  @media (max-width: 37.5em) {
    gap: ${({ theme }) => theme.space(2)};
    .edges {
      display: none;
    }
  }
`;

/** Counts, pain and the end of the trial. */
const Panel = styled.div`
  display: grid;
  gap: ${({ theme }) => theme.space(4)};
  align-content: start;
`;

const Controls = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: ${({ theme }) => theme.space(3)};
  align-content: start;
  grid-auto-rows: min-content;
  .keys button,
  .cue > button {
    width: 100%;
  }
`;

/** How a trial ends, is halted, or is looked at closer. Stop stands apart, in the one red. */
const Ends = styled.div`
  display: grid;
  gap: ${({ theme }) => theme.space(3)};
  .two {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: ${({ theme }) => theme.space(2)};
  }
`;

const Stop = styled(Button)`
  border-color: ${({ theme }) => theme.colour.clay};
  color: ${({ theme }) => theme.colour.clay};
`;

/** A press so soon after a hold counted by itself is the press that would have counted it, milliseconds. */
const afterTargetMs = 1000;

export function LiveTrial(props: Props) {
  const { data: library } = useLibrary();
  if (!library) return null;
  const { rung } = findRung(library, props.trial.rungId);
  return <Running {...props} library={library} rung={rung} />;
}

function Running(props: Props & { library: Library; rung: Rung }) {
  const { trial, record, rung, library } = props;
  const [asking, setAsking] = useState(false);
  const [worried, setWorried] = useState(false);
  const [more, setMore] = useState(false);
  const settings = useLiveSettings();
  const watched = useWatched(trial, record);
  const faultName = (code: string) => library.faults.find((f) => f.code === code)?.name ?? code;
  const task = findTask(library, trial.taskId);
  const measure = measureOf(library, trial);
  const faults = useMemo(() => faultsOf(rung, library, props.others), [rung, library, props.others]);
  const actions = useMemo(() => actionsOf(trial, props.events, record), [trial, props.events, record]);
  const countIn = useCountIn(settings.delay, actions.hold);
  const [cm, setCm] = useState<number | null>(trial.reps.at(-1)?.amount ?? 60);
  const counted = measure === "yes-no" || measure === "effort" || measure === "centimetres";
  // A hold that lasted as long as asked is done; in a session the way back belongs to the rep.
  const countsItself = measure === "seconds" || trial.purpose === "screen";
  const main = () => {
    if (countsItself && hasJustCounted(trial)) return;
    if (trial.paused) actions.resume();
    else if (measure === "yes-no") actions.measure(1);
    else if (measure === "centimetres" && cm !== null) actions.measure(cm);
    else if (counted) return;
    else if (trial.target.hold > 0 && trial.holdSince === null) countIn.press();
    else actions.rep();
  };
  const met = isMet(trial, measure, task?.tries ?? 1);
  const end = () =>
    met ? actions.end("target-met") : plainlyGaveWay(trial) ? actions.end("breaking-fault") : setAsking(true);
  // What an instrument saw may still be marked.
  const alone = watched === null && !asking && !worried && !more;
  const done = settings.endsItself && alone && isPlainlyDone(trial, met);
  useEndsItself(trial, done, () => actions.end("target-met"));
  useTarget(trial, countsItself ? actions.rep : null);
  const theirs = props.moreKeys ?? [];
  const own = keysOf({ actions, faults, trial, task, main, end });
  const keys = [...theirs, ...own.filter((k) => !theirs.some((t) => t.key === k.key))];
  useLiveKeys(new Map(keys.map((k) => [k.key, k.run])), settings.keys && !asking && !worried && !more);
  const counts = new Map<string, number>();
  for (const mark of trial.marks) counts.set(mark.fault, (counts.get(mark.fault) ?? 0) + 1);
  const persisting = new Set(trial.marks.filter((m) => m.persists).map((m) => m.fault));
  const ranged = measure === "degrees" || (measure === "reps" && trial.purpose === "screen");
  return (
    <Live $thumb={settings.thumb} data-live>
      <Controls className="controls">
        <WhichSide side={trial.side} rung={rung} />
        <div className="main">
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
        </div>
        {canAllBeClean(trial, measure) && (
          <Button className="all" $quiet onPress={() => allClean(trial, actions)}>
            {say("capture.all-clean", { reps: trial.target.reps })}
          </Button>
        )}
        <div className="cue">
          {!counted && <Cue trial={trial} actions={actions} cue={rung.cues[0] ?? ""} />}
        </div>
        <Row className="undo" $gap={2}>
          <Button $quiet style={{ flex: 1 }} isDisabled={trial.lastEventId === null} onPress={actions.undo}>
            {say("capture.undo-2")}
          </Button>
          <Button $quiet style={{ flex: 1 }} isDisabled={!actions.canRedo} onPress={actions.redo}>
            {say("capture.redo-2")}
          </Button>
        </Row>
        {watched && (
          <div className="watched">
            <InstrumentControls
              watched={watched}
              trial={trial}
              record={record}
              faultName={faultName}
              askedSeconds={counted ? null : (props.askedSeconds ?? 0)}
            />
          </div>
        )}
        {/* Without room for its button the list of keys still opens with "?". */}
        <div className="keys" hidden={watched !== null}>
          <KeysDialog keys={keys} />
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
          low={watched !== null}
        />
        <Small className="edges">{say("capture.solid-edge")}</Small>
        {ranged && <RangeRow trial={trial} rung={rung} task={task} actions={actions} />}
        <HoldStrip trial={trial} faultName={faultName} />
        {props.guide}
        {watched?.device && (
          <TraceCanvas
            samples={watched.samples}
            setup={watched.device.setup}
            neutral={watched.state.neutral}
            losses={watched.state.losses}
          />
        )}
      </Centre>
      {props.instead ? (
        <div className="panel instead">{props.instead}</div>
      ) : worried ? (
        <div className="panel instead">
          <StopWorry trial={trial} actions={actions} onBack={() => setWorried(false)} />
        </div>
      ) : asking ? (
        <div className="panel instead">
          <WhyEnded onEnd={actions.end} onBack={() => setAsking(false)} />
        </div>
      ) : (
        <EndPanel
          {...props}
          actions={actions}
          met={met}
          done={done}
          onEnd={end}
          onStop={() => setWorried(true)}
          onMore={() => setMore(true)}
        />
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

function EndPanel(
  props: Props & {
    library: Library;
    actions: Actions;
    met: boolean;
    /** It ends by itself in a moment. */
    done: boolean;
    onEnd: () => void;
    onStop: () => void;
    onMore: () => void;
  },
) {
  const { trial, actions } = props;
  return (
    <Panel className="panel">
      <HiddenVisually role="status">
        {trial.paused
          ? say("capture.paused")
          : say("capture.trial-clean-of-reps-side", {
              trial: cleanReps(trial),
              reps: trial.reps.length,
              side: trial.side === "both" ? say("capture.no-side") : trial.side,
            })}{" "}
        {lastSaid(trial, props.library)}
      </HiddenVisually>
      <div className="counts">
        <Counts trial={trial} others={props.others} library={props.library} />
      </div>
      <div className="pain">
        <PainStepper trial={trial} onPain={actions.pain} />
      </div>
      {props.note && <Small className="note">{props.note}</Small>}
      <Ends className="ends">
        <Button $quiet={!props.met} onPress={props.onEnd}>
          {trial.side === "both"
            ? say("capture.end-this-trial")
            : say("capture.end-side-side", { side: trial.side })}
        </Button>
        {props.done && <Small role="status">{say("capture.ends-by-itself")}</Small>}
        <Stop $quiet onPress={props.onStop}>
          {say("capture.stop-pain-or-worry")}
        </Stop>
        {props.onEasier && (
          <Button $quiet onPress={props.onEasier}>
            {say("capture.make-it-easier")}
          </Button>
        )}
        <div className="two">
          {trial.paused ? (
            <strong style={{ minHeight: 56, display: "grid", placeItems: "center" }}>
              {say("capture.paused-2")}
            </strong>
          ) : (
            <Button $quiet style={{ padding: 0 }} onPress={actions.pause}>
              {say("capture.pause")}
            </Button>
          )}
          <Button $quiet style={{ padding: 0 }} onPress={props.onMore}>
            {say("capture.more")}
          </Button>
        </div>
      </Ends>
    </Panel>
  );
}

/** The press was meant for the hold that has counted by itself a moment ago. */
function hasJustCounted({ reps, target }: LiveTrialState) {
  const last = reps.at(-1);
  return target.hold > 0 && !!last && last.held >= target.hold && clock.now() - last.at < afterTargetMs;
}

/** Nothing was counted or seen yet, and reps are all that is counted: one press says that all of them were clean. */
const canAllBeClean = (trial: LiveTrialState, measure: string) =>
  trial.purpose === "screen" &&
  measure === "reps" &&
  trial.target.hold === 0 &&
  !trial.paused &&
  trial.reps.length === 0 &&
  trial.marks.length === 0;

function allClean(trial: LiveTrialState, actions: Actions) {
  for (let rep = 0; rep < trial.target.reps; rep++) actions.rep();
}

/** The mark or the cue that came last, for those who do not see it light up. */
function lastSaid(trial: LiveTrialState, library: Library) {
  const mark = trial.marks.at(-1);
  if (!mark) return trial.cueGiven ? say("capture.cue-given") : "";
  return say("capture.fault-seen", {
    fault: library.faults.find((f) => f.code === mark.fault)?.name ?? mark.fault,
    stays: mark.persists ? "yes" : "no",
    count: trial.marks.filter((m) => m.fault === mark.fault).length,
  });
}

/** The side that cannot be missed: word, place, mark and colour. */
function WhichSide(props: { side: Side; rung: Rung }) {
  return (
    <SideBlock className="side" $side={props.side}>
      {props.side !== "both" && <>{say("capture.client-s")}</>}
      <strong>
        {props.side === "left" && `${sideArrow("left")} `}
        {props.side !== "both"
          ? props.side.toUpperCase()
          : props.rung.sides === "both"
            ? say("capture.both-sides")
            : say("capture.no-side-2")}
        {props.side === "right" && ` ${sideArrow("right")}`}
      </strong>
      {props.rung.sides === "none" ? say("capture.the-whole-trunk") : props.rung.sideMeans}
    </SideBlock>
  );
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
