import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { keys } from "../api/queries";
import type { ChangedDecision, Decision, PlanItem } from "../api/types";
import { outcomeWords } from "../controls/words";
import { smallLibrary } from "../given/library";
import { quietQueries, show } from "../given/show";
import { say } from "../words/say";
import { DecisionRow } from "./DecisionRow";

const library = {
  ...smallLibrary,
  rules: { "D-BUILD": "building up" },
  ladders: smallLibrary.ladders.map((ladder) => ({ ...ladder, direction: "none" })),
} as unknown as typeof smallLibrary;

const dose = (reps: number) => ({ reps, sets: 2, hold: 0, range: 1, fewer: 0 });

const item = {
  id: "i1",
  rungId: "B1",
  doses: [
    { side: "left", dose: dose(5), range: 1 },
    { side: "right", dose: dose(5), range: 1 },
  ],
} as unknown as PlanItem;

const decision = (change: object): Decision =>
  ({
    planItemId: "i1",
    side: "left",
    ruleId: "D-BUILD",
    outcome: "add",
    rungId: "B1",
    dose: dose(6),
    evidence: ["All reps clean."],
    rules: ["D-BUILD"],
    fired: [],
    ...change,
  }) as unknown as Decision;

afterEach(cleanup);

type Props = Parameters<typeof DecisionRow>[0];

function row(change: Partial<Props> = {}) {
  const onOverride = vi.fn();
  const decisions = [decision({})];
  const queries = quietQueries();
  queries.setQueryData(keys.library, library);
  show(
    <DecisionRow
      item={item}
      decisions={decisions}
      chosen={decisions}
      library={library}
      performed={[]}
      home={[]}
      numbers={[]}
      changed={[]}
      visitId="v2"
      session="/session"
      override={null}
      onOverride={onOverride}
      {...change}
    />,
    queries,
  );
  return onOverride;
}

const press = (name: string) => fireEvent.click(screen.getByRole("button", { name }));

describe("one decision", () => {
  it("says what, why, and what it changes", () => {
    row();
    expect(screen.getByRole("region", { name: `Foot float: ${outcomeWords.add}` })).toBeTruthy();
    expect(screen.getByText(/All reps clean\./)).toBeTruthy();
    expect(screen.getByText(/2 sets of 5.*→ 2 sets of 6/)).toBeTruthy();
  });

  it("names the side where it is for one alone, and the rung it leads to", () => {
    row({ chosen: [decision({ outcome: "step-up", rungId: "B5", dose: dose(5) })] });
    expect(screen.getByRole("heading", { name: /Foot float → heel tap.*left/ })).toBeTruthy();
  });

  it("stopped work has no dose", () => {
    const stop = [decision({ outcome: "stop" })];
    row({ decisions: stop, chosen: stop });
    expect(screen.queryByText(/2 sets of/)).toBeNull();
  });

  it("says when the record would now decide otherwise, for its own side alone", () => {
    const changed = (side: string) =>
      ({
        then: decision({ side }),
        now: decision({ side, outcome: "ease", evidence: [`Pain on the ${side}.`] }),
      }) as unknown as ChangedDecision;
    row({ changed: [changed("left"), changed("right")] });
    expect(screen.getByText(/Pain on the left/)).toBeTruthy();
    expect(screen.queryByText(/Pain on the right/)).toBeNull();
  });
});

describe("another choice than the proposal", () => {
  const use = () => screen.getByRole("button", { name: say("progression.use-this-instead") });

  it("needs an outcome and a reason; the proposal itself is not among them", () => {
    const onOverride = row();
    press(say("progression.other"));
    expect(screen.queryByRole("radio", { name: outcomeWords.add })).toBeNull();
    expect(use()).toHaveProperty("disabled", true);
    fireEvent.click(screen.getByRole("radio", { name: outcomeWords.stay }));
    expect(use()).toHaveProperty("disabled", true);
    fireEvent.change(screen.getByLabelText(say("progression.why")), { target: { value: "  " } });
    expect(use()).toHaveProperty("disabled", true);
    fireEvent.change(screen.getByLabelText(say("progression.why")), { target: { value: " tired today " } });
    fireEvent.click(use());
    expect(onOverride).toHaveBeenCalledWith({ outcome: "stay", reason: "tired today" });
  });

  it("can be left before and taken back after", () => {
    const onOverride = row();
    press(say("progression.other"));
    press(say("progression.keep-the-proposal"));
    expect(onOverride).toHaveBeenLastCalledWith(null);
    cleanup();
    const again = row({ override: { outcome: "stay", reason: "tired today" } });
    press(say("progression.agree-instead"));
    expect(again).toHaveBeenLastCalledWith(null);
  });

  it("stands beside what the policy proposed, with its reason, and says when there is no such step", () => {
    const override = { outcome: "step-up" as const, reason: "wants it." };
    row({ override, chosen: [decision({ outcome: "step-up" })] });
    expect(screen.getByText(/wants it/)).toBeTruthy();
    expect(screen.queryByText(new RegExp(say("progression.there-is-no-such-step")))).toBeNull();
    cleanup();
    row({ override, chosen: [decision({ outcome: "add" })] });
    expect(screen.getByText(new RegExp(say("progression.there-is-no-such-step")))).toBeTruthy();
  });

  it("is not offered where the visit is decided, nor is one up", () => {
    const probe = { rungId: "B5", dose: dose(3), evidence: ["Clean twice."] };
    const ready = [decision({ probe })];
    row({ decisions: ready, chosen: ready });
    expect(screen.getByRole("link", { name: /heel tap/ }).getAttribute("href")).toBe("/session?try=i1");
    cleanup();
    row({ decisions: ready, chosen: ready, onOverride: null });
    expect(screen.queryByRole("link")).toBeNull();
    expect(screen.queryByRole("button", { name: say("progression.other") })).toBeNull();
  });
});
