import { useState } from "react";
import { findRung } from "../api/queries";
import type { CaptureEvent, Library } from "../api/types";
import { actionsOf } from "../capture/actions";
import { findTask } from "../capture/sideCounts";
import { cleanReps, type LiveTrialState } from "../capture/liveTrial";
import type { RecordEvent } from "../capture/useCapture";
import { FeltChoice } from "../capture/FeltChoice";
import { Button } from "../controls/Button";
import { Scale } from "../controls/fields";
import { Quiet, Row, Ruled, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { JustMeasured } from "../frame/Measured";
import { say } from "../words/say";

/** The trial just ended: pain after it, where it was felt, and a way back into it. */
export function LastTrial(props: {
  trial: LiveTrialState;
  events: CaptureEvent[];
  library: Library;
  record: RecordEvent;
}) {
  const { trial, library } = props;
  const [open, setOpen] = useState(false);
  const { rung } = findRung(library, trial.rungId);
  const actions = actionsOf(trial, props.events, props.record);
  const felt = library.feltPlaces.find((p) => p.id === trial.felt);
  const other = trial.side === "left" ? "right" : "left";
  return (
    <Ruled aria-label={say("screening.the-trial-before")}>
      <Row $between>
        <span>
          <strong>{say("screening.before")}</strong> {findTask(library, trial.taskId)?.name ?? rung.name}{" "}
          {trial.side !== "both" && <SideTag side={trial.side} />}{" "}
          <Quiet>
            {trial.reps.length > 0 &&
              say("screening.trial-clean-of-reps", { trial: cleanReps(trial), reps: trial.reps.length })}
            {trial.pain.after !== null &&
              ` ${say("screening.pain-after-after", { after: trial.pain.after })}`}
            {felt && ` ${say("screening.felt-in-felt", { felt: felt.words })}`}
          </Quiet>
        </span>
        <Row $gap={2}>
          <Button $quiet $small onPress={actions.reopen}>
            {say("screening.undo-its-end")}
          </Button>
          <Button $quiet $small aria-expanded={open} onPress={() => setOpen(!open)}>
            {say("screening.pain-after-where-felt")}
          </Button>
        </Row>
      </Row>
      <JustMeasured trial={trial} />
      {open && (
        <Stack $gap={4} style={{ marginTop: 12 }}>
          <Scale
            label={say("screening.pain-after-before-it-was", {
              before: trial.pain.before ?? say("screening.not-asked"),
            })}
            value={trial.pain.after}
            onChange={(value) => actions.pain(value, "after")}
          />
          <FeltChoice felt={trial.felt} library={library} onFelt={actions.felt} />
          <Row>
            {trial.side !== "both" && (
              <Button $quiet onPress={() => actions.otherSide(other)}>
                {say("screening.it-was-the-other-side", { other })}
              </Button>
            )}
            <Button $quiet onPress={actions.discard}>
              {say("screening.discard-it")}
            </Button>
          </Row>
        </Stack>
      )}
    </Ruled>
  );
}
