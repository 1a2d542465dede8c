import styled from "styled-components";
import type { Side } from "../api/types";
import { say } from "../words/say";

/** Left points left in sea, right points right in bark; always with the word. */
export const sideWord = (side: Side) => (side === "both" ? say("controls.both-sides") : side);
export const sideArrow = (side: Side) => (side === "left" ? "◀" : side === "right" ? "▶" : "◆");

const Tag = styled.span<{ $side: Side }>`
  font-weight: 700;
  white-space: nowrap;
  color: ${({ theme, $side }) =>
    $side === "left" ? theme.colour.sea : $side === "right" ? theme.colour.bark : theme.colour.slate};
`;

export function SideTag(props: { side: Side }) {
  return (
    <Tag $side={props.side}>
      {props.side !== "right" && <span aria-hidden>{sideArrow(props.side)} </span>}
      {sideWord(props.side)}
      {props.side === "right" && <span aria-hidden> {sideArrow(props.side)}</span>}
    </Tag>
  );
}
