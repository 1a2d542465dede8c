import { Button as AriaButton } from "react-aria-components";
import styled from "styled-components";

export const Table = styled.table`
  width: 100%;
  td,
  th {
    padding: 7px 10px 7px 0;
    border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
    text-align: start;
    vertical-align: middle;
    font-size: 0.9375rem;
    font-variant-numeric: tabular-nums;
  }
`;

/** A word that opens to what stands behind it. */
export const Opener = styled(AriaButton)`
  min-height: 44px;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  font-weight: 600;
  text-align: start;
  cursor: pointer;
  padding: 0;
  &::before {
    content: "▸ " / "";
  }
  &[aria-expanded="true"]::before {
    content: "▾ " / "";
  }
`;
