import { act, cleanup, screen } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import { keys } from "../api/queries";
import type { Tablet } from "../capture/TabletContext";
import { quietQueries, show } from "../given/show";
import { say } from "../words/say";
import { NoPinHere } from "./NoPinHere";

afterEach(cleanup);

async function open(here: { who: string | null; byPin: boolean; opened?: boolean }) {
  const queries = quietQueries();
  queries.setQueryData(keys.start, { signedInAs: "Ines Arroyo" });
  const tablet = {
    keys: {
      who: here.who && { name: here.who, byPin: here.byPin },
      opensAlone: (name: string) => name === here.who && here.byPin,
      opened: () => (here.opened === false ? new Promise(() => {}) : Promise.resolve({})),
    },
  } as unknown as Tablet;
  await act(() => {
    show(<NoPinHere />, queries, undefined, tablet);
    return Promise.resolve();
  });
  return screen.queryByText(say("day.no-pin-here"), { exact: false });
}

describe("a tablet that would not open without the server", () => {
  it("says so, and leads to where it is given a PIN", async () => {
    expect(await open({ who: "Ines Arroyo", byPin: false })).not.toBeNull();
    expect(screen.getByRole("link", { name: say("day.give-it-a-pin") }).getAttribute("href")).toBe(
      "/account",
    );
  });

  it.each([
    ["has a PIN of whoever is here", { who: "Ines Arroyo", byPin: true }],
    ["does not know its key yet", { who: "Ines Arroyo", byPin: false, opened: false }],
    ["still has the one before", { who: "Bram Oakley", byPin: false }],
    ["locks nothing up", { who: null, byPin: false, opened: false }],
  ])("says nothing where it %s", async (_, here) => {
    expect(await open(here)).toBeNull();
  });
});
