import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { api, got } from "../api/client";
import { findRung, useLibrary, usePlan } from "../api/queries";
import type { ComparedPlans, Library, PlanItem } from "../api/types";
import { Choice } from "../controls/fields";
import { Empty, ProblemNote, Quiet, Row, Small, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { dayWords } from "../api/clinicTime";
import { doseWords } from "../controls/words";
import { RungFigure } from "../figure/FigureView";
import { useVisit } from "../frame/useVisit";
import { WorkTable } from "./WorkTable";
import { say } from "../words/say";

const Grid = styled.table`
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
  th {
    text-align: start;
  }
  td {
    vertical-align: top;
    padding: ${({ theme }) => theme.space(3)} ${({ theme }) => theme.space(3)}
      ${({ theme }) => theme.space(3)} 0;
    border-top: 1px solid ${({ theme }) => theme.colour.rule};
  }
`;

/** Two revisions of the plan side by side, with what changed and why. */
export function ComparePage() {
  const { episode, visitId } = useVisit();
  const { data: library } = useLibrary();
  const { data: plan } = usePlan(episode?.id ?? "");
  if (!episode || !library || !plan) return null;
  const numbers = plan.revisions.map((r) => r.revision);
  if (numbers.length < 2) {
    return (
      <Empty title={say("planning.only-one-revision")}>
        <p>{say("planning.there-is-something-to-compare")}</p>
        <Link to={`/episodes/${episode.id}/visits/${visitId}/plan`}>{say("planning.go-to-the-plan")}</Link>
      </Empty>
    );
  }
  return (
    <Compared
      episodeId={episode.id}
      planLink={`/episodes/${episode.id}/visits/${visitId}/plan`}
      library={library}
      numbers={numbers}
    />
  );
}

function Compared(props: { episodeId: string; planLink: string; library: Library; numbers: number[] }) {
  const { numbers, episodeId } = props;
  const [before, setBefore] = useState(numbers.at(-2)!);
  const [after, setAfter] = useState(numbers.at(-1)!);
  const { data, error } = useQuery({
    queryKey: ["compare", episodeId, before, after],
    queryFn: () =>
      got(
        api.GET("/api/episodes/{id}/plan/compare", {
          params: { path: { id: episodeId }, query: { before, after } },
        }),
      ),
    placeholderData: (previous) => previous,
  });
  const options = numbers.map((n) => ({ value: String(n), label: n }));
  return (
    <Stack $gap={4}>
      <Row $between>
        <h1>{say("planning.revisions-side-by-side")}</h1>
        <Link to={props.planLink} style={{ color: "inherit" }}>
          {say("planning.back-to-the-plan")}
        </Link>
      </Row>
      <Row $gap={8}>
        <Choice
          label={say("planning.before-2")}
          tight
          value={String(before)}
          onChange={(v) => setBefore(Number(v))}
          options={options}
        />
        <Choice
          label={say("planning.after")}
          tight
          value={String(after)}
          onChange={(v) => setAfter(Number(v))}
          options={options}
        />
      </Row>
      <ProblemNote error={error} />
      {data && <Pairs data={data} library={props.library} />}
    </Stack>
  );
}

function Pairs({ data, library }: { data: ComparedPlans; library: Library }) {
  const heading = (r: ComparedPlans["before"]) =>
    say("planning.revision-revision-acceptedat-totalminutes-min", {
      revision: r.revision,
      acceptedAt: dayWords(r.acceptedAt),
      totalMinutes: r.plan.totalMinutes.toFixed(0),
    });
  return (
    <>
      {data.comparison.changes.length > 0 && <p>{data.comparison.changes.join(" · ")}</p>}
      <Grid>
        <thead>
          <tr>
            <th scope="col">{heading(data.before)}</th>
            <th scope="col">{heading(data.after)}</th>
            <th scope="col">{say("planning.what-changed-and-why")}</th>
          </tr>
        </thead>
        <tbody>
          {data.comparison.items.map((pair) => (
            <tr key={(pair.after ?? pair.before)!.id}>
              <td>{pair.before ? <Item item={pair.before} library={library} /> : <Quiet>–</Quiet>}</td>
              <td>{pair.after ? <Item item={pair.after} library={library} /> : <Quiet>–</Quiet>}</td>
              <td>
                {pair.changes.length === 0 ? (
                  <Quiet>{say("planning.as-it-was")}</Quiet>
                ) : (
                  <>
                    {pair.changes.map((words) => (
                      <p key={words}>
                        <strong>{words}</strong>
                      </p>
                    ))}
                    {pair.after?.reasons.map((reason) => (
                      <Small key={reason.ruleId + reason.words}>
                        {reason.words} <Quiet>({reason.ruleId})</Quiet>
                      </Small>
                    ))}
                  </>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Grid>
      <WorkTable work={data.work} />
    </>
  );
}

function Item({ item, library }: { item: PlanItem; library: Library }) {
  const { rung } = findRung(library, item.rungId);
  return (
    <>
      <RungFigure rungId={rung.id} side={item.doses[0]?.side ?? "both"} width={150} height={84} />
      <strong>{rung.name}</strong>
      {item.doses.map((d) => (
        <p key={d.side}>
          {d.side !== "both" && <SideTag side={d.side} />} {doseWords(d.dose)}
        </p>
      ))}
    </>
  );
}
