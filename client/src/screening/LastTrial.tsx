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
    <Ruled aria-label="The trial before">
      <Row $between>
        <span>
          <strong>Before:</strong> {findTask(library, trial.taskId)?.name ?? rung.name}{" "}
          {trial.side !== "both" && <SideTag side={trial.side} />}{" "}
          <Quiet>
            {trial.reps.length > 0 && `${cleanReps(trial)} clean of ${trial.reps.length}`}
            {trial.pain.after !== null && ` · pain after ${trial.pain.after}`}
            {felt && ` · felt in ${felt.words}`}
          </Quiet>
        </span>
        <Row $gap={2}>
          <Button $quiet $small onPress={actions.reopen}>
            Undo its end
          </Button>
          <Button $quiet $small aria-expanded={open} onPress={() => setOpen(!open)}>
            Pain after, where felt
          </Button>
        </Row>
      </Row>
      <JustMeasured trial={trial} />
      {open && (
        <Stack $gap={4} style={{ marginTop: 12 }}>
          <Scale
            label={`Pain after; before it was ${trial.pain.before ?? "not asked"}`}
            value={trial.pain.after}
            onChange={(value) => actions.pain(value, "after")}
          />
          <FeltChoice felt={trial.felt} library={library} onFelt={actions.felt} />
          <Row>
            {trial.side !== "both" && (
              <Button $quiet onPress={() => actions.otherSide(other)}>
                It was the {other} side
              </Button>
            )}
            <Button $quiet onPress={actions.discard}>
              Discard it
            </Button>
          </Row>
        </Stack>
      )}
    </Ruled>
  );
}
