import type { ReactNode } from "react";
import { ThemeProvider } from "styled-components";
import { GlobalStyle } from "./GlobalStyle";
import { tokens } from "./tokens";
import { useTokens } from "./chosenLook";

/** Everything inside in the look that was chosen. */
export function Look({ children }: { children: ReactNode }) {
  return (
    <ThemeProvider theme={useTokens()}>
      <GlobalStyle />
      {children}
    </ThemeProvider>
  );
}

/** What goes to a client or a colleague on paper is shown as paper. */
export const OnPaper = ({ children }: { children: ReactNode }) => (
  <ThemeProvider theme={tokens}>{children}</ThemeProvider>
);
