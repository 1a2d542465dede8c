import { act, cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { keys } from "../api/queries";
import type { NoteText, NoteView } from "../api/types";
import { answering, Refusal } from "../given/server";
import { quietQueries, show } from "../given/show";
import { headingWords } from "../frame/fieldWords";
import { say } from "../words/say";
import { NotePage } from "./NotePage";

const text = (change: Partial<NoteText>): NoteText => ({
  headings: false,
  free: "",
  subjective: "",
  objective: "",
  assessment: "",
  plan: "",
  ...change,
});

const note = (change: Partial<NoteView>): NoteView => ({
  text: text({}),
  version: 0,
  writtenBy: null,
  writtenAt: null,
  signedBy: null,
  signedAt: null,
  ...change,
});

function open(stored: NoteView, put: (sent: { text: NoteText; version: number }) => unknown) {
  const server = answering({
    "PUT /api/visits/{visitId}/note": ({ body }) => put(body as { text: NoteText; version: number }),
  });
  const queries = quietQueries();
  queries.setQueryData(keys.start, { signedInAs: "Ines Arroyo", roles: ["practitioner"] });
  queries.setQueryData(keys.note("v1"), stored);
  queries.setQueryData(keys.notes("e1"), []);
  const at = { path: "/episodes/:episodeId/visits/:visitId/note", url: "/episodes/e1/visits/v1/note" };
  show(<NotePage />, queries, at);
  return server;
}

const field = () => screen.getByLabelText(say("visits.note-text"));
const write = (words: string) => fireEvent.change(field(), { target: { value: words } });
const rest = () => act(() => vi.advanceTimersByTimeAsync(1300));

describe("a note", () => {
  beforeEach(() => {
    sessionStorage.clear();
    vi.useFakeTimers({ shouldAdvanceTime: true });
  });
  afterEach(() => {
    cleanup();
    vi.useRealTimers();
    vi.restoreAllMocks();
  });

  const kept = (sent: { text: NoteText; version: number }) =>
    note({ text: sent.text, version: sent.version + 1, writtenBy: "Ines Arroyo" });

  it("is saved by itself a moment after the last letter, once, and goes on from what was stored", async () => {
    const server = open(note({}), kept);
    write("Stiff");
    write("Stiff in the morning");
    expect(screen.getByText(say("visits.note-not-saved-yet"))).toBeTruthy();
    await rest();
    await waitFor(() => expect(screen.getByText(say("visits.note-saved"))).toBeTruthy());
    write("Stiff in the morning, better by noon");
    await rest();
    await waitFor(() => expect(server.bodies("PUT /api/visits/{visitId}/note")).toHaveLength(2));
    expect(server.bodies("PUT /api/visits/{visitId}/note")).toMatchObject([
      { text: { free: "Stiff in the morning" }, version: 0 },
      { text: { free: "Stiff in the morning, better by noon" }, version: 1 },
    ]);
  });

  it("that a reload cut off is there again and saved; of a colleague on the same tablet it is not", async () => {
    open(note({}), kept);
    write("Half a sentence");
    expect(sessionStorage.getItem("note v1 Ines Arroyo")).toContain("Half a sentence");
    vi.clearAllTimers();
    const unsaved = sessionStorage.getItem("note v1 Ines Arroyo")!;
    cleanup();
    vi.restoreAllMocks();
    sessionStorage.setItem("note v1 Ines Arroyo", unsaved);
    sessionStorage.setItem("note v1 Oriel", unsaved.replace("Half", "Somebody's"));
    const server = open(note({}), kept);
    expect(field()).toHaveProperty("value", "Half a sentence");
    await waitFor(() => expect(server.bodies("PUT /api/visits/{visitId}/note").length).toBeGreaterThan(0));
    await waitFor(() => expect(sessionStorage.getItem("note v1 Ines Arroyo")).toBeNull());
  });

  it("that a colleague wrote meanwhile shows both, and loses neither", async () => {
    const theirs = note({ text: text({ free: "Theirs" }), version: 4, writtenBy: "Oriel Penhallow" });
    let clash = true;
    const server = open(note({ version: 3 }), (sent) =>
      clash
        ? new Refusal(409, { title: "Someone else has written this note.", current: theirs })
        : kept(sent),
    );
    write("Mine");
    await rest();
    await waitFor(() => expect(screen.getByText("Theirs")).toBeTruthy());
    expect(field()).toHaveProperty("value", "Mine");
    clash = false;
    fireEvent.click(screen.getByRole("button", { name: say("visits.keep-mine") }));
    await waitFor(() => expect(screen.getByText(say("visits.note-saved"))).toBeTruthy());
    expect(server.bodies("PUT /api/visits/{visitId}/note").at(-1)).toMatchObject({
      text: { free: "Mine" },
      version: 4,
    });
  });

  it("that was signed is not written over by itself", async () => {
    const signed = note({
      text: text({ free: "Signed" }),
      version: 2,
      signedBy: "Ines Arroyo",
      signedAt: "2026-11-30T09:00:00Z",
    });
    const server = open(signed, kept);
    write("Signed, and more");
    await rest();
    expect(server.bodies("PUT /api/visits/{visitId}/note")).toHaveLength(0);
    fireEvent.click(screen.getByRole("button", { name: say("visits.save-the-change") }));
    await waitFor(() => expect(server.bodies("PUT /api/visits/{visitId}/note")).toHaveLength(1));
  });

  it("under four headings keeps what stood in the free text", () => {
    open(note({ text: text({ free: "Free" }), version: 1 }), kept);
    fireEvent.click(screen.getByRole("radio", { name: say("visits.four-headings") }));
    fireEvent.change(screen.getByLabelText(headingWords.subjective), { target: { value: "Stiff" } });
    fireEvent.click(screen.getByRole("radio", { name: say("visits.free-text") }));
    expect(field()).toHaveProperty("value", "Free");
  });
});
