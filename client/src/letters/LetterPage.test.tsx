import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { keys } from "../api/queries";
import type { EpisodeView, Letter, LetterView } from "../api/types";
import { answering, Refusal } from "../given/server";
import { quietQueries, show } from "../given/show";
import { say } from "../words/say";
import { LetterPage } from "./LetterPage";

const letter = (to: string): Letter =>
  ({
    to,
    about: "Maris Telleke, born 29 February 1980",
    parts: [
      { heading: "Findings", paragraphs: ["Left 42 % behind.", "Right as asked."] },
      { heading: "Advice", paragraphs: ["Go on."] },
    ],
  }) as Letter;

const view = (change: Partial<LetterView> = {}): LetterView =>
  ({ letter: letter("Dr. Quill"), fresh: letter(""), version: 0, editedBy: null, ...change }) as LetterView;

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

function open(shown: LetterView, answer: (asked: { body?: unknown }) => unknown = () => shown) {
  const server = answering({ "PUT /api/visits/{visitId}/letter": answer });
  const queries = quietQueries();
  queries.setQueryData(keys.episode("e1"), { id: "e1", visits: [{ id: "v1" }] } as EpisodeView);
  queries.setQueryData(keys.letter("v1"), shown);
  show(<LetterPage />, queries, { path: "/e/:episodeId/v/:visitId", url: "/e/e1/v/v1" });
  return () => server.bodies("PUT /api/visits/{visitId}/letter") as { letter: Letter; version: number }[];
}

const keep = () => screen.getByRole("button", { name: say("letters.keep-my-changes") });
const write = (label: string, value: string) =>
  fireEvent.change(screen.getByRole("textbox", { name: label }), { target: { value } });

describe("the letter", () => {
  it("goes out only as it is kept: with changes open there is nothing to print", () => {
    open(view());
    expect(screen.getByRole("link", { name: say("letters.pdf") }).getAttribute("href")).toBe(
      "/api/visits/v1/letter.pdf?paper=a4",
    );
    expect(keep()).toHaveProperty("disabled", true);
    write(say("letters.to"), "Dr. Brask");
    expect(screen.queryByRole("link", { name: say("letters.pdf") })).toBeNull();
    expect(screen.getByRole("button", { name: say("letters.print") })).toHaveProperty("disabled", true);
    expect(keep()).toHaveProperty("disabled", false);
    // Back as it was: nothing is open.
    write(say("letters.to"), "Dr. Quill");
    expect(keep()).toHaveProperty("disabled", true);
  });

  it("keeps paragraphs where an empty line stands, in the part that was edited alone", async () => {
    const sent = open(view({ version: 3, editedBy: "Ines" }));
    write("Findings", "One.\n\nTwo.\nstill two.");
    fireEvent.click(keep());
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]!.version).toBe(3);
    expect(sent()[0]!.letter.parts).toEqual([
      { heading: "Findings", paragraphs: ["One.", "Two.\nstill two."] },
      { heading: "Advice", paragraphs: ["Go on."] },
    ]);
  });

  it("written anew from the record keeps to whom it goes", async () => {
    const sent = open(view({ version: 1, editedBy: "Ines", fresh: letter("") }));
    write("Advice", "Rest.");
    fireEvent.click(screen.getByRole("button", { name: say("letters.write-it-anew-from-the") }));
    expect(screen.getByRole("textbox", { name: say("letters.to") })).toHaveProperty("value", "Dr. Quill");
    expect(screen.getByRole("textbox", { name: "Advice" })).toHaveProperty("value", "Go on.");
    expect(sent()).toEqual([]);
  });

  it("one that was never edited has nothing to be written anew", () => {
    open(view());
    expect(screen.queryByRole("button", { name: say("letters.write-it-anew-from-the") })).toBeNull();
  });

  it("edited elsewhere meanwhile it says so, keeps what was typed and offers the other one", async () => {
    open(view(), () => new Refusal(409, { title: "Somebody edited it meanwhile." }));
    write("Advice", "Rest.");
    fireEvent.click(keep());
    await waitFor(() => expect(screen.getByText("Somebody edited it meanwhile.")).toBeTruthy());
    expect(screen.getByRole("textbox", { name: "Advice" })).toHaveProperty("value", "Rest.");
    expect(screen.getByRole("button", { name: say("letters.show-the-other-one") })).toBeTruthy();
  });
});
