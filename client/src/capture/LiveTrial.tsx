import { useMemo, useState } from "react";
import { findRung, useLibrary } from "../api/queries";
import type { CaptureEvent, Library, Rung } from "../api/types";
import { Button } from "../controls/Button";
import { Row, Small } from "../controls/layout";
import { InstrumentControls } from "./InstrumentControls";
import { TraceCanvas } from "./TraceCanvas";
import { useWatched } from "./useWatched";
import { actionsOf } from "./actions";
import { findTask, measureOf } from "./sideCounts";
import { faultsHere } from "./breaksRep";
import { Cue } from "./Cue";
import { EndPanel } from "./EndPanel";
import { FaultStage } from "./FaultStage";
import { HoldStrip } from "./HoldStrip";
import { KeysDialog } from "./KeysDialog";
import { keysOf, type LiveKey } from "./liveKeys";
import { useLiveSettings } from "./liveSettings";
import type { LiveTrialState } from "./liveTrial";
import { Centre, Controls, Live } from "./LiveGrid";
import { MainControl } from "./MainControl";
import { MoreDialog } from "./MoreDialog";
import { RangeRow } from "./RangeRow";
import type { RecordEvent } from "./useCapture";
import { useCountIn } from "./useCountIn";
import { allClean, canAllBeClean, hasJustCounted, isPlainlyDone, plainlyGaveWay } from "./screenTaps";
import { useEndsItself } from "./useEndsItself";
import { useLiveKeys } from "./useLiveKeys";
import { useTarget } from "./useTarget";
import { StopWorry } from "./StopWorry";
import { WhichSide } from "./WhichSide";
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
  const countsItself = measure === "seconds" || (trial.purpose === "screen" && settings.byItself);
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
  // While something is asked nothing goes by itself: a client who stops may have let go.
  const quiet = !asking && !worried && !more;
  // What an instrument saw may still be marked.
  const done = settings.byItself && quiet && watched === null && isPlainlyDone(trial, met);
  useEndsItself(trial, done, actions.endDone);
  useTarget(trial, countsItself && quiet ? actions.heldToTarget : null);
  const theirs = props.moreKeys ?? [];
  const own = keysOf({ actions, faults, trial, task, main, end });
  const keys = [...theirs, ...own.filter((k) => !theirs.some((t) => t.key === k.key))];
  useLiveKeys(new Map(keys.map((k) => [k.key, k.run])), settings.keys && quiet);
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
          trial={trial}
          others={props.others}
          library={library}
          note={props.note}
          onEasier={props.onEasier}
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

/** The faults of this task, and any other that was marked in this visit; those seen lately first. */
function faultsOf(rung: Rung, library: Library, others: LiveTrialState[]) {
  const lately = others.flatMap((t) => t.marks.map((m) => m.fault)).reverse();
  const place = (code: string) => {
    const at = lately.indexOf(code);
    return at < 0 ? lately.length : at;
  };
  return faultsHere(rung, library)
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
