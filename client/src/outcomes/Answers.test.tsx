import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Library, OutcomesView } from "../api/types";
import { smallLibrary } from "../given/library";
import { answering, Refusal } from "../given/server";
import { show } from "../given/show";
import { say } from "../words/say";
import { Answers } from "./Answers";

const library = {
  ...smallLibrary,
  outcomes: [
    { id: "disability-24", name: "Back disability, 24 questions", min: 0, max: 24 },
    { id: "disability-10", name: "Back disability, 10 questions", min: 0, max: 100 },
    { id: "pain-usual", name: "Usual pain", min: 0, max: 10 },
  ],
} as unknown as Library;

const asked = (change: Partial<OutcomesView> = {}): OutcomesView =>
  ({ answers: null, named: [], disabilityMeasure: null, answersVersion: 2, ...change }) as OutcomesView;

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

function open(view: OutcomesView, answer: () => unknown = () => view) {
  const server = answering({ "PUT /api/visits/{visitId}/answers": answer });
  show(<Answers visitId="v2" view={view} library={library} />);
  const keep = () => fireEvent.click(screen.getByRole("button", { name: say("outcomes.keep-the-answers") }));
  return { keep, sent: () => server.bodies("PUT /api/visits/{visitId}/answers") };
}

const scaleOf = (name: string) =>
  within(screen.getByRole("radiogroup", { name: say("outcomes.s-0-cannot-10-as", { s: name }) }));

const add = (name: string) => {
  fireEvent.change(screen.getByLabelText(say("outcomes.another-activity")), { target: { value: name } });
  fireEvent.click(screen.getByRole("button", { name: say("outcomes.add") }));
};

describe("the answers of a visit", () => {
  it("asks again for the activities that were named before, none of them answered yet", async () => {
    const { keep, sent } = open(asked({ named: ["Tie shoes", "Sit an hour"] }));
    fireEvent.click(scaleOf("Tie shoes").getByRole("radio", { name: "6" }));
    keep();
    await waitFor(() => expect(screen.getByText(say("outcomes.kept"))).toBeTruthy());
    // What was not asked is not sent as 0.
    expect(sent()).toEqual([
      { answers: { activities: [{ name: "Tie shoes", value: 6 }], disability: null }, version: 2 },
    ]);
  });

  it("takes five activities at most, each once and without blanks around it", () => {
    open(asked());
    add("  Lift the child ");
    expect(scaleOf("Lift the child")).toBeTruthy();
    fireEvent.change(screen.getByLabelText(say("outcomes.another-activity")), {
      target: { value: "Lift the child" },
    });
    expect(screen.getByRole("button", { name: say("outcomes.add") })).toHaveProperty("disabled", true);
    ["Tie shoes", "Sit", "Sleep", "Garden"].forEach(add);
    expect(screen.queryByLabelText(say("outcomes.another-activity"))).toBeNull();
  });

  it("a total belongs to its questionnaire: another one begins empty", async () => {
    const { keep, sent } = open(
      asked({
        answers: { activities: [], disability: { measureId: "disability-24", total: 11 } },
      } as Partial<OutcomesView>),
    );
    const total = (max: number) =>
      screen.getByRole("textbox", { name: say("outcomes.total-min-to-max", { min: 0, max }) });
    expect(total(24)).toHaveProperty("value", "11");
    fireEvent.click(screen.getByRole("radio", { name: "10 questions" }));
    expect(total(100)).toHaveProperty("value", "");
    keep();
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]).toMatchObject({ answers: { disability: null } });
  });

  it("offers only questionnaires of disability", () => {
    open(asked());
    expect(screen.queryByRole("radio", { name: /Usual pain/ })).toBeNull();
  });

  it("says at which activity the server finds something wrong", async () => {
    const { keep } = open(
      asked({ named: ["Tie shoes", "Sit"] }),
      () =>
        new Refusal(422, {
          title: "Please check the marked fields; nothing was stored.",
          errors: [{ field: "answers.activities[1].value", message: "From 0 to 10." }],
        }),
    );
    keep();
    await waitFor(() => expect(screen.getByText("From 0 to 10.")).toBeTruthy());
    expect(screen.queryByText(say("outcomes.kept"))).toBeNull();
    expect(scaleOf("Sit")).toBeTruthy();
  });
});
