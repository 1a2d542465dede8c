import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { AccountLine, AccountsView } from "../api/types";
import { answering, Refusal } from "../given/server";
import { askingQueries, show } from "../given/show";
import { say } from "../words/say";
import { PeoplePage } from "./PeoplePage";

const account = (change: Partial<AccountLine> = {}): AccountLine =>
  ({
    id: "a1",
    name: "Bram Oakley",
    email: "bram@saltmere.example",
    roles: ["trainer"],
    disabledAt: null,
    signIns: 0,
    ...change,
  }) as AccountLine;

const made = { code: "AAAAA-BBBBB-CCCCC-DDDDD", path: "/invitation/AAAAA", endsAt: "2026-12-02T09:00:00Z" };

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

function open(view: Partial<AccountsView>, answers: Parameters<typeof answering>[0] = {}) {
  const server = answering({
    "GET /api/accounts": () => ({ accounts: [], invitations: [], ...view }),
    "POST /api/accounts/invitations": () => made,
    "POST /api/accounts/{accountId}/reset": () => made,
    "PUT /api/accounts/{accountId}": () => account(),
    ...answers,
  });
  show(<PeoplePage />, askingQueries());
  return server;
}

const invite = async () => {
  const form = await screen.findByRole("region", { name: say("people.invite-somebody") });
  const type = (label: string, value: string) =>
    fireEvent.change(within(form).getByLabelText(label), { target: { value } });
  type(say("people.name"), "Rosa Thorne");
  type(say("people.e-mail"), "rosa@clinic.example");
  return form;
};
const person = (name: string) => screen.findByRole("group", { name });
const press = (inside: HTMLElement, name: string) =>
  fireEvent.click(within(inside).getByRole("button", { name }));

describe("people of the clinic", () => {
  it("are invited with a role, and the code is shown once", async () => {
    const server = open({});
    const form = await invite();
    const button = within(form).getByRole("button", { name: say("people.make-a-code") });
    expect(button).toHaveProperty("disabled", true);
    fireEvent.click(within(form).getByRole("checkbox", { name: new RegExp(say("people.trainer")) }));
    fireEvent.click(button);
    await waitFor(() => expect(screen.getByText(made.code)).toBeTruthy());
    expect(server.bodies("POST /api/accounts/invitations")).toEqual([
      { name: "Rosa Thorne", email: "rosa@clinic.example", roles: ["trainer"] },
    ]);
    fireEvent.click(screen.getByRole("button", { name: say("people.code-passed-on") }));
    expect(screen.queryByText(made.code)).toBeNull();
  });

  it("keep what was typed where the server refuses, with the field named", async () => {
    open(
      {},
      {
        "POST /api/accounts/invitations": () =>
          new Refusal(422, {
            title: "Please check the marked fields; nothing was stored.",
            errors: [{ field: "email", message: "There is already an account with this e-mail." }],
          }),
      },
    );
    const form = await invite();
    fireEvent.click(within(form).getByRole("checkbox", { name: new RegExp(say("people.reception")) }));
    press(form, say("people.make-a-code"));
    await waitFor(() => expect(within(form).getByText(/already an account/)).toBeTruthy());
    expect(within(form).getByLabelText(say("people.e-mail"))).toHaveProperty("value", "rosa@clinic.example");
  });

  it("get other roles only by a press of their own, and are not disabled with roles half changed", async () => {
    const server = open({ accounts: [account()] });
    const bram = await person("Bram Oakley");
    fireEvent.click(within(bram).getByRole("checkbox", { name: say("people.practitioner") }));
    expect(within(bram).getByRole("button", { name: say("people.disable") })).toHaveProperty(
      "disabled",
      true,
    );
    expect(server.bodies("PUT /api/accounts/{accountId}")).toEqual([]);
    press(bram, say("people.keep-roles"));
    await waitFor(() =>
      expect(server.bodies("PUT /api/accounts/{accountId}")).toEqual([
        { roles: ["trainer", "practitioner"], disabled: false },
      ]),
    );
  });

  it("are disabled after a second look, and let in again with one press", async () => {
    const server = open({ accounts: [account()] });
    const bram = await person("Bram Oakley");
    press(bram, say("people.disable"));
    expect(within(bram).getByText(say("people.disable-sure", { name: "Bram Oakley" }))).toBeTruthy();
    press(bram, say("people.no"));
    expect(within(bram).queryByText(say("people.disable-sure", { name: "Bram Oakley" }))).toBeNull();
    press(bram, say("people.disable"));
    press(bram, say("people.yes-disable"));
    await waitFor(() =>
      expect(server.bodies("PUT /api/accounts/{accountId}")).toEqual([
        { roles: ["trainer"], disabled: true },
      ]),
    );
    cleanup();
    const again = open({ accounts: [account({ disabledAt: "2026-11-28T09:00:00Z" })] });
    press(await person("Bram Oakley"), say("people.let-in-again"));
    await waitFor(() =>
      expect(again.bodies("PUT /api/accounts/{accountId}")).toEqual([
        { roles: ["trainer"], disabled: false },
      ]),
    );
  });

  it("say why the last administrator stays", async () => {
    open(
      { accounts: [account({ roles: ["administrator"] })] },
      {
        "PUT /api/accounts/{accountId}": () =>
          new Refusal(409, {
            title: "The clinic needs an administrator who can sign in: make another one first.",
          }),
      },
    );
    const bram = await person("Bram Oakley");
    press(bram, say("people.disable"));
    press(bram, say("people.yes-disable"));
    await waitFor(() => expect(within(bram).getByText(/needs an administrator/)).toBeTruthy());
  });

  it("are signed out everywhere only where they are signed in", async () => {
    open({ accounts: [account(), account({ id: "a2", name: "Ines Tarrow", signIns: 2 })] });
    expect(
      within(await person("Bram Oakley")).queryByRole("button", { name: say("people.sign-out-everywhere") }),
    ).toBeNull();
    expect(
      within(await person("Ines Tarrow")).getByRole("button", { name: say("people.sign-out-everywhere") }),
    ).toBeTruthy();
  });
});
