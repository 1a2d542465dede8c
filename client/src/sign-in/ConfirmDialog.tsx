import { useMutation } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Dialog, Heading } from "react-aria-components";
import { api, got, ProblemError } from "../api/client";
import { confirmWith } from "../api/confirm";
import { Button } from "../controls/Button";
import { PasswordField } from "../controls/secrets";
import { ProblemNote, Row, Small } from "../controls/layout";
import { Sheet, Veil } from "../controls/Modal";
import { SubmitForm } from "../controls/SubmitForm";
import { say } from "../words/say";

/** Asks for the password where the server wants it again, before something that cannot be taken lightly. */
export function ConfirmDialog() {
  const [answer, setAnswer] = useState<((given: boolean) => void) | null>(null);
  useEffect(() => confirmWith(() => new Promise((resolve) => setAnswer(() => resolve))), []);
  const close = (given: boolean) => {
    answer?.(given);
    setAnswer(null);
  };
  return (
    <Veil isOpen={answer !== null} onOpenChange={() => close(false)}>
      <Sheet>
        <Dialog>{answer && <Ask onGiven={() => close(true)} onBack={() => close(false)} />}</Dialog>
      </Sheet>
    </Veil>
  );
}

function Ask(props: { onGiven: () => void; onBack: () => void }) {
  const [password, setPassword] = useState("");
  const give = useMutation({
    mutationFn: () => got(api.POST("/api/reauthenticate", { body: { password } })),
    onSuccess: props.onGiven,
  });
  const field = give.error instanceof ProblemError ? give.error.field("password") : undefined;
  return (
    <SubmitForm onSubmit={() => give.mutate()}>
      <Heading slot="title">{say("sign-in.your-password-again")}</Heading>
      <Small>{say("sign-in.so-that-nobody-does-it")}</Small>
      <PasswordField
        label={say("sign-in.password")}
        value={password}
        onChange={setPassword}
        error={field}
        focused
      />
      {!field && <ProblemNote error={give.error} />}
      <Row>
        <Button type="submit" isDisabled={give.isPending || password === ""}>
          {say("sign-in.go-on")}
        </Button>
        <Button $quiet onPress={props.onBack}>
          {say("sign-in.back")}
        </Button>
      </Row>
    </SubmitForm>
  );
}
