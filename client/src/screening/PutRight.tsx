import { useState } from "react";
import { Disclosure, DisclosurePanel } from "react-aria-components";
import { findRung } from "../api/queries";
import type { CaptureEvent, Library } from "../api/types";
import { cleanReps, type LiveTrialState } from "../capture/liveTrial";
import { findTask } from "../capture/sideCounts";
import { Discarded } from "../capture/Discarded";
import { discardedOf } from "../capture/discarded";
import type { RecordEvent } from "../capture/useCapture";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { Quiet, Row, Ruled, Small, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { say } from "../words/say";
import { MoveTrial } from "./MoveTrial";

interface Props {
  /** Ended trials of the screen. */
  trials: LiveTrialState[];
  events: CaptureEvent[];
  library: Library;
  record: RecordEvent;
}

/** Any trial of the screen, however long ago, can be put right; why is kept with it and nothing is erased. */
export function PutRight(props: Props) {
  const { trials, library, record } = props;
  const discarded = discardedOf(props.events, "screen");
  if (trials.length + discarded.length === 0) return null;
  const nameOf = (t: { rungId: string; taskId?: string | null }) =>
    findTask(library, t.taskId ?? null)?.name ?? findRung(library, t.rungId).rung.name;
  return (
    <Disclosure>
      <Button $quiet $small slot="trigger">
        {say("screening.put-a-trial-right")}
      </Button>
      <DisclosurePanel>
        <Stack $gap={2} style={{ paddingTop: 8 }}>
          <Small>{say("screening.nothing-is-erased-the-log")}</Small>
          {trials.map((t) => (
            <OneTrial key={t.trialId} trial={t} name={nameOf(t)} record={record} />
          ))}
          <Discarded list={discarded} nameOf={(s) => `${nameOf(s)}, ${s.side}`} record={record} />
        </Stack>
      </DisclosurePanel>
    </Disclosure>
  );
}

function OneTrial(props: { trial: LiveTrialState; name: string; record: RecordEvent }) {
  const { trial, name, record } = props;
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState("");
  const side = trial.side === "both" ? "" : `, ${trial.side}`;
  const amend = (change: () => void) => {
    record(trial.trialId, "trial-amended", { reason: reason.trim() });
    change();
    setOpen(false);
    setReason("");
  };
  return (
    <Ruled>
      <Row $between>
        <span>
          {name} {trial.side !== "both" && <SideTag side={trial.side} />}{" "}
          <Quiet>
            {trial.reps.length > 0 &&
              say("screening.trial-of-reps-clean", { trial: cleanReps(trial), reps: trial.reps.length })}
          </Quiet>
        </span>
        <Button
          $quiet
          $small
          aria-expanded={open}
          aria-label={say("screening.put-right-name-side", { name, side })}
          onPress={() => setOpen(!open)}
        >
          {say("screening.put-right")}
        </Button>
      </Row>
      {open && (
        <Stack $gap={3} style={{ marginTop: 8 }}>
          <TextField
            label={say("screening.why")}
            hint={say("screening.kept-with-the-trial")}
            value={reason}
            onChange={setReason}
          />
          <Row>
            {trial.side !== "both" && (
              <Button
                $quiet
                $small
                isDisabled={!reason.trim()}
                onPress={() =>
                  amend(() =>
                    record(trial.trialId, "side-corrected", {
                      side: trial.side === "left" ? "right" : "left",
                    }),
                  )
                }
              >
                {say("screening.it-was-the-other-side-2")}
              </Button>
            )}
            {trial.endedBy && (
              <Button
                $quiet
                $small
                isDisabled={!reason.trim()}
                onPress={() =>
                  amend(() => trial.endedBy && record(trial.trialId, "undone", { undoes: trial.endedBy }))
                }
              >
                {say("screening.open-it-again")}
              </Button>
            )}
            <Button
              $quiet
              $small
              isDisabled={!reason.trim()}
              onPress={() => amend(() => record(trial.trialId, "trial-discarded"))}
            >
              {say("screening.does-not-count")}
            </Button>
            <MoveTrial trialId={trial.trialId} reason={reason.trim()} onMoved={() => setOpen(false)} />
          </Row>
        </Stack>
      )}
    </Ruled>
  );
}
