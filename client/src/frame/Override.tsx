import { useState } from "react";
import type { Rung } from "../api/types";
import { Button } from "../controls/Button";
import { Checkbox, TextField } from "../controls/fields";
import { Note, Row, Stack } from "../controls/layout";

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
      <h2>{props.rung.name} is barred</h2>
      <Note grave>{props.why}.</Note>
      <TextField
        long
        label="Why it is safe for this client"
        hint="Stays on the plan and in the record, with your name."
        value={reason}
        onChange={setReason}
      />
      <Checkbox selected={sure} onChange={setSure}>
        I have looked again and prescribe it despite the contraindication.
      </Checkbox>
      <Row>
        <Button isDisabled={!sure || !reason.trim()} onPress={() => props.onPick(reason.trim())}>
          Prescribe despite the contraindication
        </Button>
        <Button $quiet onPress={props.onBack}>
          Choose another
        </Button>
      </Row>
    </Stack>
  );
}
