import styled from "styled-components";

/** A table wider than the page is moved, the page is not. */
export const Wide = styled.div`
  overflow-x: auto;
`;

/** A table of lines: words to the left, a rule under each. */
export const Table = styled.table`
  width: 100%;
  th,
  td {
    padding: ${({ theme }) => theme.space(2)} ${({ theme }) => theme.space(3)}
      ${({ theme }) => theme.space(2)} 0;
    border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
    text-align: left;
    vertical-align: top;
  }
`;
