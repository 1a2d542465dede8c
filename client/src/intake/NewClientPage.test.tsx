import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { keys } from "../api/queries";
import type { Library } from "../api/types";
import { smallLibrary } from "../given/library";
import { answering, Refusal } from "../given/server";
import { quietQueries, show } from "../given/show";
import { say } from "../words/say";
import { emptyDraft, missing, toForm, type Draft } from "./IntakeFields";
import { stepOf } from "./IntakeSteps";
import { NewClientPage } from "./NewClientPage";

const library = {
  ...smallLibrary,
  dangerSigns: [
    { id: "night", words: "Night pain", laterVisits: false },
    { id: "new-leg", words: "Leg weaker than last time", laterVisits: true },
  ],
  policies: [{ id: "balanced", name: "Balanced", why: "A bit of all." }],
  goals: [{ id: "lift", name: "Lift", such: "boxes" }],
  equipment: [
    { id: "mat", name: "Mat", common: true },
    { id: "band", name: "Elastic", common: false },
  ],
  precautions: [],
} as unknown as Library;

const whole: Draft = {
  ...emptyDraft("balanced"),
  name: "Maris Telleke",
  birthDate: "1980-02-29",
  complaint: "Low back, sitting",
  pain: { now: 3, worst: 6, usual: 4 },
  settleHours: 6,
  flagsAsked: true,
};

/** Of whoever is signed in. */
const draftKey = "new-client Ines Arroyo";

describe("what is still missing", () => {
  it("is nothing where all was answered, and 0 is an answer", () => {
    expect(missing(whole)).toBeNull();
    expect(missing({ ...whole, pain: { now: 0, worst: 0, usual: 0 }, settleHours: 0 })).toBeNull();
  });

  it.each([
    [{ name: "  " }, say("intake.the-name")],
    [{ birthDate: "" }, say("intake.the-birth-date")],
    [{ complaint: " " }, say("intake.the-main-complaint")],
    [{ pain: { ...whole.pain, now: null } }, say("intake.the-pain-now")],
    [{ pain: { ...whole.pain, worst: null } }, say("intake.the-worst-pain")],
    [{ pain: { ...whole.pain, usual: null } }, say("intake.the-usual-pain")],
    [{ settleHours: null }, say("intake.how-long-it-stays-stirred")],
    [{ flagsAsked: null }, say("intake.the-red-flags")],
  ] as [Partial<Draft>, string][])("%o: %s", (change, lacks) =>
    expect(missing({ ...whole, ...change })).toBe(lacks),
  );

  it("red flags are asked at the first visit; later the check-in asks them", () =>
    expect(missing({ ...whole, flagsAsked: null }, false)).toBeNull());

  it("a flag that is ticked is an answer", () =>
    expect(missing({ ...whole, flagsAsked: null, dangerSigns: ["night"] })).toBeNull());

  it("what is sent is what stands there", () =>
    expect(toForm(whole)).toMatchObject({ pain: { now: 3, worst: 6, usual: 4 }, settleHours: 6 }));
});

describe("a new client", () => {
  const at = { path: "/new", url: "/new" };
  beforeEach(() => sessionStorage.clear());
  afterEach(() => {
    cleanup();
    sessionStorage.clear();
    vi.restoreAllMocks();
  });

  function open(draft: Partial<Draft>, answer: () => unknown) {
    sessionStorage.setItem(draftKey, JSON.stringify({ ...whole, ...draft }));
    const server = answering({ "POST /api/clients": answer });
    const queries = quietQueries();
    queries.setQueryData(keys.library, library);
    queries.setQueryData(keys.start, { signedInAs: "Ines Arroyo", roles: ["practitioner"] });
    show(<NewClientPage />, queries, at);
    return () => server.bodies("POST /api/clients");
  }
  const step = (name: string) => fireEvent.click(screen.getByRole("tab", { name }));
  const button = () => screen.getByRole("button", { name: say("intake.open-the-episode") });

  it("cannot be opened before everything was asked, and says what is still to ask", () => {
    open({ complaint: "" }, () => ({}));
    expect(button()).toHaveProperty("disabled", true);
    expect(
      screen.getByText(say("intake.still-to-ask-lacks", { lacks: say("intake.the-main-complaint") })),
    ).toBeTruthy();
    step(say("intake.step-hurts"));
    fireEvent.change(screen.getByLabelText(say("intake.main-complaint")), { target: { value: "Low back" } });
    expect(button()).toHaveProperty("disabled", false);
  });

  it("is opened with what was filled in, and the half-written form is gone", async () => {
    const sent = open({}, () => ({ episodeId: "e1", visitId: "v1" }));
    fireEvent.click(button());
    await waitFor(() => expect(screen.getByText("elsewhere")).toBeTruthy());
    expect(sent()).toMatchObject([{ name: "Maris Telleke", policyId: "balanced", dangerSigns: [] }]);
    expect(sessionStorage.getItem(draftKey)).toBeNull();
  });

  it("keeps all that was typed when the server refuses, and says why at the field", async () => {
    open(
      {},
      () =>
        new Refusal(422, {
          title: "Please check the marked fields; nothing was stored.",
          errors: [{ field: "birthDate", message: "Nobody was born then." }],
        }),
    );
    step(say("intake.step-home"));
    fireEvent.click(button());
    await waitFor(() => expect(screen.getByText("Nobody was born then.")).toBeTruthy());
    expect(screen.getByLabelText(say("intake.name"))).toHaveProperty("value", "Maris Telleke");
    expect(JSON.parse(sessionStorage.getItem(draftKey)!)).toMatchObject({ name: "Maris Telleke" });
  });

  it("asks at the first visit only the flags of a first visit", () => {
    open({}, () => ({}));
    expect(screen.getByRole("checkbox", { name: /Night pain/ })).toBeTruthy();
    expect(screen.queryByRole("checkbox", { name: /Leg weaker/ })).toBeNull();
  });

  it("equipment that was not asked stays so; asked, it begins with what most have", async () => {
    const sent = open({}, () => ({ episodeId: "e1", visitId: "v1" }));
    step(say("intake.step-home"));
    fireEvent.click(screen.getByRole("radio", { name: say("intake.only-this") }));
    expect(screen.getByRole("checkbox", { name: "Mat" })).toHaveProperty("checked", true);
    fireEvent.click(screen.getByRole("checkbox", { name: "Elastic" }));
    fireEvent.click(button());
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]).toMatchObject({ equipment: ["mat", "band"] });
  });
});

describe("a field that is refused", () => {
  it.each([
    ["birthDate", "first"],
    ["dangerSigns[0]", "first"],
    ["pain.now", "hurts"],
    ["precautions[1].until", "hurts"],
    ["heightCm", "home"],
    ["away[0]", "home"],
  ])("%s stands in step %s", (field, step) => expect(stepOf(field)).toBe(step));
});
