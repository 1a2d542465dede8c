import styled from "styled-components";
import type { MeasureKind, ScreenTask } from "../api/types";
import { Button } from "../controls/Button";
import { NumberField } from "../controls/fields";
import { Small, Stack } from "../controls/layout";
import type { Actions } from "./actions";
import type { LiveTrialState } from "./liveTrial";
import { say } from "../words/say";

const Target = styled(Button)`
  min-height: 116px;
  width: 100%;
`;

/** The one thing that is done again and again in this trial, as large as it can be. */
export function MainControl(props: {
  trial: LiveTrialState;
  task: ScreenTask | null;
  measure: MeasureKind;
  actions: Actions;
  /** Seconds left of the count-in, or null. */
  counting: number | null;
  /** The reach that would be counted now, centimetres. */
  cm: number | null;
  onCm: (cm: number | null) => void;
  onMain: () => void;
  met: boolean;
}) {
  const { trial, measure, actions } = props;
  if (trial.paused) {
    return (
      <Target $big onPress={actions.resume}>
        {say("capture.go-on")}
      </Target>
    );
  }
  if (measure === "yes-no") {
    return (
      <Stack $gap={2} role="group" aria-label={say("capture.did-the-pelvis-stay-level")}>
        <Target $big onPress={() => actions.measure(1)}>
          {say("capture.it-stayed-level")}
        </Target>
        <Target $big $quiet onPress={() => actions.measure(0)}>
          {say("capture.it-gave-way")}
        </Target>
      </Stack>
    );
  }
  if (measure === "effort") return <Effort task={props.task} actions={actions} />;
  if (measure === "centimetres") return <Reading cm={props.cm} onCm={props.onCm} onCount={props.onMain} />;
  return (
    <Target $big $quiet={props.met} onPress={props.onMain}>
      {wordsOf(trial, measure, props.counting)}
    </Target>
  );
}

function wordsOf(trial: LiveTrialState, measure: MeasureKind, counting: number | null) {
  if (counting !== null) return `${counting} …`;
  if (trial.target.hold > 0 && trial.holdSince === null) return say("capture.start-hold");
  if (measure === "seconds") return say("capture.let-go");
  return measure === "degrees" && trial.range?.degrees != null
    ? say("capture.there-and-back-degrees", { degrees: trial.range.degrees })
    : say("capture.rep-done");
}

const Steps = styled.div`
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: ${({ theme }) => theme.space(1)};
`;

const Points = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: ${({ theme }) => theme.space(2)};
`;

function Effort(props: { task: ScreenTask | null; actions: Actions }) {
  return (
    <Points role="group" aria-label={say("capture.how-hard-was-it-for")}>
      {(props.task?.points ?? []).map((words, points) => (
        <Button
          key={words}
          $quiet
          style={{ padding: 0, minHeight: 68 }}
          onPress={() => props.actions.measure(points)}
        >
          <strong>{points}</strong>
          <br />
          {words}
        </Button>
      ))}
    </Points>
  );
}

/** A reach in centimetres: begins at the last one, so that the next is a few presses away and nothing needs typing. */
function Reading(props: { cm: number | null; onCm: (cm: number | null) => void; onCount: () => void }) {
  const { cm, onCm } = props;
  const step = (by: number) => onCm(Math.max(0, Math.min(200, (cm ?? 60) + by)));
  return (
    <Stack $gap={2}>
      <NumberField label={say("capture.reach-cm")} value={cm} onChange={onCm} min={0} max={200} step={0.5} />
      <Steps>
        {[-5, -1, 1, 5].map((by) => (
          <Button key={by} $quiet style={{ padding: 0 }} onPress={() => step(by)}>
            {by > 0 ? `+${by}` : `−${-by}`}
          </Button>
        ))}
      </Steps>
      <Target $big isDisabled={cm === null} onPress={props.onCount}>
        {say("capture.reach-counts")}
      </Target>
      <Small>{say("capture.mark-a-fault-first-if")}</Small>
    </Stack>
  );
}
