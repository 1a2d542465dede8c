import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Swap, SwapList } from "../api/types";
import { answering, Refusal } from "../given/server";
import { askingQueries, show } from "../given/show";
import { say } from "../words/say";
import { SwapDialog } from "./SwapDialog";

const swap = (change: Partial<Swap> = {}): Swap =>
  ({
    rungId: "B5",
    name: "Heel tap",
    ladderName: "Limb lowering",
    percentMore: 8,
    difference: ["on the side"],
    screened: true,
    ...change,
  }) as Swap;

const list = (change: Partial<SwapList> = {}): SwapList =>
  ({ direction: "front", newtonMetres: 21.4, near: true, swaps: [swap()], ...change }) as SwapList;

const swaps = "GET /api/episodes/{id}/plan/swaps/{rungId}";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

function open(answer: unknown) {
  answering({ [swaps]: () => answer, "GET /api/figures": () => [] });
  const onPick = vi.fn();
  show(<SwapDialog episodeId="e1" rungId="B1" onPick={onPick} />, askingQueries());
  fireEvent.click(screen.getByRole("button", { name: say("frame.swap") }));
  return onPick;
}

const dialog = () => screen.getByRole("dialog", { name: say("frame.swap-for-an-equal") });

describe("swapping an exercise for an equal", () => {
  it("tells how much more or less is asked, in words and sign", async () => {
    open(
      list({
        swaps: [
          swap(),
          swap({ rungId: "B2", name: "Slide", percentMore: -4 }),
          swap({ rungId: "B3", name: "Reach", percentMore: 0 }),
        ],
      }),
    );
    await waitFor(() => expect(within(dialog()).getByText("+8 %")).toBeTruthy());
    expect(within(dialog()).getByText("−4 %")).toBeTruthy();
    expect(within(dialog()).getByText("0 %")).toBeTruthy();
    expect(within(dialog()).getByText(/21/)).toBeTruthy();
  });

  it("warns of what was not screened", async () => {
    open(list({ swaps: [swap({ screened: false }), swap({ rungId: "B2", name: "Slide", difference: [] })] }));
    await waitFor(() =>
      expect(within(dialog()).getByText(`on the side · ${say("frame.not-screened-watch")}`)).toBeTruthy(),
    );
    expect(within(dialog()).getByText(say("frame.the-same-set-up"))).toBeTruthy();
  });

  it("takes the one that is pressed and closes", async () => {
    const onPick = open(list());
    await waitFor(() => expect(within(dialog()).getByText("Heel tap")).toBeTruthy());
    fireEvent.click(within(dialog()).getByRole("button", { name: /Heel tap/ }));
    expect(onPick).toHaveBeenCalledExactlyOnceWith("B5");
    expect(screen.queryByRole("dialog")).toBeNull();
  });

  it("says why there is nothing to swap for", async () => {
    open(list({ swaps: [] }));
    await waitFor(() =>
      expect(within(dialog()).getByText(say("frame.nothing-else-that-may-be"))).toBeTruthy(),
    );
    cleanup();
    open(list({ direction: "none", swaps: [] }));
    await waitFor(() =>
      expect(within(dialog()).getByText(say("frame.this-exercise-asks-for-no"))).toBeTruthy(),
    );
  });

  it("tells a refusal and changes nothing", async () => {
    const onPick = open(new Refusal(404, { title: "This episode is not here." }));
    await waitFor(() => expect(within(dialog()).getByText("This episode is not here.")).toBeTruthy());
    fireEvent.click(within(dialog()).getByRole("button", { name: say("frame.close") }));
    expect(onPick).not.toHaveBeenCalled();
  });
});
