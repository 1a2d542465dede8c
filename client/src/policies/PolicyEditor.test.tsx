import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { useState, type ComponentProps } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Policy, PolicyView, SchoolGroup, Simulated } from "../api/types";
import { answering, Refusal } from "../given/server";
import { askingQueries, show } from "../given/show";
import { say } from "../words/say";
import { PolicyEditor } from "./PolicyEditor";

const policy = {
  id: "p1",
  version: 3,
  soreHours: 36,
  strategy: "brace",
  ease: ["load"],
} as unknown as Policy;
const groups = [
  {
    name: "After soreness",
    choices: [
      {
        path: "soreHours",
        name: "Soreness that counts",
        kind: "number",
        unit: "h",
        min: 12,
        max: 72,
        step: 1,
        why: "Ordinary soreness is gone after a day and a half.",
        source: "common practice",
      },
      {
        path: "strategy",
        name: "Trunk strategy",
        kind: "option",
        options: [
          { id: "brace", words: "brace lightly" },
          { id: "breathe", words: "breathe and let go" },
        ],
        why: "Either.",
      },
      {
        path: "ease",
        name: "Eased first",
        kind: "list",
        options: [
          { id: "load", words: "the load" },
          { id: "range", words: "the range" },
        ],
        why: "One thing at a time.",
      },
    ],
  },
] as unknown as SchoolGroup[];
const untried = { changed: [], unchanged: [] } as unknown as Simulated;

const own = (change: Partial<PolicyView> = {}) => ({ policy, builtIn: false, ...change }) as PolicyView;
const builtIn = { ...policy, soreHours: 48 } as unknown as Policy;

function Editor(props: Omit<ComponentProps<typeof PolicyEditor>, "sought" | "onSeek">) {
  const [sought, setSought] = useState("");
  // As on the page: another version is another editor.
  return <PolicyEditor {...props} key={props.view.policy.version} sought={sought} onSeek={setSought} />;
}

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const hours = () => screen.getByRole("textbox", { name: /Soreness that counts/ });
const typeHours = (value: string) => {
  fireEvent.change(hours(), { target: { value } });
  fireEvent.blur(hours());
};
const showAll = () => fireEvent.click(screen.getByRole("radio", { name: say("policies.all") }));
const store = () =>
  screen.getByRole("button", { name: say("policies.store-as-version-version", { version: 4 }) });

describe("a policy", () => {
  it("that is built in is read, and cannot be written", () => {
    show(<Editor view={own({ builtIn: true })} builtIn={builtIn} groups={groups} simulated={untried} />);
    expect(screen.getByText("Brace lightly")).toBeTruthy();
    expect(screen.getByText("36 h")).toBeTruthy();
    expect(screen.queryByRole("textbox", { name: /Soreness that counts/ })).toBeNull();
    expect(screen.queryByRole("button")).toBeNull();
  });

  it("shows beside each choice what was built in and why", () => {
    show(<Editor view={own()} builtIn={builtIn} groups={groups} simulated={untried} />);
    const group = screen.getByRole("region", { name: "After soreness" });
    expect(within(group).getByText(/48 h/)).toBeTruthy();
    expect(within(group).getByText(/Ordinary soreness is gone.*\(common practice\)/)).toBeTruthy();
    // Only what differs can be taken back.
    expect(screen.getAllByRole("button", { name: say("policies.take-it-back") })).toHaveLength(1);
    expect(store()).toHaveProperty("disabled", true);
  });

  it("tells whom a change touches before it is stored, and stores it on the version that was read", async () => {
    const server = answering({
      "POST /api/policies/{id}/effects": () => [
        {
          episodeId: "e1",
          visitId: "v1",
          clientName: "Nerys Quill",
          present: ["one set fewer"],
          proposal: ["heel tap in place of foot float"],
        },
      ],
      "PUT /api/policies/{id}": () => own(),
    });
    show(<Editor view={own()} builtIn={builtIn} groups={groups} simulated={untried} />, askingQueries());
    typeHours("24");
    await waitFor(() => expect(screen.getByRole("link", { name: "Nerys Quill" })).toBeTruthy());
    expect(screen.getByText(/one set fewer/)).toBeTruthy();
    expect(screen.getByText(/heel tap in place of foot float/)).toBeTruthy();
    expect(server.bodies("PUT /api/policies/{id}")).toEqual([]);
    fireEvent.click(store());
    await waitFor(() =>
      expect(server.bodies("PUT /api/policies/{id}")).toEqual([
        { policy: { ...policy, soreHours: 24 }, version: 3 },
      ]),
    );
  });

  it("says that nobody is touched, where nobody is", async () => {
    answering({ "POST /api/policies/{id}/effects": () => [] });
    show(<Editor view={own()} builtIn={builtIn} groups={groups} simulated={untried} />, askingQueries());
    showAll();
    fireEvent.click(screen.getByRole("checkbox", { name: "the range" }));
    await waitFor(() => expect(screen.getByText(say("policies.no-open-plan-would-change"))).toBeTruthy());
  });

  it("shows first what the clinic does its own way, and finds the rest by its words", () => {
    show(<Editor view={own()} builtIn={builtIn} groups={groups} simulated={untried} />);
    expect(hours()).toBeTruthy();
    expect(screen.queryByRole("group", { name: "Eased first" })).toBeNull();
    const find = screen.getByLabelText(say("policies.find-a-setting"));
    fireEvent.change(find, { target: { value: "one thing" } });
    expect(screen.getByRole("group", { name: "Eased first" })).toBeTruthy();
    expect(screen.queryByRole("textbox", { name: /Soreness that counts/ })).toBeNull();
    fireEvent.change(find, { target: { value: "one thing of which nobody heard" } });
    expect(screen.getByText(say("policies.no-such-setting"))).toBeTruthy();
  });

  it("marks the field the server refuses and keeps what was typed", async () => {
    answering({
      "POST /api/policies/{id}/effects": () => [],
      "PUT /api/policies/{id}": () =>
        new Refusal(422, {
          title: "Please check the marked fields; nothing was stored.",
          errors: [{ field: "policy.soreHours", message: "From 12 to 72 hours." }],
        }),
    });
    show(<Editor view={own()} builtIn={builtIn} groups={groups} simulated={untried} />, askingQueries());
    typeHours("13");
    fireEvent.click(store());
    await waitFor(() => expect(screen.getByText("From 12 to 72 hours.")).toBeTruthy());
    expect(hours()).toHaveProperty("value", "13");
  });

  it("goes back to the version that is stored with one press, and one choice to the built-in", () => {
    show(<Editor view={own()} builtIn={builtIn} groups={groups} simulated={untried} />);
    showAll();
    fireEvent.click(screen.getByRole("checkbox", { name: "the range" }));
    fireEvent.click(screen.getAllByRole("button", { name: say("policies.take-it-back") })[0]!);
    expect(hours()).toHaveProperty("value", "48");
    fireEvent.click(
      screen.getByRole("button", { name: say("policies.back-to-version-version", { version: 3 }) }),
    );
    expect(hours()).toHaveProperty("value", "36");
    expect(screen.getByRole("checkbox", { name: "the range" })).toHaveProperty("checked", false);
  });
});
