import type { Library } from "../api/types";
import { Choice } from "../controls/fields";
import { Note } from "../controls/layout";
import { capital } from "../controls/words";

/** Where the client felt the work, and the set-up change it asks for when that is not the place meant. */
export function FeltChoice(props: {
  felt: string | null;
  library: Library;
  onFelt: (place: string) => void;
}) {
  const { feltPlaces } = props.library;
  const felt = feltPlaces.find((p) => p.id === props.felt);
  return (
    <>
      <Choice
        label="Felt mainly in"
        value={props.felt}
        onChange={props.onFelt}
        options={feltPlaces.map((p) => ({ value: p.id, label: p.words }))}
      />
      {felt?.change && (
        <Note>
          {capital(felt.words)}: {felt.change}.
        </Note>
      )}
    </>
  );
}
