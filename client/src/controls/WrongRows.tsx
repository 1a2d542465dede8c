import { ProblemError } from "../api/client";
import { Note } from "./layout";
import { say } from "../words/say";

/** Paths into a form mean nothing to people; lines and days of a file do. */
const isPath = (field: string) => /^[a-z_]+(\.[a-z]+)*$/i.test(field);

/** What was wrong in a file that was not taken in, row by row. */
export function WrongRows({ error }: { error: Error | null }) {
  if (!error) return null;
  const rows = error instanceof ProblemError ? error.fields : [];
  return (
    <Note grave>
      <p>{say("controls.nothing-was-taken-in-the")}</p>
      <ul>
        {rows.length === 0 && <li>{error.message}</li>}
        {rows.map((e) => (
          <li key={e.field + e.message}>
            {!isPath(e.field) && <strong>{e.field}: </strong>}
            {e.message}
          </li>
        ))}
      </ul>
    </Note>
  );
}
