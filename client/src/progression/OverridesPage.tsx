import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, got } from "../api/client";
import { keys } from "../api/queries";
import type { Outcome, OverridesView } from "../api/types";
import { Table, Wide } from "../controls/Table";
import { ShareBar } from "../controls/ShareBar";
import { Empty, Page, ProblemNote, Quiet, Small, Stack } from "../controls/layout";
import { dayWords } from "../api/clinicTime";
import { capital, outcomeWords } from "../controls/words";
import { useRuleName } from "./useRuleName";
import { PageHead } from "../controls/PageHead";
import { say, sayRich } from "../words/say";

/** Where practitioners disagree with the policy, rule by rule. */
export function OverridesPage() {
  const { data, error } = useQuery({
    queryKey: keys.overrides,
    queryFn: () => got(api.GET("/api/overrides")),
  });
  return (
    <Page>
      <Stack $gap={4}>
        <PageHead
          title={say("progression.where-we-disagree-with-the")}
          ways={[{ to: "/", name: say("progression.the-day") }]}
        />
        <ProblemNote error={error} />
        {data && (data.rules.length === 0 ? <Nothing /> : <Rules view={data} />)}
      </Stack>
    </Page>
  );
}

function Nothing() {
  return (
    <Empty title={say("progression.no-decisions-yet")}>
      <p>{say("progression.once-visits-are-decided-this")}</p>
      <Link to="/">{say("progression.go-to-the-day")}</Link>
    </Empty>
  );
}

/** The same word with the same reason at one visit, as on the two sides of an exercise, is told once. */
function together(lines: OverridesView["latest"]) {
  const same = (a: (typeof lines)[number], b: typeof a) =>
    a.visitId === b.visitId && a.ruleId === b.ruleId && a.taken === b.taken && a.reason === b.reason;
  return lines
    .filter((line, i) => lines.findIndex((other) => same(other, line)) === i)
    .map((line) => ({ line, times: lines.filter((other) => same(other, line)).length }));
}

function Rules({ view }: { view: OverridesView }) {
  const ruleName = useRuleName();
  const total = view.rules.reduce((sum, r) => sum + r.proposals, 0);
  const other = view.rules.reduce((sum, r) => sum + r.overridden, 0);
  return (
    <>
      <p>
        {sayRich("progression.other-of-total-proposals-were", {
          other,
          total,
          link: (chunks) => <Link to="/settings">{chunks}</Link>,
        })}
      </p>
      <Wide label={say("progression.proposals-by-rule")}>
        <Table>
          <thead>
            <tr>
              <th>{say("progression.rule")}</th>
              <th>{say("progression.proposals")}</th>
              <th>{say("progression.not-followed")}</th>
              <th aria-hidden />
              <th>{say("progression.chosen-instead")}</th>
            </tr>
          </thead>
          <tbody>
            {view.rules.map((rule) => {
              const share = rule.overridden / rule.proposals;
              return (
                <tr key={rule.ruleId}>
                  <td>
                    <strong>{capital(ruleName(rule.ruleId))}</strong>
                    <br />
                    <Quiet>{rule.ruleId}</Quiet>
                  </td>
                  <td>{rule.proposals}</td>
                  <td>
                    {rule.overridden} <Quiet>({Math.round(share * 100)} %)</Quiet>
                  </td>
                  <td aria-hidden>
                    <ShareBar share={share} tone="bark" />
                  </td>
                  <td>
                    {Object.entries(rule.instead)
                      .map(([outcome, n]) => `${outcomeWords[outcome as Outcome]} ${n}`)
                      .join(", ")}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </Table>
      </Wide>
      {view.latest.length > 0 && (
        <section aria-labelledby="latest">
          <h2 id="latest">{say("progression.the-latest")}</h2>
          <ul>
            {together(view.latest).map(({ line, times }) => (
              <li key={line.visitId + line.ruleId + line.taken + line.reason} style={{ padding: "8px 0" }}>
                {sayRich("progression.override-line", {
                  at: dayWords(line.at),
                  link: (chunks) => (
                    <Link to={`/episodes/${line.episodeId}/visits/${line.visitId}/decide`}>{chunks}</Link>
                  ),
                  by: line.by,
                  taken: outcomeWords[line.taken],
                  proposed: outcomeWords[line.proposed],
                  rule: ruleName(line.ruleId),
                  times: times > 1 ? say("progression.times-times", { times }) : "",
                  reason: line.reason,
                  small: (chunks) => <Small>{chunks}</Small>,
                })}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
