import { readFileSync } from "node:fs";
import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import { show } from "../given/show";
import { say } from "../words/say";
import { glossary } from "./glossary";
import { HelpDialog, wordsWith } from "./HelpDialog";
import { Term } from "./Term";

afterEach(cleanup);

describe("the glossary", () => {
  it("is the one of docs/glossary.md, word for word", () => {
    const rows = readFileSync("../docs/glossary.md", "utf8")
      .split("\n")
      .flatMap(
        (line) => (/^\| (.+?) \| (.+?) \|$/.exec(line)?.slice(1, 3) as [string, string] | undefined) ?? [],
      )
      .slice(2);
    const told = Object.values(glossary).flatMap((e) => [e.term, e.means]);
    expect(told).toEqual(rows.filter((cell) => !/^-+$/.test(cell)));
  });

  it("is found by a part of a word or of its line", () => {
    expect(wordsWith("irritab").map((e) => e.term)).toEqual(["irritability"]);
    expect(wordsWith("MEDICAL REVIEW").map((e) => e.term)).toEqual(["red flag"]);
    expect(wordsWith("no such thing at all")).toEqual([]);
    expect(wordsWith(" ")).toHaveLength(Object.keys(glossary).length);
  });

  it("opens by ? everywhere but in fields and in a live trial", () => {
    show(
      <>
        <HelpDialog />
        <input aria-label="somewhere" />
      </>,
    );
    const field = screen.getByLabelText("somewhere");
    fireEvent.keyDown(field, { key: "?" });
    expect(screen.queryByRole("dialog")).toBeNull();
    document.body.setAttribute("data-live", "");
    fireEvent.keyDown(document.body, { key: "?" });
    document.body.removeAttribute("data-live");
    expect(screen.queryByRole("dialog")).toBeNull();
    fireEvent.keyDown(document.body, { key: "?" });
    fireEvent.change(screen.getByLabelText(say("frame.find-a-word")), { target: { value: "peg" } });
    expect(screen.getByText(/mark of a client’s level|mark of a client's level/)).toBeTruthy();
  });

  it("an underlined word opens its line", () => {
    show(<Term name="irritability">low irritability</Term>);
    fireEvent.click(screen.getByRole("button", { name: "low irritability" }));
    expect(screen.getByRole("dialog", { name: "irritability" }).textContent).toContain(
      "how easily pain is provoked",
    );
  });
});
