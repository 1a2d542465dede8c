import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, got } from "../api/client";
import { keys } from "../api/queries";
import type { OwnEyeView } from "../api/types";
import { Button } from "../controls/Button";
import { Table } from "../controls/DataTable";
import { ProblemNote, Row, Small, Stack } from "../controls/layout";
import { Wide } from "../controls/Table";
import { useRoles } from "../frame/useRoles";
import { say } from "../words/say";

const percent = (share: number) => `${Math.round(share * 1000) / 10} %`;
const number = (value: number) => value.toFixed(2);

/** The errors that findings are reckoned with: the built-in ones, or the clinic's own from its clips. */
export function OwnEye() {
  const { data, error } = useQuery({
    queryKey: keys.ownEye,
    queryFn: () => got(api.GET("/api/practice/eye")),
    staleTime: 0,
  });
  return (
    <Stack $gap={4}>
      <h2>{say("policies.what-the-eye-misses")}</h2>
      <ProblemNote error={error} />
      {data && <Figures view={data} />}
    </Stack>
  );
}

function Figures({ view }: { view: OwnEyeView }) {
  const rows: [string, (of: OwnEyeView["builtIn"]) => string][] = [
    [say("policies.faults-that-go-by"), (of) => percent(of.missed)],
    [say("policies.clean-reps-marked"), (of) => percent(of.imagined)],
    [say("policies.error-of-reps"), (of) => number(of.repsError)],
    [say("policies.error-of-seconds"), (of) => number(of.secondsError)],
  ];
  return (
    <>
      <p>{say("policies.what-own-eye-is")}</p>
      <p>
        {view.clinic.clips === 0
          ? say("policies.no-clips-yet")
          : say("policies.clips-by-raters", { clips: view.clinic.clips, raters: view.clinic.raters })}{" "}
        <Link to="/practice">{say("policies.practice-room")}</Link>
      </p>
      <Wide label={say("policies.what-the-eye-misses")}>
        <Table>
          <thead>
            <tr>
              <th>{say("policies.figure")}</th>
              <th>{say("policies.built-in-figure")}</th>
              <th>{say("policies.in-force")}</th>
              {view.enough && <th>{say("policies.by-our-clips")}</th>}
            </tr>
          </thead>
          <tbody>
            {rows.map(([name, of]) => (
              <tr key={name}>
                <td>{name}</td>
                <td>{of(view.builtIn)}</td>
                <td>{of(view.inForce)}</td>
                {view.enough && <td>{of(view.offered)}</td>}
              </tr>
            ))}
          </tbody>
        </Table>
      </Wide>
      <Small>{say("policies.errors-only-widen")}</Small>
      <Switch view={view} />
    </>
  );
}

/** First what it would change, then the switch. */
function Switch({ view }: { view: OwnEyeView }) {
  const { judges } = useRoles();
  const queries = useQueryClient();
  const use = view.taken === null || view.taken === undefined;
  const body = { use, version: view.version };
  const effects = useMutation({ mutationFn: () => got(api.POST("/api/practice/eye/effects", { body })) });
  const change = useMutation({
    mutationFn: () => got(api.PUT("/api/practice/eye", { body })),
    onSuccess: (now) => {
      queries.setQueryData(keys.ownEye, now);
      effects.reset();
      void queries.invalidateQueries();
    },
  });
  if (!judges) return null;
  if (use && !view.enough)
    return <p>{say("policies.too-few-clips", { clips: view.clipsNeeded, numbers: view.numbersNeeded })}</p>;
  return (
    <Stack $gap={3}>
      <Row>
        <Button $quiet isDisabled={effects.isPending} onPress={() => effects.mutate()}>
          {use ? say("policies.what-would-ours-change") : say("policies.what-would-built-in-change")}
        </Button>
        {effects.data && (
          <Button isDisabled={change.isPending} onPress={() => change.mutate()}>
            {use ? say("policies.reckon-with-ours") : say("policies.reckon-with-built-in")}
          </Button>
        )}
      </Row>
      <ProblemNote error={effects.error ?? change.error} />
      {effects.data?.length === 0 && <p>{say("policies.changes-nothing-open")}</p>}
      {effects.data?.map((effect) => (
        <div key={effect.episodeId}>
          <Link to={`/episodes/${effect.episodeId}/visits/${effect.visitId}/findings`}>
            {effect.clientName}
          </Link>
          <ul>
            {effect.changes.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </div>
      ))}
    </Stack>
  );
}
