import styled from "styled-components";
import type { Rung, Side } from "../api/types";
import { sideArrow } from "../controls/SideTag";
import { say } from "../words/say";

const SideBlock = styled.div<{ $side: Side }>`
  padding: ${({ theme }) => theme.space(3)} ${({ theme }) => theme.space(4)};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme, $side }) =>
    $side === "left" ? theme.colour.sea : $side === "right" ? theme.colour.bark : theme.colour.slate};
  color: ${({ theme }) => theme.colour.sheet};
  text-align: ${({ $side }) => ($side === "right" ? "right" : "left")};
  strong {
    display: block;
    white-space: nowrap;
    font: 800 2.0625rem/1.1 ${({ theme }) => theme.font.display};
  }
`;

/** The side that cannot be missed: word, place, mark and colour. */
export function WhichSide(props: { side: Side; rung: Rung }) {
  return (
    <SideBlock className="side" $side={props.side}>
      {props.side !== "both" && <>{say("capture.client-s")}</>}
      <strong>
        {props.side === "left" && `${sideArrow("left")} `}
        {props.side !== "both"
          ? props.side.toUpperCase()
          : props.rung.sides === "both"
            ? say("capture.both-sides")
            : say("capture.no-side-2")}
        {props.side === "right" && ` ${sideArrow("right")}`}
      </strong>
      {props.rung.sides === "none" ? say("capture.the-whole-trunk") : props.rung.sideMeans}
    </SideBlock>
  );
}
