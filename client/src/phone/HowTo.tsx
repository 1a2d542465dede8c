import { useEffect, useRef } from "react";
import { say } from "../words/say";
import { Moving } from "./Moving";
import { frameAt, reducedMotion } from "../figure/motion";
import { useElapsed } from "../figure/useElapsed";
import type { Programme, SetToDo } from "./programme";
import { SideBand } from "./Side";

/** The figure only shows: out and back in as much, seconds, whatever tempo is asked later. */
const showSeconds = 5;
const fine = 61;

/** How an exercise is done, before its first set; the figure shows it slowly. */
export function HowTo(props: {
  programme: Programme;
  set: SetToDo;
  smaller: boolean;
  onStart: () => void;
  onBack: () => void;
  onHurts: () => void;
}) {
  const { programme, set } = props;
  const exercise = programme.exercises[set.exercise]!;
  const moves = set.side.drawing.count > 1 && !reducedMotion();
  const elapsed = useElapsed(moves, String(set.side.column));
  const share = moves ? frameAt(elapsed, showSeconds, fine) / (fine - 1) : 1;
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => heading.current?.focus(), [set.exercise]);
  return (
    <div className="how">
      <header>
        <small>{say("phone.exercise-of", { n: set.exercise + 1, all: programme.exercises.length })}</small>
        <button type="button" className="plain" onClick={props.onBack}>
          {say("phone.back")}
        </button>
      </header>
      <h1 ref={heading} tabIndex={-1}>
        {exercise.name}
      </h1>
      <div className="stage">
        <Moving drawing={set.side.drawing} share={share * (props.smaller ? 0.5 : 1)} words={exercise.name} />
      </div>
      <SideBand side={set.side} />
      <div className="words">
        <p className="dose">{set.side.written}</p>
        {props.smaller && <p>{say("phone.today-smaller")}</p>}
        {exercise.lines.map((line) => (
          <p key={line}>{line}</p>
        ))}
        <p>{exercise.feel}</p>
        <p>{exercise.notFeel}</p>
        {exercise.changes.map((line) => (
          <p key={line}>{line}</p>
        ))}
      </div>
      <footer>
        <button type="button" className="hurts" onClick={props.onHurts}>
          {say("phone.it-hurts")}
        </button>
        <button type="button" className="main" onClick={props.onStart}>
          {say("phone.start")}
        </button>
      </footer>
    </div>
  );
}
