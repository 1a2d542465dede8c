import { Modal, ModalOverlay } from "react-aria-components";
import styled from "styled-components";

/** What lies behind a sheet: the page, darkened. */
export const Veil = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  display: grid;
  place-items: center;
  background: rgb(36 50 58 / 0.55);
  z-index: 10;
`;

export const Sheet = styled(Modal)<{ $wide?: boolean }>`
  width: min(${({ $wide }) => ($wide ? "880px" : "560px")}, 96vw);
  max-height: 92vh;
  overflow: auto;
  padding: ${({ theme }) => theme.space(6)};
  background: ${({ theme }) => theme.colour.paper};
`;
