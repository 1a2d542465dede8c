import { useMutation, useQuery } from "@tanstack/react-query";
import { useNavigate, useParams } from "react-router";
import { api, got } from "../api/client";
import { momentWords } from "../api/clinicTime";
import { keys, useLibrary } from "../api/queries";
import type { PracticeTeamRow, TeamFigures } from "../api/types";
import { Button } from "../controls/Button";
import { Table } from "../controls/DataTable";
import { FigureList } from "../controls/FigureList";
import { Note, Page, ProblemNote, Row, Small, Stack } from "../controls/layout";
import { PageHead } from "../controls/PageHead";
import { Wide } from "../controls/Table";
import { say } from "../words/say";
import { countWords, number, numberWithin, shareWords } from "./shares";

/** A team session: the own part of it, and how far those agree who have answered all. */
export function TeamPage() {
  const { teamId } = useParams() as { teamId: string };
  const { data, error } = useQuery({
    queryKey: keys.practiceTeam(teamId),
    queryFn: () => got(api.GET("/api/practice/teams/{teamId}", { params: { path: { teamId } } })),
    staleTime: 0,
  });
  return (
    <Page>
      <PageHead
        title={data?.team.name ?? ""}
        ways={[{ to: "/practice", name: say("practice.practice-room") }]}
      />
      <ProblemNote error={error} />
      {data && (
        <Stack $gap={6}>
          <Mine team={data.team} />
          <Report figures={data.figures} />
        </Stack>
      )}
    </Page>
  );
}

function Mine({ team }: { team: PracticeTeamRow }) {
  const navigate = useNavigate();
  const join = useMutation({
    mutationFn: () =>
      got(api.POST("/api/practice/teams/{teamId}/runs", { params: { path: { teamId: team.id } } })),
    onSuccess: (run) => void navigate(`/practice/runs/${run.id}`),
  });
  return (
    <Stack $gap={3}>
      <Small>
        {say("practice.made-by", { name: team.madeBy, at: momentWords(team.madeAt) })} ·{" "}
        {say("practice.done-by", { done: team.done })}
      </Small>
      {team.otherLibrary && !team.mine?.over && <Note>{say("practice.made-with-another-library")}</Note>}
      <ProblemNote error={join.error} />
      {!team.otherLibrary && (
        <Row>
          <Button isDisabled={join.isPending} onPress={() => join.mutate()}>
            {team.mine === null || team.mine === undefined
              ? say("practice.take-part", { clips: team.clips })
              : team.mine.over
                ? say("practice.see-your-part")
                : say("practice.go-on", { answered: team.mine.answered })}
          </Button>
        </Row>
      )}
    </Stack>
  );
}

function Report({ figures }: { figures: TeamFigures }) {
  const { data: library } = useLibrary();
  const within = (name: string, value: number | null | undefined) => numberWithin(value, figures.ends[name]);
  if (figures.raters === 0) return <p>{say("practice.no-report-yet")}</p>;
  return (
    <section aria-labelledby="report">
      <Stack $gap={4}>
        <Row $between>
          <h2 id="report">{say("practice.how-far-we-agree")}</h2>
          <Button $quiet $small onPress={() => window.print()}>
            {say("practice.print")}
          </Button>
        </Row>
        {figures.enough ? (
          <FigureList
            small
            figures={[
              [say("practice.kappa"), within("kappa", figures.kappa)],
              [say("practice.fleiss"), within("fleiss", figures.fleiss)],
              [say("practice.ac1"), within("ac1", figures.ac1)],
              [say("practice.icc-reps"), number(figures.reps?.icc.value)],
              [say("practice.sem-reps"), number(figures.reps?.sem)],
              [say("practice.sdc-reps"), number(figures.reps?.sdc)],
            ]}
          />
        ) : (
          <p>{say("practice.team-not-enough")}</p>
        )}
        <Wide label={say("practice.one-by-one")}>
          <Table>
            <thead>
              <tr>
                <th>{say("practice.who")}</th>
                <th>{say("practice.faults-missed")}</th>
                <th>{say("practice.clean-marked")}</th>
                <th>{say("practice.told-apart")}</th>
                <th>{say("practice.same-again")}</th>
                <th>{say("practice.same-mirrored")}</th>
                <th>{say("practice.marked-left")}</th>
                <th>{say("practice.marked-right")}</th>
              </tr>
            </thead>
            <tbody>
              {figures.members.map((member, i) => (
                <tr key={member.rater ?? i}>
                  <td>{member.rater ?? say("practice.somebody")}</td>
                  <td>{shareWords(member.missed)}</td>
                  <td>{shareWords(member.falseMarks)}</td>
                  <td>{number(member.dPrime)}</td>
                  <td>{countWords(member.sameAgain, member.again)}</td>
                  <td>{countWords(member.sameMirrored, member.mirrored)}</td>
                  <td>{shareWords(member.left)}</td>
                  <td>{shareWords(member.right)}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        </Wide>
        <div>
          <h3>{say("practice.hardest")}</h3>
          <ul>
            {figures.hardest.map((clip) => (
              <li key={clip.seed}>
                {clip.fault
                  ? (library?.faults.find((f) => f.code === clip.fault)?.name ?? clip.fault)
                  : say("practice.it-held-2")}{" "}
                <Small as="span">
                  {say("practice.right-by", { right: clip.right, raters: clip.raters })}
                </Small>
              </li>
            ))}
          </ul>
        </div>
        <Small>{say("practice.what-agreement-means")}</Small>
      </Stack>
    </section>
  );
}
