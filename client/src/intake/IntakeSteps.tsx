import { useState } from "react";
import type { ProblemError } from "../api/client";
import { Button } from "../controls/Button";
import { Bar, Quiet, Stack } from "../controls/layout";
import { Places } from "../controls/Tabs";
import { FirstStep, HomeStep, HurtStep, type IntakePart } from "./IntakeFields";
import { say } from "../words/say";

export type StepName = "first" | "hurts" | "home";
const order: StepName[] = ["first", "hurts", "home"];

/** The step in which a field stands, by how the server names it. */
export const stepOf = (field: string): StepName =>
  /^(name|birthDate|dangerSigns|flagsAsked)/.test(field)
    ? "first"
    : /^(complaint|pain|settleHours|wakesAtNight|precautions)/.test(field)
      ? "hurts"
      : "home";

/**
 * The intake in three short steps, each in one look; what has not been asked yet is told below, wherever one is.
 *
 * @param lacks what is still to ask, in its own words; null: nothing
 */
export function IntakeSteps(
  props: IntakePart & {
    head: React.ReactNode;
    lacks: string | null;
    done: string;
    pending: boolean;
    onDone: () => void;
    /** Begins there; else with the first. */
    begin?: StepName;
    more?: React.ReactNode;
  },
) {
  const { draft, onChange, problem } = props;
  const [step, setStep] = useState<StepName>(props.begin ?? "first");
  const [told, setTold] = useState<ProblemError | null>(null);
  // What was refused is shown where it stands.
  if (problem !== told) {
    setTold(problem);
    if (problem?.fields[0]) setStep(stepOf(problem.fields[0].field));
  }
  const part = { draft, onChange, problem };
  const at = order.indexOf(step);
  const next = order[at + 1];
  return (
    <Stack $gap={3}>
      <Places
        label={say("intake.steps")}
        head={props.head}
        open={step}
        onOpen={(id) => setStep(id as StepName)}
        places={[
          { id: "first", name: say("intake.step-first"), content: <FirstStep {...part} /> },
          { id: "hurts", name: say("intake.step-hurts"), content: <HurtStep {...part} /> },
          { id: "home", name: say("intake.step-home"), content: <HomeStep {...part} /> },
        ]}
      />
      <Bar>
        {at > 0 && (
          <Button $quiet onPress={() => setStep(order[at - 1]!)}>
            {say("intake.back")}
          </Button>
        )}
        {next && <Button onPress={() => setStep(next)}>{say("intake.next")}</Button>}
        <Button
          $quiet={next !== undefined}
          isDisabled={props.lacks !== null || props.pending}
          onPress={props.onDone}
        >
          {props.done}
        </Button>
        {props.lacks && <Quiet>{say("intake.still-to-ask-lacks", { lacks: props.lacks })}</Quiet>}
        {props.more}
      </Bar>
    </Stack>
  );
}
