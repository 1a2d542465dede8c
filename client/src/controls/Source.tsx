import styled from "styled-components";
import { say } from "../words/say";

const Details = styled.details`
  display: inline-block;
  color: ${({ theme }) => theme.colour.grey};
  font-size: 0.9375rem;
  summary {
    cursor: pointer;
    text-decoration: underline dotted;
    list-style: none;
  }
`;

/** Where a figure comes from, opened on request. */
export function Source(props: { text: string; memory: boolean }) {
  return (
    <Details>
      <summary>{say("controls.source")}</summary>
      {props.text}
      {props.memory ? say("controls.figures-from-memory") : ""}.
    </Details>
  );
}
