import { ProblemError } from "../api/client";
import { Button } from "../controls/Button";
import { MomentField } from "../controls/DateField";
import { NumberField } from "../controls/fields";
import { Columns, Note, ProblemNote, Row } from "../controls/layout";
import { say } from "../words/say";
import { WithPicker } from "./WithPicker";

/** When a visit is, how long, and with whom. */
export interface VisitTime {
  /** "2026-11-29T09:30" on the clinic's wall. */
  at: string;
  who: string | null;
  minutes: number | null;
}

/** @param props.timed whether a time is asked for; somebody who walked in is here now */
export function WhenFields(props: {
  time: VisitTime;
  onChange: (time: VisitTime) => void;
  timed?: boolean;
  error: (...fields: string[]) => string | undefined;
}) {
  const { time } = props;
  const set = (change: Partial<VisitTime>) => props.onChange({ ...time, ...change });
  return (
    <>
      {props.timed !== false && (
        <MomentField
          label={say("frame.day-and-time")}
          value={time.at}
          onChange={(at) => set({ at })}
          error={props.error("plannedAt", "visit.plannedAt", "first")}
        />
      )}
      <Columns $at="1fr 1fr" style={{ gap: 16 }}>
        <WithPicker value={time.who} onPick={(who) => set({ who })} />
        <NumberField
          label={say("frame.minutes")}
          value={time.minutes}
          onChange={(minutes) => set({ minutes })}
          min={5}
          max={480}
          step={5}
          error={props.error("minutes", "visit.minutes")}
        />
      </Columns>
    </>
  );
}

/** The first of the named fields that is wrong, in words. */
export const wrongIn =
  (error: unknown) =>
  (...fields: string[]) =>
    error instanceof ProblemError
      ? fields.map((field) => error.field(field)).find((words) => words !== undefined)
      : undefined;

/** What went wrong: of a time that is taken, a second press books it all the same. */
export function Taken(props: { error: unknown; busy?: boolean; onAnyway: () => void }) {
  const problem = props.error instanceof ProblemError ? props.error : null;
  if (problem?.type !== "taken") {
    return problem && problem.fields.length > 0 ? null : <ProblemNote error={props.error} />;
  }
  return (
    <Note>
      <p>{problem.message}</p>
      <Row style={{ marginTop: 8 }}>
        <Button $quiet isDisabled={props.busy} onPress={props.onAnyway}>
          {say("frame.book-it-anyway")}
        </Button>
      </Row>
    </Note>
  );
}
