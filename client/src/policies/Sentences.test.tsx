import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { keys } from "../api/queries";
import type { SentenceView } from "../api/types";
import { answering, Refusal } from "../given/server";
import { quietQueries, show } from "../given/show";
import { say } from "../words/say";
import { Sentences } from "./Sentences";

const sentence = (change: Partial<SentenceView> = {}): SentenceView =>
  ({
    id: "letter.side",
    on: "letter",
    text: "{{ side }} kept {{ percent }} %.",
    example: "Left kept 42 %.",
    values: ["side", "percent"],
    version: 0,
    changedBy: null,
    ...change,
  }) as SentenceView;

const home = sentence({
  id: "home.rest",
  on: "home",
  text: "Rest today.",
  example: "Rest today.",
  values: [],
});

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

function open(of: SentenceView, answers: Parameters<typeof answering>[0] = {}) {
  const server = answering(answers);
  const queries = quietQueries();
  queries.setQueryData(keys.sentences, of === home ? [home] : [of, home]);
  show(<Sentences />, queries);
  fireEvent.click(
    screen.getByRole("button", {
      name: say("policies.change-sentence", { example: of.example }),
      hidden: true,
    }),
  );
  return server;
}

const dialog = () => screen.getByRole("dialog", { name: say("policies.sentence") });
const press = (name: string) => fireEvent.click(within(dialog()).getByRole("button", { name }));
const write = (value: string) =>
  fireEvent.change(within(dialog()).getByRole("textbox"), { target: { value } });

describe("the clinic's own sentences", () => {
  it("stand by where they are read, and say what may be filled in", () => {
    open(sentence());
    expect(
      within(dialog()).getByText(say("policies.may-be-filled-in", { names: "side, percent" })),
    ).toBeTruthy();
    press(say("policies.close"));
    expect(screen.queryByRole("dialog")).toBeNull();
    const groups = [say("policies.on-letters"), say("policies.on-home-programmes")].map((title) =>
      screen.getByText(title).closest("details")!,
    );
    expect(groups.map((g) => g.querySelectorAll("li").length)).toEqual([1, 1]);
    expect(groups[1]!.textContent).toContain("Rest today.");
  });

  it("are seen as a client reads them before they are kept; another word takes the preview away", async () => {
    const server = open(sentence(), {
      "POST /api/clinic/sentences/{id}/preview": () => ({
        client: "Nerys Quill",
        lines: ["Left held 42 %."],
      }),
    });
    write("{{ side }} held {{ percent }} %.");
    press(say("policies.show-as-it-would-read"));
    await waitFor(() => expect(within(dialog()).getByText("Left held 42 %.")).toBeTruthy());
    expect(
      within(dialog()).getByText(say("policies.as-client-reads-it", { client: "Nerys Quill" })),
    ).toBeTruthy();
    write("{{ side }} held.");
    await waitFor(() => expect(within(dialog()).queryByText("Left held 42 %.")).toBeNull());
    expect(server.bodies("PUT /api/clinic/sentences/{id}")).toEqual([]);
  });

  it("are kept on the version that was read", async () => {
    const server = open(sentence({ version: 2, changedBy: "Ines" }), {
      "PUT /api/clinic/sentences/{id}": () => sentence({ version: 3 }),
    });
    expect(within(dialog()).getByRole("button", { name: say("policies.save-sentence") })).toHaveProperty(
      "disabled",
      true,
    );
    write("{{ side }}: {{ percent }} %.");
    press(say("policies.save-sentence"));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(server.bodies("PUT /api/clinic/sentences/{id}")).toEqual([
      { text: "{{ side }}: {{ percent }} %.", version: 2 },
    ]);
  });

  it("that cannot be said are refused at their place, and what was typed stays", async () => {
    open(sentence(), {
      "PUT /api/clinic/sentences/{id}": () =>
        new Refusal(422, {
          title: "Please check the marked fields; nothing was stored.",
          errors: [{ field: "text", message: "Line 1, column 4: there is no value called sides." }],
        }),
    });
    write("{{ sides }}");
    press(say("policies.save-sentence"));
    await waitFor(() => expect(within(dialog()).getByText(/there is no value called sides/)).toBeTruthy());
    expect(within(dialog()).getByRole("textbox")).toHaveProperty("value", "{{ sides }}");
  });

  it("can be given back for the original, where there is one of the clinic's", async () => {
    const server = open(sentence({ version: 2, changedBy: "Ines" }), {
      "DELETE /api/clinic/sentences/{id}": () => sentence(),
    });
    press(say("policies.use-the-original"));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(server.calls.map((c) => c.what)).toContain("DELETE /api/clinic/sentences/{id}");
    cleanup();
    open(home);
    expect(within(dialog()).queryByRole("button", { name: say("policies.use-the-original") })).toBeNull();
    expect(within(dialog()).getByText(say("policies.nothing-is-filled-in"))).toBeTruthy();
  });
});
