import { findRung } from "../api/queries";
import { v7 as uuid } from "uuid";
import type { CaptureEvent, Library } from "../api/types";
import { cleanReps, effective, type LiveTrialState } from "../capture/liveTrial";
import type { RecordEvent } from "../capture/useCapture";
import { wayWords } from "./sessionWork";
import { FeltChoice } from "../capture/FeltChoice";
import { Scale } from "../controls/fields";
import { Quiet, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { JustMeasured } from "../frame/Measured";
import { say } from "../words/say";

/** After each set: pain, where it was felt, how hard it was. Each answer is stored as it is given. */
export function AfterSet(props: {
  trial: LiveTrialState;
  events: CaptureEvent[];
  library: Library;
  record: RecordEvent;
}) {
  const { trial, record, library } = props;
  const { rung } = findRung(library, trial.rungId);
  const changed = effective(props.events).some(
    (e) => e.kind === "set-up-changed" && e.planItemId === trial.planItemId && e.place === trial.felt,
  );
  return (
    <Stack $gap={5} style={{ minWidth: 0 }}>
      <h1>
        {rung.name} {rung.sides !== "none" && <SideTag side={trial.side} />}{" "}
        <Quiet style={{ fontSize: "1rem", fontWeight: 400 }}>
          {say("visits.set-clean", {
            set: trial.set,
            way: wayWords(rung, trial.variant) ? `, ${wayWords(rung, trial.variant)}` : "",
            clean: cleanReps(trial),
            reps: trial.reps.length,
          })}
        </Quiet>
      </h1>
      <Scale
        label={say("visits.pain-after-before-it-was", {
          before: trial.pain.before ?? say("visits.not-asked"),
        })}
        value={trial.pain.after}
        onChange={(value) => record(trial.trialId, "pain-marked", { phase: "after", value })}
      />
      <FeltChoice
        felt={trial.felt}
        library={library}
        onFelt={(place) => record(trial.trialId, "felt-marked", { place })}
        change={
          trial.planItemId === null || trial.felt === null
            ? null
            : {
                done: changed,
                onDone: () =>
                  record(uuid(), "set-up-changed", { planItemId: trial.planItemId!, place: trial.felt! }),
              }
        }
      />
      <Scale
        label={say("visits.how-hard-was-it-0")}
        value={trial.effort}
        onChange={(value) => record(trial.trialId, "effort-marked", { value })}
      />
      <JustMeasured trial={trial} />
    </Stack>
  );
}
