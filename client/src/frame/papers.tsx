import { Choice } from "../controls/fields";
import { say } from "../words/say";

/** What letters and home programmes are printed on, in millimetres. */
export const papers = {
  a4: { width: 210, height: 297, name: say("frame.a4") },
  letter: { width: 216, height: 279, name: say("frame.letter-paper") },
};

export type Paper = keyof typeof papers;

export function PaperChoice(props: { value: Paper; onChange: (paper: Paper) => void }) {
  return (
    <Choice
      label={say("frame.paper")}
      value={props.value}
      onChange={props.onChange}
      options={(Object.keys(papers) as Paper[]).map((value) => ({ value, label: papers[value].name }))}
    />
  );
}
