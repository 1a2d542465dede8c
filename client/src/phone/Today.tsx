import { saveFile } from "../controls/saveFile";
import { say } from "../words/say";
import { dayBefore, dayOf, isDone, morningToAsk, type Diary } from "./diary";
import { setsOf, type Programme, type SetToDo } from "./programme";
import { Scale } from "./Scale";
import { Warning } from "./Warning";

interface Props {
  programme: Programme;
  diary: Diary;
  today: string;
  /** Exercises of today, by their places. */
  asked: number[];
  next: SetToDo | null;
  /** The morning was so bad that nothing is done today. */
  rests: boolean;
  /** The phone keeps the log when the page is closed. */
  lasting: boolean;
  onSound: (on: boolean) => void;
  onLarge: (step: number) => void;
  onMorning: (yesterday: string, pain: number) => void;
  onWorst: (pain: number) => void;
  onBegin: () => void;
  onAnyway: () => void;
  onHurts: () => void;
  onGive: () => void;
}

/** What today asks for, what is done of it, and the way to everything else. */
export function Today(props: Props) {
  const { programme, diary, today, asked, next } = props;
  const day = dayOf(diary, today);
  const yesterday = dayBefore(today);
  const begun = day.sets.length > 0;
  const done = asked.length > 0 && next === null && begun;
  return (
    <div className="today">
      <header>
        <h1>{say("phone.today")}</h1>
        <small>{programme.clinicName}</small>
      </header>
      {!props.lasting && <p className="note">{say("phone.not-kept")}</p>}
      {morningToAsk(diary, yesterday) && (
        <Scale
          label={say("phone.this-morning")}
          value={null}
          onTap={(pain) => props.onMorning(yesterday, pain)}
        />
      )}
      {props.rests ? (
        <p className="big">{say("phone.not-today")}</p>
      ) : day.stopped ? (
        <p className="big">{say("phone.stopped-today")}</p>
      ) : done ? (
        <p className="big">{say("phone.done-today")}</p>
      ) : asked.length === 0 ? (
        <p className="big">{say("phone.rest-day")}</p>
      ) : (
        <p>{programme.line}</p>
      )}
      {begun && day.pain === null && (done || day.stopped) && (
        <Scale label={say("phone.worst-today")} value={day.pain} onTap={props.onWorst} />
      )}
      <ol className="list">
        {asked.map((i) => {
          const sets = setsOf(programme, i);
          const did = sets.filter((set) => isDone(day, set)).length;
          const left = day.left.includes(i);
          return (
            <li key={i} className={did === sets.length ? "done" : ""}>
              <strong>{programme.exercises[i]!.name}</strong>
              <span>
                {left ? say("phone.left-out-today") : say("phone.sets-done", { did, all: sets.length })}
              </span>
            </li>
          );
        })}
      </ol>
      {next && (
        <button type="button" className="main begin" onClick={props.onBegin}>
          {begun
            ? say("phone.go-on-with", { name: programme.exercises[next.exercise]!.name })
            : say("phone.begin")}
        </button>
      )}
      {asked.length === 0 && !props.rests && (
        <button type="button" className="choice" onClick={props.onAnyway}>
          {say("phone.do-it-anyway")}
        </button>
      )}
      <button type="button" className="hurts wide" onClick={props.onHurts}>
        {say("phone.it-hurts")}
      </button>
      <button type="button" className="choice" onClick={props.onGive}>
        {say("phone.show-my-log")}
      </button>
      <button
        type="button"
        className="choice"
        onClick={() => saveFile("exercises.ics", new Blob([programme.calendar], { type: "text/calendar" }))}
      >
        {say("phone.remind-me")}
      </button>
      <div className="settings" role="group" aria-label={say("phone.letters-and-sound")}>
        {[0, 1, 2].map((step) => (
          <button
            key={step}
            type="button"
            aria-pressed={diary.large === step}
            aria-label={say("phone.letters-step", { step: step + 1 })}
            className={`letter-${step}`}
            onClick={() => props.onLarge(step)}
          >
            A
          </button>
        ))}
        <button type="button" aria-pressed={diary.sound} onClick={() => props.onSound(!diary.sound)}>
          {say("phone.sound")}
        </button>
      </div>
      <Warning programme={programme} />
      <p>
        <small>
          {programme.nextVisit} {programme.made}
        </small>
      </p>
    </div>
  );
}
