import type { Library, PlanProposal, PlanView } from "../api/types";
import { Quiet, Stack } from "../controls/layout";
import { say } from "../words/say";
import { ForbiddenList } from "./ForbiddenList";

/** What the plan does not have: what precautions bar, and what the proposal left out. */
export function LeftOut(props: { view: PlanView; library: Library; proposal: PlanProposal | null }) {
  const { view, proposal } = props;
  const none = view.forbidden.length === 0 && !proposal?.notChosen.length;
  return (
    <Stack $gap={4}>
      {none && <p>{say("planning.nothing-left-out")}</p>}
      {proposal && proposal.notChosen.length > 0 && (
        <section aria-label={say("planning.left-out-and-why")}>
          <h2>{say("planning.left-out-and-why")}</h2>
          <ul>
            {proposal.notChosen.map((reason) => (
              <li key={reason.words} style={{ marginTop: 6 }}>
                {reason.words} <Quiet>({reason.ruleId})</Quiet>
              </li>
            ))}
          </ul>
        </section>
      )}
      <ForbiddenList view={view} library={props.library} />
    </Stack>
  );
}
