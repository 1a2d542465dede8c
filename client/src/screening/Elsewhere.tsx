import { findRung } from "../api/queries";
import type { Library } from "../api/types";
import type { LiveTrialState } from "../capture/liveTrial";
import type { RecordEvent } from "../capture/useCapture";
import { Button } from "../controls/Button";
import { Note, Row } from "../controls/layout";
import { timeWords } from "../api/clinicTime";
import { say, sayRich } from "../words/say";

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
            {sayRich("screening.open-elsewhere", {
              rung: rung.name,
              side: trial.side !== "both" ? `, ${trial.side}` : "",
              strong: (chunks) => <strong>{chunks}</strong>,
              since: timeWords(new Date(trial.startedAt).toISOString()),
              by: trial.by ? ` ${say("screening.with-by", { by: trial.by })}` : "",
            })}
          </span>
          <Row $gap={2}>
            <Button $quiet onPress={() => props.onTake(trial.trialId)}>
              {say("screening.take-it-over-here")}
            </Button>
            <Button $quiet onPress={() => props.record(trial.trialId, "trial-ended", { reason: "stopped" })}>
              {say("screening.end-it")}
            </Button>
            <Button $quiet onPress={() => props.record(trial.trialId, "trial-discarded")}>
              {say("screening.discard-it")}
            </Button>
          </Row>
        </Row>
      </Note>
    );
  });
}
