import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useLocation } from "react-router";
import { api, got } from "../api/client";
import { keys, useStart } from "../api/queries";
import { Button } from "../controls/Button";
import { Note, ProblemNote, Quiet, Small, Stack } from "../controls/layout";
import { momentWords } from "../api/clinicTime";
import { AllRecords } from "./AllRecords";
import { bytesWords } from "./backupWords";
import { say, sayRich } from "../words/say";

/** For administrators: the last good backup, those kept, and one made now; all records as a file. */
export function Backups() {
  const { data: start } = useStart();
  return start?.administrator ? (
    <Stack $gap={6}>
      <Kept demo={start.demo} />
      <AllRecords />
    </Stack>
  ) : null;
}

function Kept({ demo }: { demo: boolean }) {
  const { hash } = useLocation();
  const queries = useQueryClient();
  const { data, error } = useQuery({
    queryKey: keys.backups,
    queryFn: () => got(api.GET("/api/backups")),
  });
  const make = useMutation({
    mutationFn: () => got(api.POST("/api/backups")),
    onSuccess: (view) => queries.setQueryData(keys.backups, view),
    onSettled: () => void queries.invalidateQueries({ queryKey: keys.start }),
  });
  return (
    <section
      aria-label={say("policies.backups")}
      ref={(here) => {
        if (hash === "#backups") here?.scrollIntoView({ block: "center" });
      }}
    >
      <Stack $gap={3}>
        <h2>{say("policies.backups")}</h2>
        <ProblemNote error={error} />
        {data && (
          <>
            {data.warning ? (
              <Note grave>{data.warning}</Note>
            ) : (
              data.status.lastGood && (
                <p>
                  {sayRich("policies.last-good-one-lastgood-bytes", {
                    lastGood: momentWords(data.status.lastGood),
                    bytes: bytesWords(data.status.bytes),
                    quiet: (chunks) => <Quiet>{chunks}</Quiet>,
                  })}
                </p>
              )
            )}
            <ProblemNote error={make.error} />
            <Button $quiet isDisabled={make.isPending} onPress={() => make.mutate()}>
              {make.isPending ? say("policies.being-made") : say("policies.make-one-now")}
            </Button>
            <Small>
              {say("policies.where-backups-are", {
                files:
                  data.files.length === 0
                    ? say("policies.none-kept-yet")
                    : say("policies.files-kept-the-oldest-of", {
                        files: data.files.length,
                        made: momentWords(data.files.at(-1)!.made),
                      }),
                folder: data.folder,
                demo: demo ? say("policies.the-demo-makes-none-by") : say("policies.every-night"),
                sameDisk: data.sameDisk ? `${say("policies.that-is-the-same-disk")} ` : "",
                sealed: data.sealed
                  ? say("policies.sealed-for-the-clinics-key")
                  : say("policies.not-sealed-whoever-has-a"),
              })}
            </Small>
          </>
        )}
      </Stack>
    </section>
  );
}
