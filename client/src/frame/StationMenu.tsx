import { Button as AriaButton, Menu, MenuItem, MenuTrigger, Popover } from "react-aria-components";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { openHelp } from "./HelpDialog";
import { beside, placeNames, stationOrder, type Place } from "./stations";
import { say } from "../words/say";

const Here = styled(AriaButton)<{ $live: boolean }>`
  min-height: ${({ $live }) => ($live ? 56 : 48)}px;
  padding: 0 ${({ theme }) => theme.space(3)};
  border: 0;
  background: none;
  color: ${({ theme }) => theme.colour.ink};
  font: 700 1.125rem/1 ${({ theme }) => theme.font.text};
  white-space: nowrap;
  cursor: pointer;
`;

const List = styled(Menu)`
  padding: ${({ theme }) => theme.space(1)};
  border: 2px solid ${({ theme }) => theme.colour.ink};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme }) => theme.colour.sheet};
  min-width: 220px;
  [role="menuitem"] {
    display: flex;
    align-items: center;
    min-height: 48px;
    padding: 0 ${({ theme }) => theme.space(3)};
    cursor: pointer;
  }
  [data-focused] {
    background: ${({ theme }) => theme.colour.wash};
  }
  [data-here] {
    font-weight: 700;
  }
`;

/** Everywhere one can go from a visit, behind one word. */
export function StationMenu(props: { base: string; here: Place | null; words: string; live?: boolean }) {
  const { base, here } = props;
  const navigate = useNavigate();
  return (
    <MenuTrigger>
      <Here $live={props.live === true}>
        {props.words} <span aria-hidden>▾</span>
      </Here>
      <Popover>
        <List
          aria-label={say("frame.stations-of-the-visit")}
          onAction={(place) =>
            place === "help" ? openHelp() : void navigate(place === "day" ? "/" : `${base}/${String(place)}`)
          }
        >
          {props.live && <MenuItem id="day">{say("frame.the-day")}</MenuItem>}
          {[...stationOrder, ...beside].map((place) => (
            <MenuItem key={place} id={place} data-here={place === here || undefined}>
              {placeNames[place]}
            </MenuItem>
          ))}
          <MenuItem id="help">{say("frame.help")}</MenuItem>
        </List>
      </Popover>
    </MenuTrigger>
  );
}
