import { Button, Dialog, DialogTrigger, Popover } from "react-aria-components";
import styled from "styled-components";
import { glossary, type TermName } from "./glossary";

const Word = styled(Button)`
  padding: 0;
  border: 0;
  border-bottom: 1px dotted currentColor;
  background: none;
  color: inherit;
  font: inherit;
  cursor: help;
`;

const Leaf = styled(Popover)`
  max-width: 320px;
  padding: ${({ theme }) => theme.space(3)} ${({ theme }) => theme.space(4)};
  border: 2px solid ${({ theme }) => theme.colour.ink};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme }) => theme.colour.sheet};
`;

/** A word that opens one line about itself. */
export function Term(props: { name: TermName; children: string }) {
  const { term, means } = glossary[props.name];
  return (
    <DialogTrigger>
      <Word>{props.children}</Word>
      <Leaf>
        <Dialog aria-label={term}>
          <strong>{term}</strong>: {means}
        </Dialog>
      </Leaf>
    </DialogTrigger>
  );
}
