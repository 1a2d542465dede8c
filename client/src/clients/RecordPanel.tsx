import { useMutation } from "@tanstack/react-query";
import { api } from "../api/client";
import { saveAnswer } from "../controls/answerFiles";
import type { ClientCard } from "../api/types";
import { Button } from "../controls/Button";
import { ProblemNote, Row, Ruled, Small, Stack } from "../controls/layout";
import { say } from "../words/say";

/** All that is kept of a client, to be passed on. */
export function RecordPanel({ client }: { client: ClientCard }) {
  const make = useMutation({
    mutationFn: () =>
      saveAnswer(
        api.GET("/api/clients/{clientId}/record.zip", {
          params: { path: { clientId: client.id } },
          parseAs: "blob",
        }),
      ),
  });
  return (
    <Ruled>
      <Stack $gap={2}>
        <strong>{say("clients.record-as-a-file")}</strong>
        <Small>{say("clients.record-holds")}</Small>
        <ProblemNote error={make.error} />
        {make.isSuccess && <p role="status">{say("clients.made-the-file")}</p>}
        <Row>
          <Button $quiet isDisabled={make.isPending} onPress={() => make.mutate()}>
            {say("clients.make-the-file")}
          </Button>
        </Row>
      </Stack>
    </Ruled>
  );
}
