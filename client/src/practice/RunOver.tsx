import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, got } from "../api/client";
import { momentWords } from "../api/clinicTime";
import { keys, useStart } from "../api/queries";
import type { Library, PracticeRun } from "../api/types";
import { Button } from "../controls/Button";
import { Checkbox } from "../controls/fields";
import { FigureList } from "../controls/FigureList";
import { ProblemNote, Row, Small, Stack } from "../controls/layout";
import { say } from "../words/say";
import { outcomeWords } from "./Feedback";
import { countWords } from "./shares";

const ends = {
  "all-shown": say("practice.ended-all-shown"),
  narrow: say("practice.ended-narrow"),
  "time-up": say("practice.ended-time-up"),
  stopped: say("practice.ended-stopped"),
} as const;

/** What a run came to. */
export function RunOver({ run, library }: { run: PracticeRun; library: Library }) {
  const { data: start } = useStart();
  const faulty = run.results.filter((r) => r.spec.truth);
  const count = (...outcomes: string[]) => run.results.filter((r) => outcomes.includes(r.outcome)).length;
  return (
    <Stack $gap={5} style={{ maxWidth: 760 }}>
      {run.end && <p>{ends[run.end]}</p>}
      <FigureList
        small
        figures={[
          [say("practice.clips-seen"), String(run.results.length)],
          [say("practice.faults-seen"), countWords(count("named", "other-name"), faulty.length)],
          [say("practice.rightly-named"), countWords(count("named"), faulty.length)],
          [
            say("practice.clean-left-clean"),
            countWords(count("rightly-clean"), run.results.length - faulty.length),
          ],
        ]}
      />
      <Small>
        {say("practice.certificate", { name: start?.signedInAs ?? "", at: momentWords(run.startedAt) })}
      </Small>
      <ol>
        {run.results.map((result) => (
          <li key={`${result.spec.seed} ${result.mirrored}`}>
            {outcomeWords(result, library)}{" "}
            <Small as="span">
              {library.ladders.flatMap((l) => l.rungs).find((r) => r.id === result.spec.rungId)?.name}
            </Small>
          </li>
        ))}
      </ol>
      {run.teamId && <Shared run={run} />}
      <Row>
        <Button $quiet onPress={() => window.print()}>
          {say("practice.print")}
        </Button>
        {run.teamId && <Link to={`/practice/teams/${run.teamId}`}>{say("practice.the-teams-report")}</Link>}
        <Link to="/practice">{say("practice.practice-room")}</Link>
      </Row>
    </Stack>
  );
}

function Shared({ run }: { run: PracticeRun }) {
  const queries = useQueryClient();
  const share = useMutation({
    mutationFn: (shared: boolean) =>
      got(
        api.PUT("/api/practice/runs/{runId}/shared", {
          params: { path: { runId: run.id } },
          body: { shared },
        }),
      ),
    onSuccess: (now) => queries.setQueryData(keys.practiceRun(run.id), now),
  });
  return (
    <>
      <Checkbox selected={run.shared} onChange={(shared) => share.mutate(shared)}>
        {say("practice.my-name-in-the-report")}
      </Checkbox>
      <ProblemNote error={share.error} />
    </>
  );
}
