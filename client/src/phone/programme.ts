/** What the page carries; see HomePage in the server's TakeHome. */
export interface Shape {
  role: string;
  /**
   * By picture, by outline: x, y, x, y in millimetres, y down; from the second picture on how far each has gone since the one
   * before.
   */
  frames: number[][][];
}

/** The pictures of a shape, each in full. */
export const picturesOf = ({ frames }: Shape): number[][][] =>
  frames
    .slice(1)
    .reduce(
      (all, steps) => [...all, steps.map((step, o) => step.map((d, i) => all.at(-1)![o]![i]! + d))],
      [frames[0]!],
    );

export interface Drawing {
  left: number;
  top: number;
  width: number;
  height: number;
  count: number;
  shapes: Shape[];
}

export interface ProgrammeSide {
  /** Its place in the log. */
  column: number;
  side: "left" | "right" | "both";
  sideMeans: string;
  /** Of each set. */
  reps: number[];
  hold: number;
  out: number;
  back: number;
  rest: number;
  /** A rep is a minute. */
  minutes: boolean;
  figures: string;
  written: string;
  drawing: Drawing;
}

export interface ProgrammeExercise {
  name: string;
  cue: string;
  lines: string[];
  feel: string;
  notFeel: string;
  changes: string[];
  sides: ProgrammeSide[];
  /** ISO dates. */
  days: string[];
}

export interface Programme {
  language: string;
  page: string;
  token: string;
  key: string;
  clinicName: string;
  contact: string;
  line: string;
  stop: string;
  nextVisit: string;
  made: string;
  stopFrom: number;
  exercises: ProgrammeExercise[];
  calendar: string;
}

/** One set to do: its exercise, its side, and which of the sets it is, from 0. */
export interface SetToDo {
  exercise: number;
  side: ProgrammeSide;
  set: number;
}

/** Every set of an exercise in the order in which it is done: the sides in turn. */
export function setsOf(programme: Programme, exercise: number): SetToDo[] {
  const { sides } = programme.exercises[exercise]!;
  const most = Math.max(...sides.map((s) => s.reps.length));
  return Array.from({ length: most }, (_, set) => set).flatMap((set) =>
    sides.filter((side) => set < side.reps.length).map((side) => ({ exercise, side, set })),
  );
}

/** What is asked for on a day; everything where the days of the plan are over. */
export function exercisesOn(programme: Programme, day: string): number[] {
  const all = programme.exercises.map((_, i) => i);
  const last = programme.exercises
    .flatMap((e) => e.days)
    .sort()
    .at(-1);
  if (last === undefined || day > last) return all;
  return all.filter((i) => programme.exercises[i]!.days.includes(day));
}
