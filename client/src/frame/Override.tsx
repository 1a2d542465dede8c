import { useState } from "react";
import type { Rung } from "../api/types";
import { Button } from "../controls/Button";
import { Checkbox, TextField } from "../controls/fields";
import { Note, Row, Stack } from "../controls/layout";
import { say } from "../words/say";

/** A barred rung asks for a written reason and a second look. */
export function Override(props: {
  rung: Rung;
  why: string;
  onBack: () => void;
  onPick: (reason: string) => void;
}) {
  const [reason, setReason] = useState("");
  const [sure, setSure] = useState(false);
  return (
    <Stack $gap={4}>
      <h2>{say("frame.rung-is-barred", { rung: props.rung.name })}</h2>
      <Note grave>{props.why}.</Note>
      <TextField
        long
        label={say("frame.why-it-is-safe-for")}
        hint={say("frame.stays-on-the-plan-and")}
        value={reason}
        onChange={setReason}
      />
      <Checkbox selected={sure} onChange={setSure}>
        {say("frame.i-have-looked-again-and")}
      </Checkbox>
      <Row>
        <Button isDisabled={!sure || !reason.trim()} onPress={() => props.onPick(reason.trim())}>
          {say("frame.prescribe-despite-the-contraindication")}
        </Button>
        <Button $quiet onPress={props.onBack}>
          {say("frame.choose-another")}
        </Button>
      </Row>
    </Stack>
  );
}
