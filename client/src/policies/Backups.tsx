import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useLocation } from "react-router";
import { api, got } from "../api/client";
import { keys, useStart } from "../api/queries";
import { Button } from "../controls/Button";
import { Note, ProblemNote, Quiet, Small, Stack } from "../controls/layout";
import { momentWords } from "../api/clinicTime";
import { bytesWords } from "./backupWords";

/** For administrators: the last good backup, those kept, and one made now. */
export function Backups() {
  const { data: start } = useStart();
  return start?.administrator ? <Kept demo={start.demo} /> : null;
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
      aria-label="Backups"
      ref={(here) => {
        if (hash === "#backups") here?.scrollIntoView({ block: "center" });
      }}
    >
      <Stack $gap={3}>
        <h2>Backups</h2>
        <ProblemNote error={error} />
        {data && (
          <>
            {data.warning ? (
              <Note grave>{data.warning}</Note>
            ) : (
              data.status.lastGood && (
                <p>
                  Last good one {momentWords(data.status.lastGood)}{" "}
                  <Quiet>{bytesWords(data.status.bytes)}</Quiet>
                </p>
              )
            )}
            <ProblemNote error={make.error} />
            <Button $quiet isDisabled={make.isPending} onPress={() => make.mutate()}>
              {make.isPending ? "Being made …" : "Make one now"}
            </Button>
            <Small>
              {data.files.length === 0
                ? "None kept yet."
                : `${data.files.length} kept, the oldest of ${momentWords(data.files.at(-1)!.made)}.`}{" "}
              In {data.folder} on the server{demo ? "; the demo makes none by itself." : ", every night."}{" "}
              {data.sameDisk && "That is the same disk as the records: lost together with them. "}
              {data.sealed ? "Sealed for the clinic's key." : "Not sealed: whoever has a file can read it."}
            </Small>
          </>
        )}
      </Stack>
    </section>
  );
}
