import type { Library } from "../api/types";
import { Checkbox } from "../controls/fields";
import { Small, Stack } from "../controls/layout";
import { say } from "../words/say";

/** Nothing ticked is no answer: either a flag is named, or "asked: none of these" is pressed. */
export const flagsAnswered = (signs: string[], asked: boolean | null) => signs.length > 0 || asked === true;

/** The red flags as a list to tick, and one press for "asked: none of these". */
export function RedFlags(props: {
  flags: Library["dangerSigns"];
  signs: string[];
  asked: boolean | null;
  onChange: (signs: string[], asked: boolean | null) => void;
  children: string;
}) {
  const { signs, asked } = props;
  const toggle = (id: string, on: boolean) => {
    const left = on ? [...signs, id] : signs.filter((s) => s !== id);
    props.onChange(left, left.length > 0 ? true : null);
  };
  return (
    <section aria-labelledby="flags-title">
      <Stack $gap={1}>
        <h2 id="flags-title">{say("frame.red-flags-first")}</h2>
        <Small>{props.children}</Small>
        <Checkbox
          selected={asked === true && signs.length === 0}
          onChange={(on) => props.onChange([], on ? true : null)}
        >
          <strong>{say("frame.asked-none-of-these")}</strong>
        </Checkbox>
        {props.flags.map((flag) => (
          <Checkbox key={flag.id} selected={signs.includes(flag.id)} onChange={(on) => toggle(flag.id, on)}>
            {flag.words}
            {flag.emergency ? (
              <strong> {say("frame.emergency-care")}</strong>
            ) : (
              flag.sameDay && <strong> {say("frame.same-day")}</strong>
            )}
          </Checkbox>
        ))}
      </Stack>
    </section>
  );
}
