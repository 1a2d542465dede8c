import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { ThemeProvider } from "styled-components";
import { tokens } from "../theme/tokens";

/** Renders a piece of the interface with its theme, an address, and queries that ask no server. */
export function show(element: ReactNode, queries = quietQueries()) {
  return {
    queries,
    ...render(
      <ThemeProvider theme={tokens}>
        <QueryClientProvider client={queries}>
          <MemoryRouter>{element}</MemoryRouter>
        </QueryClientProvider>
      </ThemeProvider>,
    ),
  };
}

export const quietQueries = () =>
  new QueryClient({ defaultOptions: { queries: { retry: false, enabled: false } } });
