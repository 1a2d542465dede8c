import { usePractitioners } from "../api/queries";
import { Picker } from "../controls/Picker";
import { say } from "../words/say";

const anybody = "";

/** Whom a client is booked with, or who is in charge. */
export function WithPicker(props: {
  label?: string;
  nobody?: string;
  value: string | null;
  onPick: (account: string | null) => void;
}) {
  const { data } = usePractitioners();
  return (
    <Picker
      label={props.label ?? say("frame.with")}
      value={props.value ?? anybody}
      onPick={(id) => props.onPick(id === anybody ? null : id)}
      options={[
        { value: anybody, label: props.nobody ?? say("frame.anybody") },
        ...(data ?? []).map((p) => ({ value: p.id, label: p.name })),
      ]}
    />
  );
}
