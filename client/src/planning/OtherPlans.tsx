import styled from "styled-components";
import type { OtherPlan, PlanProposal } from "../api/types";
import { Button } from "../controls/Button";
import { Quiet } from "../controls/layout";
import { say } from "../words/say";

const List = styled.ul`
  display: grid;
  gap: ${({ theme }) => theme.space(1)};
  font-size: 0.9375rem;
  line-height: 1.25;
`;

/** The words, and at their end the way to it. */
const Way = styled.li`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: ${({ theme }) => theme.space(2)};
  > button {
    flex: none;
  }
`;

/** What the plan would be with five minutes less or more, and the best with other exercises. */
export function OtherPlans(props: { proposal: PlanProposal; onMinutes: (minutes: number) => void }) {
  const { proposal } = props;
  return (
    <section aria-label={say("planning.other-plans")}>
      <h3>{say("planning.instead")}</h3>
      <List>
        <Line name={say("planning.five-minutes-less")} plan={proposal.fiveLess} {...props} />
        <Line name={say("planning.five-minutes-more")} plan={proposal.fiveMore} {...props} />
        <Line name={say("planning.next-best")} plan={proposal.runnerUp} {...props} fixed />
      </List>
    </section>
  );
}

function Line(props: {
  name: string;
  plan: OtherPlan | null | undefined;
  proposal: PlanProposal;
  onMinutes: (minutes: number) => void;
  /** Of the same minutes: there is nothing to set for it. */
  fixed?: boolean;
}) {
  const { plan } = props;
  if (!plan) return null;
  const other = plan.id !== "plan.no-difference";
  return (
    <Way>
      <p>
        <strong>{props.name}</strong>{" "}
        <Quiet>{say("planning.totalminutes-min", { totalMinutes: plan.totalMinutes.toFixed(0) })}</Quiet>{" "}
        {plan.words}
      </p>
      {other && !props.fixed && (
        <Button
          $quiet
          $small
          aria-label={say("planning.take-the-plan-with-name", { name: props.name.toLowerCase() })}
          onPress={() => props.onMinutes(plan.minutesPerDay)}
        >
          {say("planning.take-it")}
        </Button>
      )}
    </Way>
  );
}
