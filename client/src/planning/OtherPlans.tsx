import styled from "styled-components";
import type { OtherPlan, PlanProposal } from "../api/types";
import { Button } from "../controls/Button";
import { Quiet, Small } from "../controls/layout";
import { say } from "../words/say";

const List = styled.dl`
  margin: 0;
  dt {
    font-weight: 600;
  }
  dd {
    margin: 0 0 ${({ theme }) => theme.space(3)};
  }
`;

/** What the plan would be with five minutes less or more, and the best with other exercises. */
export function OtherPlans(props: { proposal: PlanProposal; onMinutes: (minutes: number) => void }) {
  const { proposal } = props;
  return (
    <section aria-label={say("planning.other-plans")}>
      <h3>{say("planning.instead")}</h3>
      <List>
        <Line name="Five minutes less" plan={proposal.fiveLess} {...props} />
        <Line name="Five minutes more" plan={proposal.fiveMore} {...props} />
        <Line name="Runner-up" plan={proposal.runnerUp} {...props} />
      </List>
      {proposal.score && (
        <Small>
          {say("planning.worth-points-points-cover-for", {
            points: proposal.score.points.toFixed(0),
            cover: proposal.score.cover.toFixed(0),
            rest: proposal.score.rest.toFixed(0),
          })}
        </Small>
      )}
    </section>
  );
}

function Line(props: {
  name: string;
  plan: OtherPlan | null | undefined;
  proposal: PlanProposal;
  onMinutes: (minutes: number) => void;
}) {
  const { plan, proposal } = props;
  if (!plan) return null;
  const other = plan.words !== "the same plan";
  const points = proposal.score && other ? Math.round(plan.points - proposal.score.points) : 0;
  return (
    <>
      <dt>
        {props.name}{" "}
        <Quiet style={{ fontWeight: 400 }}>
          {say("planning.totalminutes-min", { totalMinutes: plan.totalMinutes.toFixed(0) })}
        </Quiet>
      </dt>
      <dd>
        {plan.words}
        {points !== 0 && (
          <Quiet>
            {" "}
            {say("planning.points-points2-points", {
              points: points > 0 ? "+" : "−",
              points2: Math.abs(points),
            })}
          </Quiet>
        )}{" "}
        {other && props.name !== "Runner-up" && (
          <Button
            $quiet
            $small
            aria-label={say("planning.take-the-plan-with-name", { name: props.name.toLowerCase() })}
            onPress={() => props.onMinutes(plan.minutesPerDay)}
          >
            {say("planning.take-it")}
          </Button>
        )}
      </dd>
    </>
  );
}
