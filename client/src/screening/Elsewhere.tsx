import { findRung } from "../api/queries";
import type { Library } from "../api/types";
import type { LiveTrialState } from "../capture/liveTrial";
import type { RecordEvent } from "../capture/useCapture";
import { Button } from "../controls/Button";
import { Note, Row } from "../controls/layout";
import { timeWords } from "../api/clinicTime";

/** Trials that are open and not run here: on another tablet, or never ended. They count once somebody ends them. */
export function Elsewhere(props: {
  trials: LiveTrialState[];
  library: Library;
  record: RecordEvent;
  onTake: (trialId: string) => void;
}) {
  return props.trials.map((trial) => {
    const { rung } = findRung(props.library, trial.rungId);
    return (
      <Note key={trial.trialId}>
        <Row $between>
          <span>
            <strong>
              {rung.name}
              {trial.side !== "both" && `, ${trial.side}`}
            </strong>{" "}
            is open since {timeWords(new Date(trial.startedAt).toISOString())}
            {trial.by && ` with ${trial.by}`}: on another tablet, or never ended. It does not count yet.
          </span>
          <Row $gap={2}>
            <Button $quiet onPress={() => props.onTake(trial.trialId)}>
              Take it over here
            </Button>
            <Button $quiet onPress={() => props.record(trial.trialId, "trial-ended", { reason: "stopped" })}>
              End it
            </Button>
            <Button $quiet onPress={() => props.record(trial.trialId, "trial-discarded")}>
              Discard it
            </Button>
          </Row>
        </Row>
      </Note>
    );
  });
}
