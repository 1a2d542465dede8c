import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { keys } from "../api/queries";
import type { CheckIn, Library, VisitView } from "../api/types";
import { smallLibrary } from "../given/library";
import { answering, Refusal } from "../given/server";
import { quietQueries, show } from "../given/show";
import { say } from "../words/say";
import { CheckInForm, notAsked, openQuestions, type Asked } from "./CheckInForm";

const library = {
  ...smallLibrary,
  dangerSigns: [
    { id: "night", words: "Unexplained night pain", laterVisits: false },
    { id: "saddle", words: "Numb between the legs", laterVisits: true, emergency: true },
  ],
} as unknown as Library;

const visit = (checkIn: CheckIn | null = null): VisitView =>
  ({ id: "v2", number: 2, version: 3, checkIn }) as VisitView;

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

function open(checkIn: CheckIn | null = null, answers: Parameters<typeof answering>[0] = {}) {
  const server = answering({ "PUT /api/visits/{visitId}/check-in": () => visit(), ...answers });
  const queries = quietQueries();
  queries.setQueryData(keys.library, library);
  const onDone = vi.fn();
  show(
    <CheckInForm episodeId="e1" visit={visit(checkIn)} lastPain={4} noTrainingFrom={8} onDone={onDone} />,
    queries,
  );
  return { server, onDone, sent: () => server.bodies("PUT /api/visits/{visitId}/check-in") as Sent[] };
}

interface Sent {
  checkIn: CheckIn;
  version: number;
}

const press = (name: string) => fireEvent.click(screen.getByRole("button", { name }));
const tick = (name: string | RegExp) => fireEvent.click(screen.getByRole("checkbox", { name }));
const noFlags = () => tick(say("frame.asked-none-of-these"));
const begin = () => screen.getByRole("button", { name: say("visits.begin-the-session") });
const questions = () => fireEvent.click(screen.getByRole("tab", { name: say("visits.step-questions") }));
const scale = (label: RegExp) => within(screen.getByRole("radiogroup", { name: label }));

describe("the questions of a later visit", () => {
  it("does not begin before somebody has asked for red flags", () => {
    open();
    expect(begin()).toHaveProperty("disabled", true);
    noFlags();
    expect(begin()).toHaveProperty("disabled", false);
    noFlags();
    expect(begin()).toHaveProperty("disabled", true);
  });

  it("keeps what nobody asked as not asked", async () => {
    const { sent, onDone } = open();
    noFlags();
    press(say("visits.begin-the-session"));
    await waitFor(() => expect(onDone).toHaveBeenCalled());
    const [{ checkIn, version }] = sent() as [Sent];
    expect(version).toBe(3);
    expect(checkIn).toMatchObject({
      painNow: null,
      usualPain: null,
      nextDayPain: null,
      settled: null,
      leg: null,
    });
    expect(checkIn).toMatchObject({ flagsAsked: true, dangerSigns: [], wakesAtNight: null, home: null });
  });

  it("sends what was answered, and a leg that was not asked about stays so beside the other", async () => {
    const { sent } = open();
    noFlags();
    questions();
    fireEvent.click(scale(/Pain now/).getByRole("radio", { name: "6" }));
    fireEvent.click(scale(/left leg/i).getByRole("radio", { name: say("visits.thigh") }));
    fireEvent.click(screen.getByRole("radio", { name: say("visits.it-wakes-the-client") }));
    press(say("visits.begin-the-session"));
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]!.checkIn).toMatchObject({
      painNow: 6,
      wakesAtNight: true,
      leg: { left: "thigh", right: null },
    });
  });

  it("records a red flag at once, whatever else is still open", async () => {
    const { server, sent } = open(null, { "POST /api/episodes/{id}/danger-reports": () => ({}) });
    tick(/Numb between the legs/);
    expect(screen.queryByRole("button", { name: say("visits.begin-the-session") })).toBeNull();
    press(say("visits.record-the-red-flag-and"));
    await waitFor(() =>
      expect(server.bodies("POST /api/episodes/{id}/danger-reports")).toEqual([{ dangerSigns: ["saddle"] }]),
    );
    expect(sent()).toEqual([]);
  });

  it("a flag that is taken back leaves the question open again", () => {
    open();
    tick(/Numb between the legs/);
    tick(/Numb between the legs/);
    expect(begin()).toHaveProperty("disabled", true);
  });

  it("says no training today from 8 on", () => {
    open();
    questions();
    const grave = say("visits.pain-painnow-no-training-today", { painNow: 8 });
    fireEvent.click(scale(/Pain now/).getByRole("radio", { name: "7" }));
    expect(screen.queryByText(grave)).toBeNull();
    fireEvent.click(scale(/Pain now/).getByRole("radio", { name: "8" }));
    expect(screen.getByText(grave)).toBeTruthy();
  });

  it("names what the server refuses at its field and keeps the answers", async () => {
    const { onDone } = open(null, {
      "PUT /api/visits/{visitId}/check-in": () =>
        new Refusal(422, {
          title: "Please check the marked fields; nothing was stored.",
          errors: [{ field: "checkIn.painNow", message: "Pain is from 0 to 10." }],
        }),
    });
    noFlags();
    questions();
    fireEvent.click(scale(/Pain now/).getByRole("radio", { name: "6" }));
    press(say("visits.begin-the-session"));
    await waitFor(() => expect(screen.getByText("Pain is from 0 to 10.")).toBeTruthy());
    expect(onDone).not.toHaveBeenCalled();
    expect(scale(/Pain now/).getByRole("radio", { name: "6" })).toHaveProperty("checked", true);
  });
});

describe("a check-in that was sent", () => {
  const sentBefore = {
    painNow: 5,
    usualPain: 4,
    nextDayPain: null,
    settledHours: null,
    dangerSigns: ["night"],
    settled: "same-day",
  } as unknown as CheckIn;

  it("comes filled in, and what an older version did not ask is not asked", async () => {
    const { sent } = open(sentBefore);
    fireEvent.click(screen.getByRole("tab", { name: say("visits.step-flags") }));
    noFlags();
    questions();
    expect(scale(/Pain now/).getByRole("radio", { name: "5" })).toHaveProperty("checked", true);
    fireEvent.click(scale(/Pain now/).getByRole("radio", { name: "3" }));
    press(say("visits.store-what-was-put-right"));
    await waitFor(() => expect(sent()).toHaveLength(1));
    // The flags that were told then are still told.
    expect(sent()[0]!.checkIn).toMatchObject({
      painNow: 3,
      usualPain: 4,
      home: null,
      dangerSigns: ["night"],
    });
  });

  it("can be left as it was", () => {
    const { sent, onDone } = open(sentBefore);
    press(say("visits.leave-it-as-it-was"));
    expect(onDone).toHaveBeenCalled();
    expect(sent()).toEqual([]);
  });
});

describe("what is still open", () => {
  const all: Asked = {
    ...notAsked,
    painNow: 0,
    usualPain: 0,
    nextDayPain: 0,
    settled: "not-raised",
    wakesAtNight: false,
    leg: { left: "none", right: "none" },
    home: "done",
  };

  it("is everything at first and nothing when all was answered, with 0 and no as answers", () => {
    expect(openQuestions(notAsked)).toHaveLength(8);
    expect(openQuestions(all)).toEqual([]);
  });

  it("is the leg that was not asked about", () =>
    expect(openQuestions({ ...all, leg: { left: "none", right: null } })).toEqual([
      say("visits.the-right-leg"),
    ]));
});
