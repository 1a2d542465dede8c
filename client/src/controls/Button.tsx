import { Button as AriaButton } from "react-aria-components";
import styled from "styled-components";

/** Ink on paper. Quiet is outlined; big is for live screens. */
export const Button = styled(AriaButton)<{ $quiet?: boolean; $big?: boolean; $small?: boolean }>`
  min-height: ${({ theme, $small }) => ($small ? "40px" : theme.target)};
  padding: 0 ${({ theme, $small }) => theme.space($small ? 3 : 5)};
  border: 2px solid ${({ theme }) => theme.colour.ink};
  border-radius: ${({ theme }) => theme.radius};
  background: ${({ theme, $quiet }) => ($quiet ? theme.colour.sheet : theme.colour.ink)};
  color: ${({ theme, $quiet }) => ($quiet ? theme.colour.ink : theme.colour.sheet)};
  font: ${({ $big, $small }) => ($big ? "700 1.375rem" : $small ? "500 0.9375rem" : "500 1.0625rem")} / 1.15
    ${({ theme }) => theme.font.text};
  cursor: pointer;
  touch-action: manipulation;
  &[data-hovered] {
    background: ${({ theme, $quiet }) => ($quiet ? theme.colour.wash : theme.colour.slate)};
  }
  &[data-pressed] {
    transform: translateY(1px);
  }
  &[data-disabled] {
    border-color: ${({ theme }) => theme.colour.sand};
    background: ${({ theme }) => theme.colour.wash};
    color: ${({ theme }) => theme.colour.grey};
    cursor: default;
  }
`;
