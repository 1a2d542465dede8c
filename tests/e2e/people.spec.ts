import { expect, type Page, test } from "@playwright/test";
import { enter, expectAccessible } from "./hands";
import { Server } from "./server";

const server = new Server("demo", 5197);

test.beforeAll(() => server.start());
test.afterAll(() => server.close());

test("somebody is invited by keys, chooses a password by the code, and is disabled on the spot", async ({
  page,
  browser,
}) => {
  await enter(page, server, /Ines Tarrow/);
  await page.goto(`${server.address}/people`);
  await expectAccessible(page, "people");
  const form = page.getByRole("region", { name: "Invite somebody" });
  await form.getByLabel("Name").fill("Rosa Thorne");
  await page.keyboard.press("Tab");
  await page.keyboard.type("rosa@saltmere.example");
  for (let tab = 0; tab < 3; tab++) await page.keyboard.press("Tab");
  await page.keyboard.press("Space");
  await expect(form.getByRole("checkbox", { name: /^Trainer/ })).toBeChecked();
  await form.getByRole("button", { name: "Make a code" }).press("Enter");
  const code = (await page.locator("code").innerText()).trim();
  expect(code).toMatch(/^([A-HJ-NP-Z2-9]{5}-){3}[A-HJ-NP-Z2-9]{5}$/);
  await expectAccessible(page, "a code");

  const tablet = await (
    await browser.newContext({ viewport: { width: 820, height: 1180 } })
  ).newPage();
  await tablet.goto(server.address);
  await tablet.getByRole("link", { name: "I have a code" }).click();
  await tablet.getByLabel("Code").fill(code.toLowerCase());
  await tablet.getByRole("button", { name: "Go on" }).click();
  await expect(
    tablet.getByRole("heading", { name: "Welcome, Rosa Thorne" }),
  ).toBeVisible();
  await expectAccessible(tablet, "a code becomes an account");
  await tablet.getByLabel("Password").fill("rosa thorne rosa");
  await tablet.getByRole("button", { name: "Keep it and sign in" }).click();
  await expect(tablet.getByText(/easily guessed/)).toBeVisible();
  await tablet.getByLabel("Password").fill("lantern over the quay");
  await tablet.getByRole("button", { name: "Keep it and sign in" }).click();
  await expect(tablet.getByRole("link", { name: "Rosa Thorne" })).toBeVisible();
  await tablet.getByRole("link", { name: "Rosa Thorne" }).click();
  await expect(tablet.getByText("This device", { exact: true })).toBeVisible();
  await expectAccessible(tablet, "one's own account");

  await page.reload();
  const rosa = page.getByRole("group", { name: "Rosa Thorne" });
  await expect(rosa.getByText("signed in on one device")).toBeVisible();
  await rosa.getByRole("button", { name: "Disable" }).click();
  await rosa.getByRole("button", { name: "Yes, disable" }).click();
  await expect(rosa.getByText(/disabled since/)).toBeVisible();
  await tablet.goto(server.address);
  await expect(tablet.getByRole("heading", { name: "Sign in" })).toBeVisible();
});

test("the desk sees the day without a way into records; what is typed into the address is refused", async ({
  page,
}) => {
  await enter(page, server, /Mina Forsgate/);
  await expect(page.getByText("Nerys Quill")).toBeVisible();
  await expect(page.getByRole("link", { name: /Nerys Quill/ })).toHaveCount(0);
  await expect(
    page.getByRole("heading", { name: "Needs a decision" }),
  ).toHaveCount(0);
  await expectAccessible(page, "the day at the desk");
  await page.goto(`${server.address}/people`);
  await expect(page.getByText(/Your role does not include this/)).toBeVisible();
});

test("a trainer works with clients and does not deal with a red flag", async ({
  page,
}) => {
  await enter(page, server, /Bram Oakley/);
  await page
    .getByRole("link", { name: /Tobiah Wren/ })
    .first()
    .click();
  await expect(
    page.getByText(/A practitioner records what was found/),
  ).toBeVisible();
  await expect(page.getByLabel("What was found")).toHaveCount(0);
});

test("what is grave asks for the password again and goes on where it was", async ({
  page,
}) => {
  await enter(page, server, /Ines Tarrow/);
  await page.goto(`${server.address}/people`);
  // As after five minutes: the server's first answer is that it wants the password. What goes through the worker that keeps the
  // page is seen by the context alone.
  let asked = 0;
  await page.context().route("**/api/accounts/*/sign-ins", async (route) => {
    asked++;
    if (asked > 1) return route.continue();
    return route.fulfill({
      status: 403,
      contentType: "application/problem+json",
      body: JSON.stringify({
        type: "reauthenticate",
        title: "Give your password again to go on.",
        status: 403,
      }),
    });
  });
  const ines = page.getByRole("group", { name: "Ines Tarrow" });
  await ines.getByRole("button", { name: "Sign out everywhere" }).click();
  await expect.poll(() => asked).toBe(1);
  const dialog = page.getByRole("dialog", { name: "Your password again" });
  await expect(dialog.getByLabel("Password")).toBeFocused();
  await expectAccessible(page, "the password again");
  await page.keyboard.type("not this one");
  await page.keyboard.press("Enter");
  await expect(dialog.getByText("This is not your password.")).toBeVisible();
  await dialog.getByLabel("Password").fill("lantern-quay-7");
  await page.keyboard.press("Enter");
  await expect(dialog).toHaveCount(0);
  await expect.poll(() => asked).toBe(2);
  await page.goto(server.address);
  await expect(page.getByRole("heading", { name: "Sign in" })).toBeVisible();
});

test("the audit tells who saw what, and a record tells who has seen it in one press", async ({ page }) => {
  await enter(page, server, /Ines Tarrow/);
  await page.getByRole("link", { name: /Nerys Quill/ }).first().click();
  const who = page.getByRole("button", { name: "Who has seen this" });
  await who.press("Enter");
  const dialog = page.getByRole("dialog", { name: "Who has seen this" });
  await expect(dialog.getByRole("row", { name: /^Ines Tarrow/ })).toBeVisible();
  await expectAccessible(page, "who has seen this");
  await page.keyboard.press("Escape");
  await expect(dialog).toHaveCount(0);
  await page.goto(`${server.address}/audit`);
  await expect(page.getByText(/The audit is whole/)).toBeVisible();
  await page.getByLabel("Name of a client or a colleague").fill("quill");
  await expect(page.getByRole("row", { name: /Ines Tarrow Looked at: record Nerys Quill/ }).first()).toBeVisible();
  await page.getByText(/^\d+ fields$/).first().click();
  await expectAccessible(page, "audit");
  await page.getByLabel("Name of a client or a colleague").fill("nobody of that name");
  await expect(page.getByText("Nothing of that")).toBeVisible();
});
