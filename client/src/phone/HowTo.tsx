import { useEffect, useRef, useState } from "react";
import { say } from "../words/say";
import { Moving } from "./Moving";
import { reducedMotion } from "../figure/motion";
import type { Programme, SetToDo } from "./programme";
import { SideBand } from "./Side";

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
  const share = useToAndFro(set.side.drawing.count > 1 && !reducedMotion());
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

/** Seconds out, and the same back, of the figure that only shows. */
const way = 2.4;

function useToAndFro(moves: boolean) {
  const [share, setShare] = useState(1);
  useEffect(() => {
    if (!moves) return;
    const began = performance.now();
    let request = requestAnimationFrame(function tick(now) {
      const t = ((now - began) / 1000) % (2 * way);
      setShare(t < way ? t / way : 2 - t / way);
      request = requestAnimationFrame(tick);
    });
    return () => cancelAnimationFrame(request);
  }, [moves]);
  return moves ? share : 1;
}
