import type { Library } from "../api/types";
import { Checkbox } from "../controls/fields";
import styled from "styled-components";
import { Row, Small } from "../controls/layout";
import { say } from "../words/say";

/** The answer of nearly everybody: as large as a button. */
const None = styled.div`
  padding: 2px ${({ theme }) => theme.space(4)};
  border: 2px solid ${({ theme }) => theme.colour.ink};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme }) => theme.colour.sheet};
`;

/** As many columns as there is room for: all flags in one look. */
const List = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
  column-gap: ${({ theme }) => theme.space(5)};
  label {
    padding: 4px 0;
  }
`;

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
      <Row $between $gap={2}>
        <div>
          <h2 id="flags-title">{say("frame.red-flags-first")}</h2>
          <Small>{props.children}</Small>
        </div>
        <None>
          <Checkbox
            selected={asked === true && signs.length === 0}
            onChange={(on) => props.onChange([], on ? true : null)}
          >
            <strong>{say("frame.asked-none-of-these")}</strong>
          </Checkbox>
        </None>
      </Row>
      <List>
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
      </List>
    </section>
  );
}
