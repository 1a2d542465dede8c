import { Button } from "react-aria-components";
import styled from "styled-components";
import { openHelp } from "./HelpDialog";
import { say } from "../words/say";

const Mark = styled(Button)`
  min-width: 44px;
  min-height: 44px;
  border: 0;
  background: none;
  color: ${({ theme }) => theme.colour.grey};
  font: 600 1.0625rem/1 ${({ theme }) => theme.font.text};
  cursor: pointer;
`;

/** Help, for hands without a keyboard. */
export const HelpMark = () => (
  <Mark aria-label={say("frame.help")} onPress={openHelp}>
    ?
  </Mark>
);
