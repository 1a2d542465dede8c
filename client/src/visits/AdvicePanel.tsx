import styled from "styled-components";
import type { SessionView, VisitView } from "../api/types";
import { Checkbox } from "../controls/fields";
import { Small } from "../controls/layout";
import { ReferenceFields } from "./ReferenceFields";

const Panel = styled.section`
  border-left: 6px solid ${({ theme }) => theme.colour.bark};
  padding: ${({ theme }) => theme.space(2)} ${({ theme }) => theme.space(4)};
  display: grid;
  gap: ${({ theme }) => theme.space(2)};
  h2 {
    margin: 0;
  }
  p {
    margin: 0;
  }
`;

/** What is known before the first set: pain against its reference, time away, a leg that was remembered. */
export function AdvicePanel(props: {
  session: SessionView;
  visit: VisitView;
  easier: boolean;
  onEasier: (easier: boolean) => void;
}) {
  const { advice, resting } = props.session;
  if (!advice || (advice.lines.length === 0 && resting.length === 0)) return null;
  return (
    <Panel aria-label="Before the first set">
      <h2>{advice.noTraining ? "No training today" : "Before the first set"}</h2>
      {advice.lines.map((line) => (
        <p key={line.ruleId + line.words}>{line.words}</p>
      ))}
      {resting.length > 0 && (
        <p>
          {resting.length} {resting.length === 1 ? "exercise rests" : "exercises rest"} today.
        </p>
      )}
      {(advice.eased.length > 0 || advice.half) && (
        <Checkbox selected={props.easier} onChange={props.onEasier}>
          {advice.half ? "Half the session: one set less of each" : "Begin each exercise one step easier"}
        </Checkbox>
      )}
      <Small>
        Compared with usual pain {advice.reference.value} ({advice.reference.words}).
      </Small>
      <ReferenceFields visit={props.visit} now={advice.reference.value} />
    </Panel>
  );
}
