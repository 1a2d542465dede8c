import { Modal, ModalOverlay } from "react-aria-components";
import styled from "styled-components";

/** Nothing of a client shows through. */
export const Cover = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  display: grid;
  place-items: center;
  background: ${({ theme }) => theme.colour.ink};
  z-index: 30;
  overflow: auto;
`;

export const Pane = styled(Modal)`
  width: min(480px, 94vw);
  padding: ${({ theme }) => theme.space(6)};
  background: ${({ theme }) => theme.colour.paper};
`;
