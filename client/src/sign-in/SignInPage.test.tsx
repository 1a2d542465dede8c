import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { StartView } from "../api/types";
import { answering, Refusal } from "../given/server";
import { show } from "../given/show";
import { say } from "../words/say";
import { SignInPage } from "./SignInPage";

const start = (change: Partial<StartView> = {}): StartView =>
  ({ needsFirstAdministrator: false, demo: false, accounts: [], ...change }) as StartView;

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const press = (name: string) => fireEvent.click(screen.getByRole("button", { name }));

describe("signing in", () => {
  it("sends name and password, and says what the server says of them", async () => {
    const server = answering({
      "POST /api/sign-in": () => new Refusal(401, { title: "Name or password is not right." }),
    });
    show(<SignInPage start={start()} />);
    type(say("frame.e-mail"), "a@clinic.example");
    type(say("frame.password"), "not this one");
    press(say("frame.sign-in"));
    await waitFor(() => expect(screen.getByText("Name or password is not right.")).toBeTruthy());
    expect(server.bodies("POST /api/sign-in")).toEqual([
      { email: "a@clinic.example", password: "not this one", code: null },
    ]);
    // What was typed is still there.
    expect(screen.getByLabelText(say("sign-in.e-mail"))).toHaveProperty("value", "a@clinic.example");
  });

  it("fills in an account of the demo with one tap", () => {
    const account = {
      name: "Ines Arroyo",
      role: "physiotherapist, administrator",
      email: "i@x",
      password: "p",
    };
    show(<SignInPage start={start({ demo: true, accounts: [account] as StartView["accounts"] })} />);
    press("Ines Arroyo, physiotherapist");
    expect(screen.getByLabelText(say("sign-in.e-mail"))).toHaveProperty("value", "i@x");
    expect(screen.getByLabelText(say("sign-in.password"))).toHaveProperty("value", "p");
  });
});

describe("the first administrator", () => {
  it("is told which field is wrong, and can go on after putting it right", async () => {
    let right = false;
    const server = answering({
      "POST /api/first-administrator": () =>
        right
          ? {}
          : new Refusal(422, {
              title: "Please check the marked fields; nothing was stored.",
              errors: [{ field: "code", message: "This is not the code on the machine." }],
            }),
    });
    show(<SignInPage start={start({ needsFirstAdministrator: true })} />);
    type(say("sign-in.code"), "AAAA");
    type(say("sign-in.name"), "Edda");
    type(say("sign-in.e-mail"), "edda@clinic.example");
    type(say("sign-in.password"), "three quiet words");
    press(say("sign-in.open-the-clinic"));
    await waitFor(() => expect(screen.getByText("This is not the code on the machine.")).toBeTruthy());
    right = true;
    type(say("sign-in.code"), "BBBB");
    press(say("sign-in.open-the-clinic"));
    await waitFor(() => expect(server.bodies("POST /api/first-administrator")).toHaveLength(2));
    expect(server.bodies("POST /api/first-administrator")[1]).toMatchObject({ code: "BBBB", name: "Edda" });
  });
});
