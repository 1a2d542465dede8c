import type { Programme, SetToDo } from "./programme";
import { setsOf } from "./programme";

/** A set that was done. */
export interface SetDone {
  column: number;
  set: number;
  reps: number;
  /** 0 to 10. */
  effort: number | null;
  pain: number | null;
}

export interface DiaryDay {
  sets: SetDone[];
  /** The worst while doing it, 0 to 10. */
  pain: number | null;
  /** The morning after, 0 to 10. */
  morning: number | null;
  /** Ended because it hurt. */
  stopped: boolean;
  /** Exercises done half as far and half as often, and those left out, for this day. */
  smaller: number[];
  left: number[];
}

/** What the phone keeps. */
export interface Diary {
  /** By ISO date. */
  days: Record<string, DiaryDay>;
  sound: boolean;
  /** Letters larger by so many steps, 0 to 2. */
  large: number;
}

export const emptyDiary: Diary = { days: {}, sound: true, large: 0 };

const emptyDay: DiaryDay = { sets: [], pain: null, morning: null, stopped: false, smaller: [], left: [] };

export const dayOf = (diary: Diary, day: string): DiaryDay => diary.days[day] ?? emptyDay;

/** The diary with one day changed. */
export const told = (diary: Diary, day: string, change: Partial<DiaryDay>): Diary => ({
  ...diary,
  days: { ...diary.days, [day]: { ...dayOf(diary, day), ...change } },
});

const same = (a: { column: number; set: number }, b: { column: number; set: number }) =>
  a.column === b.column && a.set === b.set;

/** A set done, or done again: the last word on it stands. */
export const withSet = (diary: Diary, day: string, done: SetDone): Diary =>
  told(diary, day, { sets: [...dayOf(diary, day).sets.filter((s) => !same(s, done)), done] });

export const isDone = (day: DiaryDay, { side, set }: SetToDo) =>
  day.sets.some((s) => same(s, { column: side.column, set }));

/** The first set of these exercises that is still to do; none: all is done. */
export function nextSet(programme: Programme, exercises: number[], day: DiaryDay): SetToDo | null {
  return (
    exercises
      .filter((i) => !day.left.includes(i))
      .flatMap((i) => setsOf(programme, i))
      .find((set) => !isDone(day, set)) ?? null
  );
}

/** Reps of a set today: half of them, rounded down but one at least, where it was made smaller. */
export const repsOf = (day: DiaryDay, { exercise, side, set }: SetToDo) =>
  day.smaller.includes(exercise) ? Math.max(1, Math.floor(side.reps[set]! / 2)) : side.reps[set]!;

/** Something was done on the day before, or ended because it hurt, and nobody told yet how the morning after was. */
export function morningToAsk(diary: Diary, yesterday: string): boolean {
  const day = diary.days[yesterday];
  return (
    day !== undefined && (day.sets.length > 0 || day.stopped || day.pain !== null) && day.morning === null
  );
}

/** A morning as bad as this is one on which nothing is done. */
export const restsAfter = (diary: Diary, yesterday: string, stopFrom: number) =>
  (diary.days[yesterday]?.morning ?? 0) >= stopFrom;

const two = (n: number) => String(n).padStart(2, "0");

/** The day on the phone's own calendar. */
export const isoDay = (date: Date) =>
  `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;

export function dayBefore(day: string): string {
  const [y, m, d] = day.split("-").map(Number) as [number, number, number];
  return isoDay(new Date(y, m - 1, d - 1));
}
