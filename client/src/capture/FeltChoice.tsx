import type { Library } from "../api/types";
import { Button } from "../controls/Button";
import { Choice } from "../controls/fields";
import { Note } from "../controls/layout";
import { capital } from "../controls/words";
import { say } from "../words/say";

/** Where the client felt the work, and the set-up change it asks for when that is not the place meant. */
export function FeltChoice(props: {
  felt: string | null;
  library: Library;
  onFelt: (place: string) => void;
  /** In a session: the set-up is changed before the next set, and that is kept. */
  change?: { done: boolean; onDone: () => void } | null;
}) {
  const { feltPlaces } = props.library;
  const felt = feltPlaces.find((p) => p.id === props.felt);
  return (
    <>
      <Choice
        label={say("capture.felt-mainly-in")}
        value={props.felt}
        onChange={props.onFelt}
        options={feltPlaces.map((p) => ({ value: p.id, label: p.words }))}
      />
      {felt?.change && (
        <Note>
          {capital(felt.words)}: {felt.change}.{" "}
          {props.change &&
            (props.change.done ? (
              <strong>{say("capture.changed-and-kept-in-the")}</strong>
            ) : (
              <Button $small $quiet onPress={props.change.onDone}>
                {say("capture.set-up-changed")}
              </Button>
            ))}
        </Note>
      )}
    </>
  );
}
