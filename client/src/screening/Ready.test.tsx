import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { EpisodeView, ScreenStep, Side } from "../api/types";
import { smallLibrary } from "../given/library";
import { show } from "../given/show";
import { Ready } from "./Ready";

afterEach(cleanup);

const episode = {
  neutral: { strategy: null, switchOn: null, proposal: { strategy: "neutral", switchOn: "brace" } },
} as unknown as EpisodeView;

const step = (over: Partial<ScreenStep>): ScreenStep => ({
  taskId: "leg-lowering",
  rungId: "B5",
  side: "left",
  variant: null,
  load: null,
  target: { reps: 5, sets: 1, hold: 0, fewer: 0, range: 1 },
  why: "Start here.",
  ...over,
});

function ready(over: Partial<ScreenStep>, more: { lastSide?: Side; cautions?: string[]; leg?: number } = {}) {
  const onStart = vi.fn();
  show(
    <Ready
      step={step(over)}
      picked={false}
      lastSide={more.lastSide ?? null}
      cautions={more.cautions ?? []}
      legLength={more.leg ?? null}
      episode={episode}
      library={smallLibrary}
      onStart={onStart}
      onBack={() => {}}
    />,
  );
  return onStart;
}

const press = (name: string | RegExp) => fireEvent.click(screen.getByRole("button", { name }));

describe("the next step", () => {
  it("says in a banner when the side changes, and not when it stays", () => {
    ready({ side: "right" }, { lastSide: "left" });
    expect(screen.getByRole("status").textContent).toContain("now RIGHT");
    cleanup();
    ready({ side: "right" }, { lastSide: "right" });
    expect(screen.queryByRole("status")).toBeNull();
    cleanup();
    ready({ side: "right" }, { lastSide: "both" });
    expect(screen.queryByRole("status")).toBeNull();
  });

  it("shows what to mind before it starts", () => {
    ready({}, { cautions: ["fragile bone: soft surface"] });
    expect(screen.getByRole("note").textContent).toContain("fragile bone: soft surface");
  });

  it("starts with the load that was chosen", () => {
    const onStart = ready({ taskId: "loaded-hinge", rungId: "N1", side: "both", load: 0 });
    fireEvent.click(screen.getByRole("radio", { name: "10 kg" }));
    press("Start");
    expect(onStart).toHaveBeenCalledWith({ step: expect.objectContaining({ load: 10 }), legLength: null });
  });

  it("starts a reach with the leg length that is known", () => {
    const onStart = ready({ taskId: "reaches", rungId: "N1", variant: "front" }, { leg: 91 });
    expect(screen.getByRole("heading", { level: 1 }).textContent).toContain("Five reaches, to the front");
    press("Start, left");
    expect(onStart).toHaveBeenCalledWith(expect.objectContaining({ legLength: 91 }));
  });
});
