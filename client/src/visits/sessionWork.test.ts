import { describe, expect, it } from "vitest";
import type { CaptureEvent, Library, SessionView } from "../api/types";
import { isDone, itemsOf, readyNow, setsOf } from "./sessionWork";
import type { LiveTrialState } from "../capture/liveTrial";

const library = {
  ladders: [{ rungs: [{ id: "D3", sides: "each", cues: ["Push the floor away"] }] }],
} as unknown as Library;

const dose = { reps: 5, sets: 2, hold: 0, fewer: 0, range: 1 };
const item = (id: string) => ({
  item: {
    id,
    rungId: "B5",
    doses: [
      { side: "left", dose },
      { side: "right", dose },
    ],
  },
  added: false,
  inPlaceOf: null,
  skipped: false,
  sides: [],
});
const session = {
  items: [item("a"), item("b")],
  sets: ["a", "b"].flatMap((itemId) =>
    ["left", "right"].flatMap((side) => [1, 2].map((set) => ({ itemId, side, set }))),
  ),
} as unknown as SessionView;

const event = (id: string, kind: CaptureEvent["kind"], fields: object): CaptureEvent =>
  ({ id, trialId: `t-${id}`, kind, at: "2026-03-02T09:00:00Z", ...fields }) as CaptureEvent;

describe("a session on a tablet that cannot reach the server", () => {
  it("leaves out what was skipped and takes it in again when that is undone", () => {
    const skip = event("1", "exercise-skipped", { planItemId: "a" });
    expect(setsOf(session, itemsOf(session, [skip], library)).map((s) => s.item.id)).toEqual(
      Array(4).fill("b"),
    );
    const undo = { ...event("2", "undone", { undoes: "1" }), trialId: skip.trialId };
    expect(setsOf(session, itemsOf(session, [skip, undo], library))).toHaveLength(8);
  });

  it("does what stands in for another after it, and what is added at the end", () => {
    const added = [
      event("1", "exercise-added", {
        planItemId: "x",
        rungId: "D3",
        target: { ...dose, sets: 1 },
        inPlaceOf: "a",
      }),
      event("2", "exercise-added", { planItemId: "y", rungId: "D3", target: { ...dose, sets: 1 } }),
    ];
    const items = itemsOf(session, added, library);
    expect(items.map((i) => i.item.id)).toEqual(["a", "x", "b", "y"]);
    expect(
      setsOf(session, items)
        .slice(-4)
        .map((s) => `${s.item.id} ${s.side}`),
    ).toEqual(["x left", "x right", "y left", "y right"]);
  });

  it("takes a set made easier on a rung without sides for the side it was asked on, not for the other", () => {
    const todo = setsOf(session, itemsOf(session, [], library))[0]!;
    const trial = {
      planItemId: "a",
      set: 1,
      side: "both",
      askedSide: "left",
      ended: "target-met",
    } as LiveTrialState;
    expect(isDone(todo, [trial])).toBe(true);
    expect(isDone(todo, [{ ...trial, ended: null }])).toBe(false);
    expect(isDone(todo, [{ ...trial, askedSide: "right" }])).toBe(false);
  });
});

describe("one up is offered", () => {
  const offer = { rungId: "B6", dose: { ...dose, sets: 1 }, evidence: [] };
  const ready = ["left", "right"].map((side) => ({ planItemId: "a", side, offer }));
  const withOffers = { ...session, ready } as unknown as SessionView;
  const sets = setsOf(withOffers, itemsOf(withOffers, [], library));
  let at = 0;
  const trial = (planItemId: string, askedSide: string, set: number, probe = false) =>
    ({
      planItemId,
      askedSide,
      side: askedSide,
      set,
      probe,
      variant: null,
      startedAt: at++,
      ended: "target-met",
    }) as unknown as LiveTrialState;
  const allOf = (id: string) =>
    ["left", "right"].flatMap((side) => [1, 2].map((set) => trial(id, side, set)));
  const none = { untried: [], asked: null, atTheEnd: false };
  const sidesOf = (trials: LiveTrialState[], how = none) =>
    readyNow(withOffers, sets, trials, how).map((r) => r.side);

  it("once every set of the exercise is done, and not before", () => {
    expect(sidesOf(allOf("a").slice(0, 3))).toEqual([]);
    expect(sidesOf(allOf("a"))).toEqual(["left", "right"]);
  });

  it("while it is warm: not after another exercise was begun, unless asked for or at the end", () => {
    const later = [...allOf("a"), trial("b", "left", 1)];
    expect(sidesOf(later)).toEqual([]);
    expect(sidesOf(later, { ...none, asked: "a" } as never)).toEqual(["left", "right"]);
    expect(sidesOf(later, { ...none, atTheEnd: true })).toEqual(["left", "right"]);
  });

  it("not for a side that was tried, nor where it was passed over, and a try is no set of the plan", () => {
    const tried = [...allOf("a"), trial("a", "left", 1, true)];
    expect(sidesOf(tried)).toEqual(["right"]);
    expect(sidesOf(allOf("a"), { ...none, untried: ["a"] } as never)).toEqual([]);
    const onlyTried = [...allOf("a").slice(1), trial("a", "left", 1, true)];
    expect(sidesOf(onlyTried)).toEqual([]);
  });
  it("of one exercise at a time: the other side of what was just tried first, then what was asked for", () => {
    const both = ["b", "a"].flatMap((planItemId) =>
      ["left", "right"].map((side) => ({ planItemId, side, offer })),
    );
    const twoReady = { ...session, ready: both } as unknown as SessionView;
    const shown = (trials: LiveTrialState[], asked: string | null = null) =>
      readyNow(twoReady, sets, trials, { untried: [], asked, atTheEnd: true }).map(
        (r) => `${r.planItemId} ${r.side}`,
      );
    const done = [...allOf("a"), ...allOf("b")];
    expect(shown(done)).toEqual(["b left", "b right"]);
    expect(shown(done, "a")).toEqual(["a left", "a right"]);
    expect(shown([...done, trial("a", "left", 1, true)])).toEqual(["a right"]);
    expect(shown([...done, trial("a", "left", 1, true)], "b")).toEqual(["a right"]);
  });
});
