import { Button } from "../controls/Button";
import { Row, Small } from "../controls/layout";
import type { Actions } from "./actions";
import type { LiveTrialState } from "./liveTrial";
import { say } from "../words/say";

/** A cue is one press; whether it worked is the next. Reps after it are counted apart. */
export function Cue(props: { trial: LiveTrialState; actions: Actions; cue: string }) {
  const { trial, actions } = props;
  if (!trial.cueGiven) {
    return (
      <Button $quiet onPress={() => actions.cue()}>
        {say("capture.cue-given")}
      </Button>
    );
  }
  if (trial.cueWorked === null) {
    return (
      <Row $gap={2} role="group" aria-label={say("capture.did-the-cue-work")}>
        <Button $quiet style={{ flex: 1, padding: 0 }} onPress={() => actions.cueAnswer(true)}>
          {say("capture.cue-worked")}
        </Button>
        <Button $quiet style={{ flex: 1, padding: 0 }} onPress={() => actions.cueAnswer(false)}>
          {say("capture.it-did-not")}
        </Button>
      </Row>
    );
  }
  return (
    <Small>
      {say("capture.cueworked-cue-reps-from-here", {
        cueWorked: trial.cueWorked ? say("capture.the-cue-worked") : say("capture.the-cue-did-not-work"),
        cue: props.cue,
      })}
    </Small>
  );
}
