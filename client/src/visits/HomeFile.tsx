import { useMutation } from "@tanstack/react-query";
import { FileTrigger } from "react-aria-components";
import { api, got } from "../api/client";
import { Button } from "../controls/Button";
import { Row, Small } from "../controls/layout";
import { WrongRows } from "../controls/WrongRows";
import { say } from "../words/say";
import { ScanLog } from "./ScanLog";

/** The home log as a file: out with the planned days open, and in again; wrong rows are told one by one. */
export function HomeFile(props: { episodeId: string; visitId: string; onTaken: () => void }) {
  const take = useMutation({
    mutationFn: async (file: File) =>
      got(
        api.POST("/api/episodes/{id}/home-log/file", {
          params: { path: { id: props.episodeId } },
          body: { csv: await file.text() },
        }),
      ),
    onSuccess: props.onTaken,
  });
  return (
    <>
      <Row $gap={3}>
        <ScanLog visitId={props.visitId} onTaken={props.onTaken} />
        <FileTrigger
          acceptedFileTypes={["text/csv", ".csv"]}
          onSelect={(files) => {
            const file = files?.[0];
            if (file) take.mutate(file);
          }}
        >
          <Button $quiet $small>
            {say("visits.take-in-a-csv-file")}
          </Button>
        </FileTrigger>
        <a href={`/api/visits/${props.visitId}/home-log.csv`} download>
          {say("visits.get-it-as-csv")}
        </a>
        {take.data && (
          <Small role="status">{say("visits.days-days-taken-in", { days: take.data.days })}</Small>
        )}
      </Row>
      <WrongRows error={take.error} />
    </>
  );
}
