import { useQuery } from "@tanstack/react-query";
import { api, got } from "../api/client";
import { keys } from "../api/queries";
import type { ClinicView } from "../api/types";
import { FigureList } from "../controls/FigureList";
import { Page, ProblemNote, Row, Small, Stack } from "../controls/layout";
import { PageHead } from "../controls/PageHead";
import { Table } from "../controls/DataTable";
import { Wide } from "../controls/Table";
import { say } from "../words/say";

/** How the clinic stands: its episodes counted, without names. */
export function ClinicViewPage() {
  const { data, error } = useQuery({
    queryKey: keys.clinicView,
    queryFn: () => got(api.GET("/api/clinic-view")),
    staleTime: 0,
  });
  return (
    <Page>
      <PageHead
        title={say("clinic.clinic")}
        ways={[
          { to: "/overrides", name: say("clinic.overrides") },
          { to: "/settings", name: say("clinic.settings") },
          { to: "/", name: say("clinic.the-day") },
        ]}
      />
      <ProblemNote error={error} />
      {data && <View view={data} />}
    </Page>
  );
}

const percent = (share: number) => `${Math.round(share * 100)} %`;

function View({ view }: { view: ClinicView }) {
  const figures: [string, string][] = [
    [say("clinic.open"), String(view.open)],
    [say("clinic.waiting"), String(view.waiting)],
    [say("clinic.lapsed"), String(view.lapsed)],
    [say("clinic.not-asked-yet"), String(view.unasked)],
    [say("clinic.discharged"), String(view.discharged)],
    [
      say("clinic.missed-of-90-days"),
      view.booked === 0 ? "–" : say("clinic.n-of-m", { n: view.missed, m: view.booked }),
    ],
  ];
  return (
    <Stack $gap={6}>
      <FigureList figures={figures} />
      <section aria-labelledby="by-policy">
        <Row $between style={{ marginBottom: 8 }}>
          <h2 id="by-policy">{say("clinic.by-policy")}</h2>
          <Row>
            <a href="/api/clinic-view.csv" download>
              {say("clinic.as-csv")}
            </a>
            <a href="/api/research.zip" download>
              {say("clinic.for-research")}
            </a>
          </Row>
        </Row>
        {view.policies.length === 0 ? (
          <p>{say("clinic.no-episode-yet")}</p>
        ) : (
          <Wide label={say("clinic.by-policy")}>
            <Table>
              <thead>
                <tr>
                  <th>{say("clinic.policy")}</th>
                  <th>{say("clinic.open-and-discharged")}</th>
                  <th>{say("clinic.visits-mean")}</th>
                  <th>{say("clinic.pain-better")}</th>
                  <th>{say("clinic.pain-change")}</th>
                  <th>{say("clinic.adherence")}</th>
                  <th>{say("clinic.goals-reached")}</th>
                  <th>{say("clinic.overridden")}</th>
                </tr>
              </thead>
              <tbody>
                {view.policies.map((p) => (
                  <tr key={p.policyId}>
                    <td>{p.name}</td>
                    <td>{`${p.open} + ${p.discharged}`}</td>
                    <td>{p.visitsMean ?? "–"}</td>
                    <td>
                      {p.painAsked === 0 ? "–" : say("clinic.n-of-m", { n: p.painBetter, m: p.painAsked })}
                    </td>
                    <td>{p.painChangeMean ?? "–"}</td>
                    <td>{p.adherence === null || p.adherence === undefined ? "–" : percent(p.adherence)}</td>
                    <td>{p.goals === 0 ? "–" : say("clinic.n-of-m", { n: p.goalsReached, m: p.goals })}</td>
                    <td>
                      {p.decisions === 0 ? "–" : say("clinic.n-of-m", { n: p.overrides, m: p.decisions })}
                    </td>
                  </tr>
                ))}
              </tbody>
            </Table>
          </Wide>
        )}
        <Small style={{ marginTop: 8 }}>{say("clinic.what-counts")}</Small>
      </section>
    </Stack>
  );
}
