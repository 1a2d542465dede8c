import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { keys } from "../api/queries";
import type { EpisodeView, Library } from "../api/types";
import { smallLibrary } from "../given/library";
import { quietQueries, show } from "../given/show";
import { say } from "../words/say";
import { AsItStands } from "./AsItStands";
import { emptyDraft, type Draft } from "./IntakeFields";

const library = {
  ...smallLibrary,
  policies: [{ id: "balanced", name: "Balanced", why: "A bit of all." }],
  goals: [{ id: "lift", name: "Lift and carry", such: "boxes" }],
  equipment: [{ id: "mat", name: "mat or rug", common: true }],
} as unknown as Library;

const draft: Draft = {
  ...emptyDraft("balanced"),
  name: "Maris Telleke",
  birthDate: "1980-02-29",
  complaint: "Low back, sitting",
  pain: { now: 3, worst: 6, usual: null },
  settleHours: 6,
  goals: ["lift"],
  equipment: ["mat"],
};

function open(change: Partial<Draft> = {}) {
  const queries = quietQueries();
  queries.setQueryData(keys.library, library);
  const onChange = vi.fn();
  const episode = {
    id: "e1",
    tags: [{ id: "leg", words: "pain into the leg, right" }],
  } as unknown as EpisodeView;
  show(
    <AsItStands episode={episode} visitId="v2" draft={{ ...draft, ...change }} onChange={onChange} />,
    queries,
  );
  return onChange;
}

afterEach(cleanup);

describe("what was asked before", () => {
  it("stands there in words, and what was not asked is told as that", () => {
    open();
    expect(screen.getByText(/Low back, sitting/)).toBeTruthy();
    expect(screen.getByText(/Now 3, worst 6, usual not asked; settles the same day\./)).toBeTruthy();
    expect(screen.getByText("Pain into the leg, right")).toBeTruthy();
    expect(screen.getByText("Lift and carry")).toBeTruthy();
    expect(screen.getByText(/At hand: mat or rug\./)).toBeTruthy();
    expect(screen.getByText("Balanced")).toBeTruthy();
  });

  it("equipment that was not asked and goals that were not named are told", () => {
    open({ equipment: null, goals: [] });
    expect(screen.getByText(say("intake.equipment-open"))).toBeTruthy();
    expect(screen.getByText(say("intake.no-goals"))).toBeTruthy();
  });

  it.each([
    [say("intake.client"), "first"],
    [say("intake.precautions"), "hurts"],
    [say("intake.policy"), "home"],
  ])("%s is changed in its step", (what, step) => {
    const onChange = open();
    fireEvent.click(screen.getByRole("button", { name: say("intake.change-what", { what }) }));
    expect(onChange).toHaveBeenCalledWith(step);
  });
});
