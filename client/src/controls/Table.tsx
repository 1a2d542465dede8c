import type { ReactNode } from "react";
import styled from "styled-components";

const Scroller = styled.div`
  overflow-x: auto;
`;

/** A table wider than the page is moved, by finger or arrow keys; the page is not. */
export const Wide = (props: { label: string; children: ReactNode }) => (
  <Scroller role="region" aria-label={props.label} tabIndex={0}>
    {props.children}
  </Scroller>
);

/** A table of lines: words to the left, a rule under each. */
export const Table = styled.table`
  width: 100%;
  th,
  td {
    padding: ${({ theme }) => theme.space(2)} ${({ theme }) => theme.space(3)}
      ${({ theme }) => theme.space(2)} 0;
    border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
    text-align: start;
    vertical-align: top;
  }
`;
