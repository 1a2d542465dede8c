import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, got, ProblemError } from "../api/client";

import type { ClientCard, ErasureCertificate } from "../api/types";
import { Button } from "../controls/Button";
import { Checkbox, TextField } from "../controls/fields";
import { Opener } from "../controls/DataTable";
import { Note, ProblemNote, Row, Ruled } from "../controls/layout";
import { SubmitForm } from "../controls/SubmitForm";
import { say } from "../words/say";

/** Everything about a client, for good: by name, with a reason, and a certificate of what went. */
export function ErasePanel(props: { client: ClientCard; onErased: (of: ErasureCertificate) => void }) {
  const { client } = props;
  const [open, setOpen] = useState(false);
  const [name, setName] = useState("");
  const [reason, setReason] = useState("");
  const [early, setEarly] = useState(false);
  const erase = useMutation({
    mutationFn: () =>
      got(
        api.POST("/api/clients/{clientId}/erasure", {
          params: { path: { clientId: client.id } },
          body: { name, reason, early },
        }),
      ),
    onSuccess: props.onErased,
  });
  const problem = erase.error instanceof ProblemError ? erase.error : null;
  return (
    <Ruled>
      <Opener aria-expanded={open} onPress={() => setOpen(!open)}>
        {say("clients.erase-for-good")}
      </Opener>
      {open && (
        <SubmitForm onSubmit={() => erase.mutate()}>
          <Note grave>{say("clients.erase-means")}</Note>
          <TextField
            label={say("clients.write-the-name", { name: client.name })}
            value={name}
            onChange={setName}
            error={problem?.field("name")}
          />
          <TextField
            label={say("clients.why")}
            value={reason}
            onChange={setReason}
            error={problem?.field("reason")}
          />
          {(problem?.field("early") || early) && (
            <>
              <p>{problem?.field("early")}</p>
              <Checkbox selected={early} onChange={setEarly}>
                {say("clients.erase-early")}
              </Checkbox>
            </>
          )}
          {problem && problem.fields.length === 0 && <ProblemNote error={problem} />}
          <Row>
            <Button
              type="submit"
              isDisabled={name.trim() !== client.name || !reason.trim() || erase.isPending}
            >
              {say("clients.erase")}
            </Button>
          </Row>
        </SubmitForm>
      )}
    </Ruled>
  );
}
