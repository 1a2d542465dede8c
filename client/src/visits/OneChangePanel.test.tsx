import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { EaseOffer, SessionProbe } from "../api/types";
import { smallLibrary } from "../given/library";
import { quietQueries, show } from "../given/show";
import { say } from "../words/say";
import { EndPain } from "./EndPain";
import { OneChangePanel } from "./OneChangePanel";
import { ProbeCard } from "./ProbeCard";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const offer = (change: EaseOffer["change"], words: string) => ({ change, words }) as EaseOffer;

function stopped(change: Partial<Parameters<typeof OneChangePanel>[0]> = {}) {
  const told = { onPick: vi.fn(), onStop: vi.fn(), onGoOn: vi.fn() };
  show(
    <OneChangePanel
      trigger="faults"
      pain={{ before: null, peak: null }}
      first={offer("cue", "Ribs down")}
      others={[offer("lower-rung", "Heel tap")]}
      {...told}
      {...change}
    />,
  );
  return told;
}

describe("when a set is to be stopped", () => {
  it("one thing is changed with one tap, the first one being in hand", () => {
    const { onPick } = stopped();
    const first = screen.getByRole("button", { name: /Ribs down/ });
    expect(document.activeElement).toBe(first);
    fireEvent.click(first);
    fireEvent.click(screen.getByRole("button", { name: /Heel tap/ }));
    expect(onPick.mock.calls.map(([picked]) => picked.change)).toEqual(["cue", "lower-rung"]);
  });

  it("words to say stand in quotes, what to do does not", () => {
    stopped();
    expect(screen.getByText("“Ribs down”")).toBeTruthy();
    expect(screen.getByText("Heel tap")).toBeTruthy();
  });

  it.each([
    [{ before: 2, peak: 5 }, say("visits.pain-rose-from-before-to", { before: 2, peak: 5 })],
    [{ before: null, peak: 5 }, say("visits.pain-over-the-limit")],
    [{ before: 2, peak: null }, say("visits.pain-over-the-limit")],
    // Over a fixed limit without a rise.
    [{ before: 6, peak: 6 }, say("visits.pain-over-the-limit")],
  ])("for pain %o it says %s", (pain, title) => {
    stopped({ trigger: "pain", pain });
    expect(screen.getByRole("alertdialog", { name: title })).toBeTruthy();
  });

  it("when everything was tried there is still a way to stop and one to go on", () => {
    const { onStop, onGoOn } = stopped({ first: null, others: [], trigger: "pain" });
    expect(screen.getByText(say("visits.everything-on-the-list-was"))).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: say("visits.stop-this-set") }));
    fireEvent.click(screen.getByRole("button", { name: say("visits.go-on-as-it-is") }));
    expect([onStop.mock.calls.length, onGoOn.mock.calls.length]).toEqual([1, 1]);
  });
});

const probe = (side: "left" | "right" | "both", dose: object, rungId = "B5"): SessionProbe =>
  ({
    planItemId: "i1",
    side,
    offer: {
      rungId,
      dose: { reps: 3, sets: 1, hold: 0, range: 1, ...dose },
      evidence: ["Clean twice."],
      changes: [],
    },
  }) as unknown as SessionProbe;

describe("one up", () => {
  function offered(offers: SessionProbe[], planned = "B1") {
    const record = vi.fn();
    const onPass = vi.fn();
    show(
      <ProbeCard offers={offers} planned={planned} library={smallLibrary} record={record} onPass={onPass} />,
      quietQueries(),
    );
    return { record, onPass };
  }

  it("starts a trial that is marked as one, on the side that was pressed", () => {
    const { record } = offered([probe("left", {}), probe("right", {})]);
    fireEvent.click(screen.getAllByRole("button", { name: /right/ })[0]!);
    const [, kind, fields] = record.mock.calls[0]!;
    expect(kind).toBe("trial-started");
    expect(fields).toMatchObject({
      rungId: "B5",
      side: "right",
      purpose: "session",
      planItemId: "i1",
      probe: true,
    });
    expect(fields).toMatchObject({ set: 1, share: undefined, load: undefined });
  });

  it("tells the share of the movement and the load only where the dose has them", () => {
    const { record } = offered([probe("both", { range: 0.6, load: 4 })]);
    fireEvent.click(screen.getAllByRole("button")[0]!);
    expect(record.mock.calls[0]![2]).toMatchObject({ share: 0.6, load: 4 });
  });

  it("can be passed over, and is not there where nothing is offered", () => {
    const { onPass, record } = offered([probe("left", {})]);
    fireEvent.click(screen.getByRole("button", { name: say("visits.not-today") }));
    expect(onPass).toHaveBeenCalled();
    expect(record).not.toHaveBeenCalled();
    cleanup();
    offered([]);
    expect(screen.queryByRole("button")).toBeNull();
  });
});

describe("pain at the end", () => {
  const asked = (since: number | null) => {
    const record = vi.fn();
    vi.spyOn(Date, "now").mockReturnValue(10_000_000);
    show(<EndPain asked={null} since={since} record={record} />);
    fireEvent.click(screen.getByRole("radio", { name: "7" }));
    return record.mock.calls[0]![2] as { value: number; minutes: number };
  };

  it("is told with the minutes since the last set", () =>
    expect(asked(10_000_000 - 12 * 60_000)).toEqual({ value: 7, minutes: 12 }));

  it("is never before it, nor longer after than an afternoon", () => {
    expect(asked(10_000_000 + 60_000).minutes).toBe(0);
    cleanup();
    expect(asked(10_000_000 - 99 * 3_600_000).minutes).toBe(240);
    cleanup();
    expect(asked(null).minutes).toBe(0);
  });
});
