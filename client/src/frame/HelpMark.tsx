import { Button } from "react-aria-components";
import styled from "styled-components";
import { openHelp } from "./HelpDialog";
import { say } from "../words/say";

const Mark = styled(Button)<{ $inMenu: boolean }>`
  min-width: 44px;
  min-height: 44px;
  border: 0;
  background: none;
  color: ${({ theme }) => theme.colour.grey};
  font: 600 1.0625rem/1 ${({ theme }) => theme.font.text};
  cursor: pointer;
  @media (max-width: 37.5em) {
    display: ${({ $inMenu }) => ($inMenu ? "none" : "inline")};
  }
`;

/**
 * Help, for hands without a keyboard.
 *
 * @param props.inMenu on a phone it stands in a menu instead
 */
export const HelpMark = (props: { inMenu?: boolean }) => (
  <Mark $inMenu={props.inMenu === true} aria-label={say("frame.help")} onPress={openHelp}>
    ?
  </Mark>
);
