import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { answering, Refusal } from "../given/server";
import { askingQueries, show } from "../given/show";
import { say } from "../words/say";
import { AccountPage, deviceWords } from "./AccountPage";

const mine = {
  id: "a1",
  name: "Ines Tarrow",
  email: "ines@x.example",
  roles: ["practitioner"],
  confirmed: true,
  reading: {},
};
const signIns = [
  { id: "s1", device: "Mozilla/5.0 (X11; Linux x86_64)", begunAt: "2026-11-29T08:00:00Z", here: true },
  { id: "s2", device: "Mozilla/5.0 (iPad; CPU OS 18_0)", begunAt: "2026-11-28T08:00:00Z", here: false },
];

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

function open(answers: Parameters<typeof answering>[0] = {}) {
  const server = answering({
    "GET /api/account": () => mine,
    "GET /api/account/sign-ins": () => signIns,
    ...answers,
  });
  show(<AccountPage />, askingQueries());
  return server;
}

const region = (name: string) => screen.findByRole("region", { name });
const type = (inside: HTMLElement, label: string, value: string) =>
  fireEvent.change(within(inside).getByLabelText(label), { target: { value } });

describe("one's own account", () => {
  it("says what one may, and offers nothing to change it", async () => {
    open();
    const may = await region(say("people.what-you-may"));
    expect(within(may).getByText(say("people.practitioner"))).toBeTruthy();
    expect(within(may).queryByRole("checkbox")).toBeNull();
  });

  it("keeps how one reads dates at once, and leaves the rest as the clinic has it", async () => {
    const server = open({ "PUT /api/account": () => mine });
    const reading = await region(say("people.dates-and-measures"));
    const button = within(reading).getByRole("button", { name: new RegExp(say("people.height-and-mass")) });
    fireEvent.click(button);
    fireEvent.click(await screen.findByRole("option", { name: say("controls.units-lb-ft-in") }));
    await waitFor(() =>
      expect(server.calls.find((c) => c.what === "PUT /api/account")?.body).toEqual({
        name: mine.name,
        reading: { units: "lb-ft-in" },
      }),
    );
  });

  it("ends the sign-in of another device, not the one at hand", async () => {
    const server = open({ "DELETE /api/account/sign-ins/{signInId}": () => ({}) });
    const where = await region(say("people.where-you-are-signed-in"));
    const end = await within(where).findByRole("button", {
      name: say("people.sign-out-device", { device: "iPad" }),
    });
    expect(within(where).getAllByRole("button")).toHaveLength(1);
    fireEvent.click(end);
    await waitFor(() =>
      expect(server.calls.map((c) => c.what)).toContain("DELETE /api/account/sign-ins/{signInId}"),
    );
  });

  it("says which password is wrong, and empties both fields only when it was changed", async () => {
    let right = false;
    open({
      "POST /api/account/password": () =>
        right
          ? {}
          : new Refusal(422, {
              title: "Please check the marked fields; nothing was stored.",
              errors: [{ field: "old", message: "This is not your password." }],
            }),
    });
    const password = await region(say("people.password"));
    type(password, say("people.password-now"), "what it was once");
    type(password, say("people.new-password"), "lantern over the quay");
    fireEvent.click(within(password).getByRole("button", { name: say("people.change-password") }));
    await waitFor(() => expect(within(password).getByText("This is not your password.")).toBeTruthy());
    expect(within(password).getByLabelText(say("people.new-password"))).toHaveProperty(
      "value",
      "lantern over the quay",
    );
    right = true;
    fireEvent.click(within(password).getByRole("button", { name: say("people.change-password") }));
    await waitFor(() => expect(within(password).getByText(say("people.password-changed"))).toBeTruthy());
    expect(within(password).getByLabelText(say("people.password-now"))).toHaveProperty("value", "");
  });

  it("keeps a name only when it is another", async () => {
    const server = open({ "PUT /api/account": () => ({ ...mine, name: "Ines Tarrow-Bell" }) });
    const name = await region(say("people.your-name"));
    const keep = within(name).getByRole("button", { name: say("people.keep-the-name") });
    expect(keep).toHaveProperty("disabled", true);
    type(name, say("people.as-it-stands-in-records"), "Ines Tarrow-Bell");
    fireEvent.click(keep);
    await waitFor(() => expect(server.bodies("PUT /api/account")).toEqual([{ name: "Ines Tarrow-Bell" }]));
  });

  it.each([
    ["Mozilla/5.0 (iPad; CPU OS 18_0 like Mac OS X) AppleWebKit", "iPad"],
    ["tablet/7", "tablet"],
    ["", say("people.unknown-device")],
  ])("tells %j as %j", (agent, words) => expect(deviceWords(agent)).toBe(words));
});
