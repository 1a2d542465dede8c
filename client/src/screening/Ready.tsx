import { useState } from "react";
import styled from "styled-components";
import { findRung } from "../api/queries";
import type { EpisodeView, Library, ScreenStep, Side } from "../api/types";
import { findTask } from "../capture/sideCounts";
import { Button } from "../controls/Button";
import { Choice, NumberField } from "../controls/fields";
import { heldWords } from "../controls/personSize";
import { Columns, Note, Quiet, Row, Small, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { useTakeFocus } from "../controls/useTakeFocus";
import { strategyWords, activationWords } from "../controls/words";
import { RungFigure } from "../figure/FigureView";
import { askedWords } from "./asked";
import { taskName } from "./BatteryPage";
import { say } from "../words/say";

const Setup = styled.ol`
  margin: 0;
  padding-inline-start: 1.2em;
`;

const Switch = styled.div<{ $side: Side }>`
  padding: ${({ theme }) => theme.space(3)} ${({ theme }) => theme.space(5)};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme, $side }) => ($side === "left" ? theme.colour.sea : theme.colour.bark)};
  color: ${({ theme }) => theme.colour.sheet};
  font: 800 1.625rem/1.1 ${({ theme }) => theme.font.display};
  text-align: ${({ $side }) => ($side === "right" ? "right" : "left")};
`;

export interface Chosen {
  step: ScreenStep;
  legLength: number | null;
}

/** What comes next: the drawing, the side, how it is set up, and one large button. */
export function Ready(props: {
  step: ScreenStep;
  picked: boolean;
  /** The side of the trial before, when that was the same task. */
  lastSide: Side | null;
  cautions: string[];
  legLength: number | null;
  episode: EpisodeView;
  library: Library;
  onStart: (chosen: Chosen) => void;
  onBack: () => void;
}) {
  const { library } = props;
  const task = findTask(library, props.step.taskId);
  const startButton = useTakeFocus<HTMLButtonElement>();
  const [rungId, setRungId] = useState(props.step.rungId);
  const [load, setLoad] = useState(props.step.load);
  const [leg, setLeg] = useState(props.legLength);
  const { rung, ladder } = findRung(library, rungId);
  const step = { ...props.step, rungId, load };
  const way = task?.variants?.find((v) => v.id === step.variant)?.name;
  const switches =
    step.side !== "both" &&
    props.lastSide !== null &&
    props.lastSide !== "both" &&
    props.lastSide !== step.side;
  const name = task && !task.ladder ? taskName(library, step.taskId) : rung.name;
  const { neutral } = props.episode;
  const strategy = neutral.strategy ?? neutral.proposal.strategy ?? "neutral";
  const switchOn = neutral.switchOn ?? neutral.proposal.switchOn ?? "brace";
  return (
    <Stack $gap={4}>
      {switches && (
        <Switch $side={step.side} role="status">
          {say("screening.change-sides", { side: step.side })}
        </Switch>
      )}
      <h1>
        {name}
        {way && `, ${way}`}{" "}
        <Quiet style={{ fontSize: "1rem", fontWeight: 400 }}>
          {task?.ladder
            ? `${ladder.name.toLowerCase()} · `
            : name === rung.name
              ? ""
              : `${rung.name.toLowerCase()} · `}
          {askedWords(step, task)}
        </Quiet>
      </h1>
      <Columns $at="1fr 1fr" style={{ gap: 8 }}>
        <RungFigure rungId={rung.id} side={step.side} frame="start" width="100%" height={190} />
        <RungFigure rungId={rung.id} side={step.side} width="100%" height={190} />
      </Columns>
      <Row $gap={4}>
        <Button
          $big
          ref={startButton}
          style={{ minWidth: 220, minHeight: 76 }}
          onPress={() => props.onStart({ step, legLength: leg })}
        >
          {say("screening.start-side", { side: step.side === "both" ? "" : `, ${step.side}` })}
        </Button>
        <div>
          {rung.sides === "none" ? (
            <Quiet>{say("screening.no-side")}</Quiet>
          ) : (
            <>
              <SideTag side={step.side} /> <Quiet>· {rung.sideMeans}</Quiet>
            </>
          )}
          <br />
          <Quiet>{props.picked ? say("screening.chosen-by-hand") : step.why}</Quiet>{" "}
          {props.picked && (
            <Button $quiet $small onPress={props.onBack}>
              {say("screening.back-to-the-proposal")}
            </Button>
          )}
        </div>
      </Row>
      {props.cautions.length > 0 && (
        <Note>
          {props.cautions.map((caution) => (
            <p key={caution}>
              <strong>{say("screening.mind")}</strong> {caution}
            </p>
          ))}
        </Note>
      )}
      {task?.surfaces && (
        <Choice
          label={say("screening.where-or-how")}
          value={rungId}
          onChange={setRungId}
          options={task.surfaces.map((s) => ({ value: s.rung, label: s.name }))}
        />
      )}
      {task?.loads && (
        <Choice
          label={say("screening.load-in-the-hands")}
          value={String(load)}
          onChange={(value) => setLoad(Number(value))}
          options={task.loads.map((kg) => ({ value: String(kg), label: heldWords(kg) }))}
        />
      )}
      {task?.measure === "centimetres" && (
        <div style={{ maxWidth: 280 }}>
          <NumberField
            label={say("screening.leg-length-cm")}
            hint={say("screening.front-hip-bone-to-inner")}
            value={leg}
            onChange={setLeg}
            min={40}
            max={140}
            step={0.5}
          />
        </div>
      )}
      <Columns $at="1fr 1fr">
        <div>
          <h3>{say("screening.set-up")}</h3>
          <Setup>
            {rung.setup.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </Setup>
          <Small>
            {strategyWords[strategy]} · {activationWords[switchOn]} · {rung.breath}
          </Small>
        </div>
        <div>
          <h3>{say("screening.task")}</h3>
          <p>{rung.movement}</p>
          <Small>
            {say("screening.limit-limit-cue-if-needed", { limit: rung.limit, cues: rung.cues[0] ?? "" })}
          </Small>
        </div>
      </Columns>
    </Stack>
  );
}
