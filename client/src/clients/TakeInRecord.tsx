import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Dialog, FileTrigger, Heading } from "react-aria-components";
import { useNavigate } from "react-router";
import { api, got, ProblemError } from "../api/client";
import { asItIs } from "../controls/answerFiles";
import type { RecordTaken } from "../api/types";
import { Button } from "../controls/Button";
import { Note, ProblemNote, Row, Small, Stack } from "../controls/layout";
import { Sheet, Veil } from "../controls/Modal";
import { say } from "../words/say";

/** A record that came as a file: chosen, read, and told what came of it. */
export function TakeInRecord({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const take = useMutation({
    mutationFn: (file: File) => got(api.POST("/api/records", asItIs(file, "application/zip"))),
    onSuccess: () => queries.invalidateQueries(),
  });
  const said = take.error instanceof ProblemError && take.error.field("file");
  return (
    <Veil isOpen isDismissable={!take.isPending} onOpenChange={(open) => !open && onClose()}>
      <Sheet>
        <Dialog>
          <Stack $gap={4}>
            <Row $between>
              <Heading slot="title">{say("clients.take-in-a-record")}</Heading>
              <Button $quiet $small isDisabled={take.isPending} onPress={onClose}>
                {say("clients.close-this")}
              </Button>
            </Row>
            {take.data ? (
              <>
                <Came taken={take.data} />
                <Row>
                  <Button onPress={() => void navigate(`/clients/${take.data.clientId}`)}>
                    {say("clients.open-the-client")}
                  </Button>
                </Row>
              </>
            ) : (
              <>
                <Small>{say("clients.take-in-means")}</Small>
                {said ? <Note>{said}</Note> : <ProblemNote error={take.error} />}
                {take.isPending && <p role="status">{say("clients.reading-the-record")}</p>}
                <FileTrigger
                  acceptedFileTypes={["application/zip", ".zip"]}
                  onSelect={(files) => files?.[0] && take.mutate(files[0])}
                >
                  <Button isDisabled={take.isPending}>{say("clients.choose-the-record")}</Button>
                </FileTrigger>
              </>
            )}
          </Stack>
        </Dialog>
      </Sheet>
    </Veil>
  );
}

function Came({ taken }: { taken: RecordTaken }) {
  const came = taken.parts.reduce((rows, part) => rows + part.came, 0);
  return (
    <div role="status">
      <p>
        {taken.fresh
          ? say("clients.record-came", { name: taken.name, number: taken.number })
          : came > 0
            ? say("clients.record-added", { name: taken.name, n: came })
            : say("clients.record-was-there")}
      </p>
      {taken.missing > 0 && <Note>{say("clients.record-missing", { n: taken.missing })}</Note>}
      {taken.alike.map((other) => (
        <Note key={other.clientId}>
          {say("clients.may-be-the-same", { name: other.name, number: other.number })}
        </Note>
      ))}
    </div>
  );
}
