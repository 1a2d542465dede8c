import styled from "styled-components";
import type { SessionView, VisitView } from "../api/types";
import { Checkbox } from "../controls/fields";
import { Row, Small } from "../controls/layout";
import { ReferenceFields } from "./ReferenceFields";
import { Term } from "../frame/Term";
import { say } from "../words/say";

const Panel = styled.section`
  border-inline-start: 6px solid ${({ theme }) => theme.colour.bark};
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
    <Panel aria-label={say("visits.before-the-first-set")}>
      <h2>{advice.noTraining ? say("visits.no-training-today") : say("visits.before-the-first-set")}</h2>
      {advice.lines.map((line) => (
        <p key={line.ruleId + line.words}>{line.words}</p>
      ))}
      {resting.length > 0 && <p>{say("visits.resting-resting-today", { resting: resting.length })}</p>}
      {(advice.eased.length > 0 || advice.half) && (
        <Checkbox selected={props.easier} onChange={props.onEasier}>
          {advice.half ? say("visits.half-the-session-one-set") : say("visits.begin-each-exercise-one-step")}
        </Checkbox>
      )}
      <Row $gap={2}>
        <Small>
          {say("visits.compared-with-usual-pain-reference", {
            reference: advice.reference.value,
            reference2: advice.reference.words,
          })}{" "}
          <Term name="reference-pain">{say("visits.reference-pain")}</Term>
        </Small>
        <ReferenceFields visit={props.visit} now={advice.reference.value} />
      </Row>
    </Panel>
  );
}
