import { QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { ThemeProvider } from "styled-components";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { HeldAnswer, HeldStatus } from "../capture/heldAnswers";
import type { Outbox, OutboxStatus } from "../capture/outbox";
import { OutboxContext } from "../capture/OutboxContext";
import { TabletContext, type Tablet } from "../capture/TabletContext";
import { answering } from "../given/server";
import { askingQueries, quietQueries, stored } from "../given/show";
import { tokens } from "../theme/tokens";
import { say } from "../words/say";
import { SyncMark } from "./SyncMark";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

function at(change: Partial<OutboxStatus>, held: Partial<HeldStatus> = {}, queries = quietQueries()) {
  const status = { ...stored, ...change };
  const outbox = { subscribe: () => () => {}, getStatus: () => status } as unknown as Outbox;
  const answers: HeldStatus = { waiting: 0, refused: [], theirs: 0, offline: false, ...held };
  const tablet = { held: { subscribe: () => () => {}, getStatus: () => answers } } as unknown as Tablet;
  render(
    <ThemeProvider theme={tokens}>
      <QueryClientProvider client={queries}>
        <OutboxContext value={outbox}>
          <TabletContext value={tablet}>
            <SyncMark />
          </TabletContext>
        </OutboxContext>
      </QueryClientProvider>
    </ThemeProvider>,
  );
}

describe("what is stored", () => {
  it.each([
    [{}, say("frame.all-stored")],
    [{ queued: 3 }, say("frame.queued-on-the-way", { queued: 3 })],
    [{ queued: 3, offline: true }, say("frame.queued-kept-here-server-away", { queued: 3 })],
    [{ queued: 3, signedOut: true }, say("frame.queued-kept-here-sign-in", { queued: 3 })],
    // Never that something is on the tablet which is not.
    [{ queued: 3, offline: true, inMemory: 2 }, say("frame.in-memory", { n: 2 })],
    [{ queued: 3, signedOut: true, inMemory: 1, lasting: false }, say("frame.in-memory", { n: 1 })],
    [{ lasting: false }, say("frame.not-lasting")],
  ])("%j", (status, words) => {
    at(status);
    expect(screen.getByRole("status").textContent).toBe(words);
  });

  it("counts answers that wait, and what somebody else tapped", () => {
    at({ queued: 2, offline: true }, { waiting: 1 });
    expect(screen.getByRole("status").textContent).toBe(
      say("frame.queued-kept-here-server-away", { queued: 3 }),
    );
    cleanup();
    at({ theirs: 4 }, { theirs: 1 });
    expect(screen.getByRole("status").textContent).toBe(say("frame.theirs-on-the-way", { theirs: 4 }));
    cleanup();
    at({}, { theirs: 1 });
    expect(screen.getByRole("status").textContent).toBe(say("frame.theirs-wait", { theirs: 1 }));
  });

  it("does not say that all is stored where the server was asked and is away", async () => {
    answering({
      "GET /api/start": () => {
        throw new TypeError("Failed to fetch");
      },
    });
    at({}, {}, askingQueries());
    await waitFor(() => expect(screen.getByRole("status").textContent).toBe(say("frame.server-away")));
  });

  it("shows why an answer was not taken, and lets go of it only when told to", async () => {
    at({}, { refused: [{ answer: {} as HeldAnswer, why: "Somebody else has answered meanwhile." }] });
    fireEvent.click(screen.getByRole("button"));
    expect((await screen.findByRole("dialog")).textContent).toContain(
      "Somebody else has answered meanwhile.",
    );
  });

  it("says what it means to whoever presses it", async () => {
    at({ queued: 1, inMemory: 1 });
    fireEvent.click(screen.getByRole("button"));
    expect((await screen.findByRole("dialog")).textContent).toBe(say("frame.in-memory-means"));
  });
});
