import { Button } from "react-aria-components";
import styled from "styled-components";

/** What a row of a list is held by to move it: the drag button of its item. */
export const Grip = styled(Button)`
  width: 48px;
  height: 56px;
  border: 0;
  background: none;
  color: ${({ theme }) => theme.colour.slate};
  font: 700 1.375rem/1 ${({ theme }) => theme.font.text};
  cursor: grab;
`;
