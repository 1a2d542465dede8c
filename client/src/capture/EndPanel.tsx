import styled from "styled-components";
import type { Library } from "../api/types";
import { Button } from "../controls/Button";
import { HiddenVisually, Small } from "../controls/layout";
import type { Actions } from "./actions";
import { Counts } from "./Counts";
import { Panel } from "./LiveGrid";
import { cleanReps, type LiveTrialState } from "./liveTrial";
import { PainStepper } from "./PainStepper";
import { say } from "../words/say";

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

/** Counts, pain, and every way out of the trial. */
export function EndPanel(props: {
  trial: LiveTrialState;
  others: LiveTrialState[];
  library: Library;
  actions: Actions;
  note?: string;
  met: boolean;
  /** It ends by itself in a moment. */
  done: boolean;
  onEnd: () => void;
  onStop: () => void;
  onMore: () => void;
  onEasier?: (() => void) | null;
}) {
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
