import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ReactNode } from "react";
import { MemoryRouter, Route, Routes } from "react-router";
import { ThemeProvider } from "styled-components";
import type { Outbox, OutboxStatus } from "../capture/outbox";
import { OutboxContext } from "../capture/OutboxContext";
import { TabletContext, type Tablet } from "../capture/TabletContext";
import { tokens } from "../theme/tokens";

/** Everything that was tapped has been stored. */
export const stored: OutboxStatus = {
  queued: 0,
  refused: [],
  offline: false,
  signedOut: false,
  inMemory: 0,
  lasting: true,
  theirs: 0,
};

const quietOutbox = {
  subscribe: () => () => {},
  getStatus: () => stored,
  forget: () => {},
} as unknown as Outbox;

const nothingHeld = { waiting: 0, refused: [], theirs: 0, offline: false };

/** A browser that locks nothing up. */
const plainTablet = {
  keys: { works: false, who: null, opensAlone: () => false, opened: () => new Promise(() => {}) },
  days: {},
  held: {
    subscribe: () => () => {},
    getStatus: () => nothingHeld,
    waiting: () => [],
    hold: () => Promise.reject(new Error("This tablet cannot keep it.")),
  },
} as unknown as Tablet;

/**
 * Renders a piece of the interface with its theme, an address, and queries that ask no server.
 * @param at the address and its pattern, for pieces that read it
 */
export function show(
  element: ReactNode,
  queries = quietQueries(),
  at = { path: "*", url: "/" },
  tablet = plainTablet,
) {
  return {
    queries,
    ...render(
      <ThemeProvider theme={tokens}>
        <QueryClientProvider client={queries}>
          <OutboxContext value={quietOutbox}>
            <TabletContext value={tablet}>
              <MemoryRouter initialEntries={[at.url]}>
                <Routes>
                  <Route path={at.path} element={element} />
                  <Route path="*" element={<p>elsewhere</p>} />
                </Routes>
              </MemoryRouter>
            </TabletContext>
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
