import { useEffect, useState } from "react";
import { Dialog, Heading } from "react-aria-components";
import { reasonWith } from "../api/reasoned";
import { Button } from "../controls/Button";
import { TextField } from "../controls/fields";
import { Row, Small } from "../controls/layout";
import { Sheet, Veil } from "../controls/Modal";
import { SubmitForm } from "../controls/SubmitForm";
import { say } from "../words/say";

interface Asked {
  why: string;
  answer: (reason: string | null) => void;
}

/** Asks why something is changed that was written on an earlier day or decided on; what stood there is kept beside it. */
export function ReasonDialog() {
  const [asked, setAsked] = useState<Asked | null>(null);
  useEffect(() => reasonWith((why) => new Promise((answer) => setAsked({ why, answer }))), []);
  const close = (reason: string | null) => {
    asked?.answer(reason);
    setAsked(null);
  };
  return (
    <Veil isOpen={asked !== null} onOpenChange={() => close(null)}>
      <Sheet>
        <Dialog>{asked && <Ask why={asked.why} onAnswer={close} />}</Dialog>
      </Sheet>
    </Veil>
  );
}

function Ask(props: { why: string; onAnswer: (reason: string | null) => void }) {
  const [reason, setReason] = useState("");
  return (
    <SubmitForm onSubmit={() => reason.trim() && props.onAnswer(reason.trim())}>
      <Heading slot="title">{say("frame.why-is-it-changed")}</Heading>
      <Small>{props.why}</Small>
      <TextField
        label={say("frame.reason")}
        hint={say("frame.kept-with-what-stood-there")}
        value={reason}
        onChange={setReason}
        focused
      />
      <Row>
        <Button type="submit" isDisabled={!reason.trim()}>
          {say("frame.change-it")}
        </Button>
        <Button $quiet onPress={() => props.onAnswer(null)}>
          {say("frame.leave-it")}
        </Button>
      </Row>
    </SubmitForm>
  );
}
