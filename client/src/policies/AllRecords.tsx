import { useMutation, useQueryClient } from "@tanstack/react-query";
import { FileTrigger } from "react-aria-components";
import { api, got, ProblemError } from "../api/client";
import { asItIs, saveAnswer } from "../controls/answerFiles";
import { Button } from "../controls/Button";
import { Note, ProblemNote, Row, Small, Stack } from "../controls/layout";
import { say } from "../words/say";

/** The records of all clients out as one file, and those of another clinic in. For administrators. */
export function AllRecords() {
  const queries = useQueryClient();
  const make = useMutation({
    mutationFn: () => saveAnswer(api.GET("/api/clinic/clinic.zip", { parseAs: "blob" })),
  });
  const take = useMutation({
    mutationFn: (file: File) => got(api.POST("/api/clinic/records", asItIs(file, "application/zip"))),
    onSuccess: () => queries.invalidateQueries(),
  });
  const said = take.error instanceof ProblemError && take.error.field("file");
  const busy = make.isPending || take.isPending;
  return (
    <section aria-label={say("policies.all-records")}>
      <Stack $gap={3}>
        <h2>{say("policies.all-records")}</h2>
        <Small>{say("policies.all-records-means")}</Small>
        <ProblemNote error={make.error} />
        {said ? <Note>{said}</Note> : <ProblemNote error={take.error} />}
        <p role="status">
          {make.isPending
            ? say("policies.being-packed")
            : take.isPending
              ? say("policies.being-read")
              : take.data
                ? say("policies.records-came", {
                    came: take.data.taken.filter((one) => one.fresh).length,
                    there: take.data.taken.filter((one) => !one.fresh).length,
                  })
                : make.isSuccess
                  ? say("policies.file-was-made")
                  : null}
        </p>
        {take.data?.refused.map(({ file, why }) => (
          <Note key={file}>{say("policies.record-refused", { file, why })}</Note>
        ))}
        <Row>
          <Button $quiet isDisabled={busy} onPress={() => make.mutate()}>
            {say("policies.make-the-file")}
          </Button>
          <FileTrigger
            acceptedFileTypes={["application/zip", ".zip"]}
            onSelect={(files) => files?.[0] && take.mutate(files[0])}
          >
            <Button $quiet isDisabled={busy}>
              {say("policies.take-in-all")}
            </Button>
          </FileTrigger>
        </Row>
      </Stack>
    </section>
  );
}
