import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ReactNode } from "react";
import { MemoryRouter, Route, Routes } from "react-router";
import { ThemeProvider } from "styled-components";
import type { Outbox } from "../capture/outbox";
import { OutboxContext } from "../capture/OutboxContext";
import { tokens } from "../theme/tokens";

const stored = { queued: 0, refused: [], offline: false, signedOut: false };

/** Everything that was tapped has been stored. */
const quietOutbox = {
  subscribe: () => () => {},
  getStatus: () => stored,
  forget: () => {},
} as unknown as Outbox;

/**
 * Renders a piece of the interface with its theme, an address, and queries that ask no server.
 * @param at the address and its pattern, for pieces that read it
 */
export function show(element: ReactNode, queries = quietQueries(), at = { path: "*", url: "/" }) {
  return {
    queries,
    ...render(
      <ThemeProvider theme={tokens}>
        <QueryClientProvider client={queries}>
          <OutboxContext value={quietOutbox}>
            <MemoryRouter initialEntries={[at.url]}>
              <Routes>
                <Route path={at.path} element={element} />
                <Route path="*" element={<p>elsewhere</p>} />
              </Routes>
            </MemoryRouter>
          </OutboxContext>
        </QueryClientProvider>
      </ThemeProvider>,
    ),
  };
}

export const quietQueries = () =>
  new QueryClient({ defaultOptions: { queries: { retry: false, enabled: false } } });

/** Queries that ask the server given by `answering`, once. */
export const askingQueries = () =>
  new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: Infinity } } });
