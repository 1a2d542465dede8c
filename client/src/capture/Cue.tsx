import { Button } from "../controls/Button";
import { Row, Small } from "../controls/layout";
import type { Actions } from "./actions";
import type { LiveTrialState } from "./liveTrial";

/** A cue is one press; whether it worked is the next. Reps after it are counted apart. */
export function Cue(props: { trial: LiveTrialState; actions: Actions; cue: string }) {
  const { trial, actions } = props;
  if (!trial.cueGiven) {
    return (
      <Button $quiet onPress={() => actions.cue()}>
        Cue given
      </Button>
    );
  }
  if (trial.cueWorked === null) {
    return (
      <Row $gap={2} role="group" aria-label="Did the cue work?">
        <Button $quiet style={{ flex: 1, padding: 0 }} onPress={() => actions.cueAnswer(true)}>
          Cue worked
        </Button>
        <Button $quiet style={{ flex: 1, padding: 0 }} onPress={() => actions.cueAnswer(false)}>
          It did not
        </Button>
      </Row>
    );
  }
  return (
    <Small>
      {trial.cueWorked ? "The cue worked" : "The cue did not work"}: “{props.cue}”. Reps from here on are
      counted apart.
    </Small>
  );
}
