import { useState } from "react";
import { Dialog } from "react-aria-components";
import type { Instrument, Library, Rung } from "../api/types";
import { FeltChoice } from "./FeltChoice";
import { Button } from "../controls/Button";
import { Choice, NumberField, Scale } from "../controls/fields";
import { Columns, Row, Small, Stack } from "../controls/layout";
import { Sheet, Veil } from "../controls/Modal";
import type { Actions } from "./actions";
import { FaultList } from "./FaultList";
import type { LiveTrialState } from "./liveTrial";
import { instrumentNames } from "./instrumentNames";
import { PickInstrument } from "./PickInstrument";
import { LiveSettingsFields } from "./LiveSettingsFields";
import { say } from "../words/say";

/** What is needed now and then in a trial, one press away from the live screen. */
export function MoreDialog(props: {
  trial: LiveTrialState;
  rung: Rung;
  library: Library;
  actions: Actions;
  isOpen: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  const { trial, rung, library, actions } = props;
  const close = () => props.onOpenChange(false);
  const other = trial.side === "left" ? "right" : "left";
  return (
    <Veil isOpen={props.isOpen} onOpenChange={props.onOpenChange} isDismissable>
      <Sheet $wide>
        <Dialog aria-label={say("capture.more-about-this-trial")}>
          <Stack $gap={5}>
            <Row $between>
              <h2>{say("capture.more-about-this-trial")}</h2>
              <Button $quiet onPress={close}>
                {say("capture.back-to-the-trial")}
              </Button>
            </Row>
            <Columns $at="530px minmax(0, 1fr)" style={{ gap: 24 }}>
              <Stack $gap={4}>
                <Scale
                  label={say("capture.pain-before")}
                  value={trial.pain.before}
                  onChange={(v) => actions.pain(v, "before")}
                />
                <Scale
                  label={say("capture.pain-at-its-worst")}
                  value={trial.pain.peak}
                  onChange={(v) => actions.pain(v)}
                />
                <Scale
                  label={say("capture.pain-after")}
                  value={trial.pain.after}
                  onChange={(v) => actions.pain(v, "after")}
                />
                <FeltChoice felt={trial.felt} library={library} onFelt={actions.felt} />
              </Stack>
              <Stack $gap={4}>
                <Choice
                  label={say("capture.what-showed-that-the-trunk")}
                  value={trial.instruments.at(-1) ?? null}
                  onChange={actions.instrument}
                  options={(Object.keys(instrumentNames) as Instrument[]).map((value) => ({
                    value,
                    label: instrumentNames[value],
                  }))}
                />
                <Degrees trial={trial} actions={actions} />
                <FaultList library={library} rung={rung} onMark={(code) => actions.mark(code)} />
                {trial.side !== "both" && (
                  <Row>
                    <Button
                      $quiet
                      onPress={() => {
                        actions.otherSide(other);
                        close();
                      }}
                    >
                      {say("capture.it-was-the-other-side", { other })}
                    </Button>
                    <Small>{say("capture.moves-the-whole-trial-to")}</Small>
                  </Row>
                )}
                <Row>
                  <Button
                    $quiet
                    onPress={() => {
                      actions.discard();
                      close();
                    }}
                  >
                    {say("capture.discard-this-trial")}
                  </Button>
                  <Small>{say("capture.it-stays-in-the-log")}</Small>
                </Row>
              </Stack>
            </Columns>
            <PickInstrument />
            <LiveSettingsFields />
          </Stack>
        </Dialog>
      </Sheet>
    </Veil>
  );
}

function Degrees(props: { trial: LiveTrialState; actions: Actions }) {
  const [degrees, setDegrees] = useState<number | null>(props.trial.range?.degrees ?? null);
  return (
    <Row $gap={2}>
      <NumberField
        label={say("capture.how-far-degrees")}
        small
        value={degrees}
        onChange={setDegrees}
        min={0}
        max={180}
        step={5}
      />
      <Button
        $quiet
        $small
        isDisabled={degrees === null}
        onPress={() => degrees !== null && props.actions.range({ share: null, degrees })}
      >
        {say("capture.use-this-range")}
      </Button>
    </Row>
  );
}
