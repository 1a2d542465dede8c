import { useState } from "react";
import { dayBefore, dayOf, isoDay, nextSet, repsOf, restsAfter, told, withSet, type Diary } from "./diary";
import { Give } from "./Give";
import { Hurts } from "./Hurts";
import type { Keep } from "./keep";
import { exercisesOn, type Programme, type SetToDo } from "./programme";
import { RunSet } from "./RunSet";
import { Rest } from "./Rest";
import { Today } from "./Today";
import { AfterSet } from "./AfterSet";
import { HowTo } from "./HowTo";

/** What is on the screen; one thing at a time. */
type View =
  | { at: "today" }
  | { at: "how"; set: SetToDo }
  | { at: "run"; set: SetToDo }
  | { at: "after"; set: SetToDo; reps: number }
  | { at: "rest"; seconds: number }
  | { at: "hurts"; set: SetToDo | null; reps: number }
  | { at: "give" };

export function App({ programme, keep }: { programme: Programme; keep: Keep }) {
  const [diary, setDiary] = useState<Diary>(() => keep.read());
  const [view, setView] = useState<View>({ at: "today" });
  // Everything, on a day on which nothing is asked for or more is wanted.
  const [anyway, setAnyway] = useState(false);
  const today = isoDay(new Date());
  const day = dayOf(diary, today);
  const asked = anyway ? programme.exercises.map((_, i) => i) : exercisesOn(programme, today);
  const rests = restsAfter(diary, dayBefore(today), programme.stopFrom);
  const next = day.stopped || rests ? null : nextSet(programme, asked, day);
  const write = (changed: Diary) => {
    keep.write(changed);
    setDiary(changed);
    return changed;
  };
  const home = () => setView({ at: "today" });
  /** To the next set, with how it is done where it is another exercise; home when all is done. */
  const goOn = (now: Diary, after: SetToDo | null) => {
    const set = nextSet(programme, asked, dayOf(now, today));
    if (!set || dayOf(now, today).stopped) return home();
    setView(after && set.exercise === after.exercise ? { at: "run", set } : { at: "how", set });
  };
  const screen = () => {
    switch (view.at) {
      case "how":
        return (
          <HowTo
            programme={programme}
            set={view.set}
            smaller={day.smaller.includes(view.set.exercise)}
            onStart={() => setView({ at: "run", set: view.set })}
            onBack={home}
            onHurts={() => setView({ at: "hurts", set: view.set, reps: 0 })}
          />
        );
      case "run":
        return (
          <RunSet
            key={`${view.set.side.column} ${view.set.set}`}
            programme={programme}
            set={view.set}
            reps={repsOf(day, view.set)}
            smaller={day.smaller.includes(view.set.exercise)}
            sound={diary.sound}
            onDone={(reps) => setView({ at: "after", set: view.set, reps })}
            onHurts={(reps) => setView({ at: "hurts", set: view.set, reps })}
            onBack={home}
          />
        );
      case "after":
        return (
          <AfterSet
            onHurts={() => setView({ at: "hurts", set: view.set, reps: view.reps })}
            onTold={(effort) => {
              const { set, reps } = view;
              const now = write(
                withSet(diary, today, { column: set.side.column, set: set.set, reps, effort, pain: null }),
              );
              const following = nextSet(programme, asked, dayOf(now, today));
              if (following && following.exercise === set.exercise && following.set > set.set)
                setView({ at: "rest", seconds: set.side.rest });
              else goOn(now, set);
            }}
          />
        );
      case "rest":
        return (
          <Rest
            seconds={view.seconds}
            sound={diary.sound}
            onOver={() => goOn(diary, next)}
            onHurts={() => setView({ at: "hurts", set: next, reps: 0 })}
          />
        );
      case "hurts":
        return (
          <Hurts
            programme={programme}
            set={view.set}
            smaller={view.set !== null && day.smaller.includes(view.set.exercise)}
            onBack={() => (view.set ? setView({ at: "run", set: view.set }) : home())}
            onTold={(pain, what) => {
              const worst = Math.max(pain, day.pain ?? 0);
              let now = diary;
              if (view.set && view.reps > 0) {
                const { side, set } = view.set;
                now = withSet(now, today, { column: side.column, set, reps: view.reps, effort: null, pain });
              }
              const of = view.set?.exercise;
              now = told(now, today, {
                pain: worst,
                stopped: what === "stop" || dayOf(now, today).stopped,
                smaller:
                  what === "smaller" && of !== undefined ? [...new Set([...day.smaller, of])] : day.smaller,
                left: what === "leave" && of !== undefined ? [...new Set([...day.left, of])] : day.left,
              });
              write(now);
              if (what === "stop") home();
              else goOn(now, what === "leave" ? null : view.set);
            }}
          />
        );
      case "give":
        return <Give programme={programme} diary={diary} onBack={home} />;
      default:
        return (
          <Today
            programme={programme}
            diary={diary}
            today={today}
            asked={asked}
            next={next}
            lasting={keep.lasting}
            rests={rests}
            onSound={(sound) => write({ ...diary, sound })}
            onLarge={(large) => write({ ...diary, large })}
            onMorning={(yesterday, pain) => write(told(diary, yesterday, { morning: pain }))}
            onWorst={(pain) => write(told(diary, today, { pain }))}
            onBegin={() => next && setView({ at: "how", set: next })}
            onAnyway={() => setAnyway(true)}
            onHurts={() => setView({ at: "hurts", set: null, reps: 0 })}
            onGive={() => setView({ at: "give" })}
          />
        );
    }
  };
  return <main className={`phone large-${diary.large}`}>{screen()}</main>;
}
