import styled from "styled-components";
import { Button } from "../controls/Button";
import { Small } from "../controls/layout";
import type { Actions } from "./actions";
import type { LiveTrialState } from "./liveTrial";
import { say } from "../words/say";

const PainRow = styled.div`
  display: grid;
  grid-template-columns: 56px 1fr 56px;
  align-items: center;
  text-align: center;
  .value {
    font: 800 1.875rem/1 ${({ theme }) => theme.font.display};
  }
  button {
    padding: 0;
    font-size: 1.5rem;
  }
`;

/** Pain at its worst in this trial, one press up or down from where it was. */
export function PainStepper(props: { trial: LiveTrialState; onPain: Actions["pain"] }) {
  const { pain } = props.trial;
  const now = pain.last ?? pain.before ?? 0;
  return (
    <div role="group" aria-label={say("capture.pain-during-this-trial")}>
      <Small>{say("capture.pain-now-was-before", { before: pain.before ?? say("capture.not-asked") })}</Small>
      <PainRow>
        <Button
          $quiet
          aria-label={say("capture.less-pain")}
          isDisabled={now <= 0}
          onPress={() => props.onPain(now - 1)}
        >
          −
        </Button>
        <span className="value" aria-live="polite">
          {now}
        </span>
        <Button
          $quiet
          aria-label={say("capture.more-pain")}
          isDisabled={now >= 10}
          onPress={() => props.onPain(now + 1)}
        >
          +
        </Button>
      </PainRow>
    </div>
  );
}
