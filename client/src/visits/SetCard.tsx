import { useEffect } from "react";
import styled from "styled-components";
import { findRung } from "../api/queries";
import type { Dose, Library, Plan, RepGuide, Side } from "../api/types";
import { signalStart } from "../capture/signals";
import { Button } from "../controls/Button";
import { Scale } from "../controls/fields";
import { HiddenVisually, Note, Pair, Quiet, Small, Stack } from "../controls/layout";
import { sideArrow } from "../controls/SideTag";
import { doseWords, repsOf, strategyWords, activationWords } from "../controls/words";
import { RungFigure } from "../figure/FigureView";
import { doseOf, wayWords, type SetToDo } from "./sessionWork";
import { say } from "../words/say";

const Band = styled.div<{ $side: Side; $loud: boolean }>`
  display: flex;
  flex-wrap: wrap;
  justify-content: ${({ $side }) => ($side === "right" ? "flex-end" : "flex-start")};
  align-items: baseline;
  gap: ${({ theme }) => theme.space(4)};
  padding: ${({ theme, $loud }) => theme.space($loud ? 5 : 2)} ${({ theme }) => theme.space(5)};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme, $side }) => ($side === "left" ? theme.colour.sea : theme.colour.bark)};
  color: ${({ theme }) => theme.colour.sheet};
  strong {
    font: 800 ${({ $loud }) => ($loud ? "2.75rem" : "1.75rem")} / 1.1 ${({ theme }) => theme.font.display};
  }
`;

/** The start as wide as there is room; pain is told beside it, before it. */
const Begin = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: flex-end;
  gap: ${({ theme }) => theme.space(3)};
`;

const StartButton = styled(Button)`
  flex: 1 1 170px;
  min-height: 76px;
`;

/** The set-up card: what is done now, on which side, how much, with its drawing and its cue. */
export function SetCard(props: {
  todo: SetToDo;
  plan: Plan;
  library: Library;
  guide: RepGuide | null;
  /** The side of the set before, where it was the other one of the same exercise. */
  changedFrom: Side | null;
  compact?: boolean;
  /** The dose it is begun with, where it is begun easier than planned. */
  easier?: Dose | null;
  /** Pain before the exercise's first set; undefined at later sets, where it is not asked again. */
  painBefore?: { value: number | null; onTell: (value: number) => void; atStart: number | null };
  onStart: () => void;
}) {
  const { todo, plan, guide } = props;
  const { rung } = findRung(props.library, todo.item.rungId);
  const { range, rangeEnds } = todo.item.doses.find((d) => d.side === todo.side)!;
  const dose = props.easier ?? doseOf(todo);
  const set = { ...dose, reps: repsOf(dose, todo.set), sets: 1, fewer: 0 };
  const modifier = props.library.modifiers.find((m) => m.id === dose.modifier);
  const rise =
    props.painBefore?.value != null && props.painBefore.atStart !== null
      ? props.painBefore.value - props.painBefore.atStart
      : 0;
  return (
    <Stack $gap={3}>
      <h1>
        {rung.name}{" "}
        <Quiet style={{ fontSize: "1.0625rem", fontWeight: 400 }}>
          {say("visits.set-of-sets", {
            set: todo.set,
            sets: dose.sets,
            way: wayWords(rung, todo.way) ? `, ${wayWords(rung, todo.way)}` : "",
            dose: doseWords(set),
            range: rangeEnds && !props.easier ? ` · ${rangeEnds}` : "",
            easier: props.easier ? ` ${say("visits.begun-easier")}` : "",
          })}
        </Quiet>
      </h1>
      {todo.side !== "both" && (
        <SideBand side={todo.side} changed={props.changedFrom !== null} means={rung.sideMeans} />
      )}
      {props.compact ? (
        <RungFigure rungId={rung.id} side={todo.side} range={range} width="100%" height={150} />
      ) : (
        <Pair>
          <RungFigure rungId={rung.id} side={todo.side} frame="start" width="100%" height={150} />
          <RungFigure
            rungId={rung.id}
            side={todo.side}
            range={dose.range ?? range}
            width="100%"
            height={150}
          />
        </Pair>
      )}
      {(todo.item.notes ?? []).map((note) => (
        <p key={note} style={{ fontSize: "1.25rem" }}>
          <strong>{say("visits.first")} </strong>
          {note}
        </p>
      ))}
      {modifier && <p style={{ fontSize: "1.25rem" }}>{modifier.words}</p>}
      <p style={{ fontSize: "1.25rem" }}>“{todo.item.cue}”</p>
      <Begin>
        <StartButton $big onPress={props.onStart}>
          {say("visits.start-side", { side: todo.side === "both" ? "" : `, ${todo.side}` })}
        </StartButton>
        {props.painBefore && (
          <Scale
            label={say("visits.pain-before-this-exercise-leave")}
            value={props.painBefore.value}
            onChange={props.painBefore.onTell}
          />
        )}
      </Begin>
      {rise >= 2 && <Note>{say("visits.pain-is-rise-over-the", { rise })}</Note>}
      <div>
        {guide && (
          <Small>
            {say("visits.guide-breath-breath-back-strategywords", {
              guide: guide.words,
              breath: guide.breath,
              strategyWords: strategyWords[plan.strategy],
              activationWords: activationWords[plan.switchOn],
            })}
          </Small>
        )}
        {!props.compact && (
          <>
            <Small>{rung.movement}</Small>
            <Small>{say("visits.feel-it-in-feel-not", { feel: rung.feel, notFeel: rung.notFeel })}</Small>
          </>
        )}
      </div>
      {todo.item.changes.map((change) => (
        <p key={change}>
          <strong>{say("visits.change")}</strong> {change}
        </p>
      ))}
    </Stack>
  );
}

/** A change of side is loud: a band across the card, the word, the place, and a signal. */
function SideBand(props: { side: "left" | "right"; changed: boolean; means: string }) {
  useEffect(() => {
    if (props.changed) signalStart();
  }, [props.changed, props.side]);
  return (
    <Band $side={props.side} $loud={props.changed} role="status">
      {props.changed && <span>{say("visits.change-sides")}</span>}
      <strong>
        {props.side === "left" && `${sideArrow("left")} `}
        {props.side.toUpperCase()}
        {props.side === "right" && ` ${sideArrow("right")}`}
      </strong>
      <span>{props.means}</span>
      <HiddenVisually>{say("visits.the-client-s-side", { side: props.side })}</HiddenVisually>
    </Band>
  );
}
