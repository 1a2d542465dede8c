import { useEffect, useRef, useState } from "react";
import { say } from "../words/say";
import { reducedMotion } from "../figure/motion";
import { Moving } from "./Moving";
import type { Programme, SetToDo } from "./programme";
import { SideBand } from "./Side";
import { tone } from "../controls/tone";
import { useElapsed } from "../figure/useElapsed";
import { stayLit } from "./stayLit";
import { momentAt, type Moment } from "./timeline";

/** One set: counted in, led rep by rep, ended by a press. */
export function RunSet(props: {
  programme: Programme;
  set: SetToDo;
  reps: number;
  smaller: boolean;
  sound: boolean;
  onDone: (reps: number) => void;
  onHurts: (reps: number) => void;
  onBack: () => void;
}) {
  const { programme, set, reps } = props;
  const exercise = programme.exercises[set.exercise]!;
  const { side } = set;
  const [paused, setPaused] = useState(false);
  const moment = momentAt(side, reps, useElapsed(!paused));
  useEffect(stayLit, []);
  useTones(moment, props.sound);
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => heading.current?.focus(), []);
  const doing = Math.min(reps, moment.done + (moment.phase === "in" || moment.phase === "done" ? 0 : 1));
  const share = reducedMotion() ? (moment.phase === "in" ? 0 : 1) : moment.share;
  const phases = {
    in: say("phone.get-ready"),
    out: say("phone.out", { left: moment.left }),
    hold: side.minutes ? say("phone.keep-going") : say("phone.hold", { left: moment.left }),
    back: say("phone.back-slowly", { left: moment.left }),
    done: say("phone.all-done"),
  };
  return (
    <div className="run">
      <header>
        <small>{say("phone.exercise-of", { n: set.exercise + 1, all: programme.exercises.length })}</small>
        <small>{say("phone.set-of", { n: set.set + 1, all: side.reps.length })}</small>
      </header>
      <h1 ref={heading} tabIndex={-1}>
        {exercise.name}
      </h1>
      <div className="stage">
        <Moving drawing={side.drawing} share={share * (props.smaller ? 0.5 : 1)} words={exercise.name} />
      </div>
      <SideBand side={side} />
      <div className="count" role="timer" aria-live="off">
        <b>{moment.phase === "in" ? moment.left : doing}</b>
        <span>
          {moment.phase !== "in" &&
            `${side.minutes ? say("phone.of-minutes", { reps }) : say("phone.of-reps", { reps })} · `}
          {phases[moment.phase]}
        </span>
        <i style={{ inlineSize: `${(100 * moment.done) / reps}%` }} />
      </div>
      <p className="cue">“{exercise.cue}”</p>
      <p role="status" className="unseen">
        {moment.phase === "done" ? phases.done : doing > 0 ? String(doing) : phases.in}
      </p>
      <footer>
        <button type="button" className="hurts" onClick={() => props.onHurts(moment.done)}>
          {say("phone.it-hurts")}
        </button>
        <button type="button" className="quiet" onClick={() => setPaused(!paused)}>
          {paused ? say("phone.go-on") : say("phone.pause")}
        </button>
        <button type="button" className="main" onClick={() => props.onDone(moment.done)}>
          {say("phone.set-done")}
        </button>
      </footer>
      <button type="button" className="plain leave" onClick={props.onBack}>
        {say("phone.leave-set")}
      </button>
    </div>
  );
}

function useTones({ phase, done, left }: Moment, sound: boolean) {
  useEffect(() => {
    if (!sound) return;
    if (phase === "done") tone(880, 0.5);
    else if (phase === "out") tone(620, 0.1);
    else if (phase === "hold") tone(740, 0.15);
    else if (phase === "back") tone(520, 0.1);
  }, [phase, done, sound]);
  useEffect(() => {
    if (sound && phase === "in") tone(480, 0.1);
  }, [phase, left, sound]);
}
