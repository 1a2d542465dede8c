import { createHmac } from "node:crypto";
import { expect, type Page, test } from "@playwright/test";
import { expectAccessible, pick } from "./hands";
import { beginLegLowering, doTrial, openScreen, stored } from "./screening";
import { Server } from "./server";

const server = new Server("demo", 5201);

test.beforeAll(() => server.start());
test.afterAll(() => server.close());

async function enter(page: Page, email: string, password: string) {
  await page.goto(server.address);
  await page.getByLabel("E-mail").fill(email);
  await page.getByLabel("Password").fill(password);
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
}
const enterInes = (page: Page) => enter(page, "ines@saltmere.example", "lantern-quay-7");
const dayShown = (page: Page) => expect(page.getByRole("link", { name: "Library" })).toBeVisible();

/** Six digits by RFC 6238, as an app shows them so many half minutes from now. */
function digits(secret: string, steps = 0) {
  const bits = [...secret].map((c) => "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567".indexOf(c).toString(2).padStart(5, "0")).join("");
  const key = Buffer.from(bits.match(/.{8}/g)!.map((byte) => parseInt(byte, 2)));
  const moving = Buffer.alloc(8);
  moving.writeBigInt64BE(BigInt(Math.floor(Date.now() / 30_000) + steps));
  const hash = createHmac("sha1", key).update(moving).digest();
  const at = hash[19]! & 15;
  return ((hash.readUInt32BE(at) & 0x7fffffff) % 1_000_000).toString().padStart(6, "0");
}

test("a second factor is set up by keys, and the next sign-in asks for it", async ({ page }) => {
  await enter(page, "oriel@saltmere.example", "harbour-light-9");
  await dayShown(page);
  await page.goto(`${server.address}/account`);
  const section = page.getByRole("region", { name: "Second factor" });
  await section.getByRole("button", { name: "Set it up" }).press("Enter");
  const secret = (await section.locator("code").innerText()).trim();
  await expectAccessible(page, "a second factor");
  await section.getByLabel("Six digits from the app").fill("000000");
  await page.keyboard.press("Enter");
  await expect(section.getByText(/These digits are not right/)).toBeVisible();
  await section.getByLabel("Six digits from the app").fill(digits(secret));
  await page.keyboard.press("Enter");
  await expect(section.getByText("Shown only now.")).toBeVisible();
  expect(await section.locator("li code").count()).toBe(10);
  const recovery = await section.locator("li code").first().innerText();
  await expectAccessible(page, "recovery codes");
  await section.getByRole("button", { name: "I have kept them" }).press("Enter");

  await page.goto(server.address);
  await page.getByRole("button", { name: "Sign out" }).click();
  for (const code of [digits(secret, 1), recovery]) {
    await enter(page, "oriel@saltmere.example", "harbour-light-9");
    const field = page.getByLabel("Six digits from the app");
    await expect(field).toBeFocused();
    await expectAccessible(page, "asked for the second factor");
    await page.keyboard.type(code);
    await page.keyboard.press("Enter");
    await dayShown(page);
    await page.getByRole("button", { name: "Sign out" }).click();
  }
});

test("who signs out and closes the page before the server has heard of it is signed out", async ({ page }) => {
  await enterInes(page);
  await dayShown(page);
  let heard = 0;
  // It hangs until the page is gone.
  await page.route("**/api/sign-out", (route) => (++heard > 1 ? route.continue() : undefined));
  await page.getByRole("button", { name: "Sign out" }).click();
  await expect.poll(() => heard).toBe(1);
  await page.reload();
  await expect(page.getByLabel("E-mail")).toBeVisible();
  expect(heard).toBe(2);
  expect((await page.request.get(`${server.address}/api/day`)).status()).toBe(401);
});

test("a tablet left alone locks itself, and opens by the PIN, also without the server", async ({ page, context }) => {
  await page.clock.install();
  await enter(page, "bram@saltmere.example", "tide-table-4");
  await dayShown(page);
  await page.goto(`${server.address}/account`);
  const section = page.getByRole("region", { name: "PIN of a locked tablet" });
  await section.getByLabel("New PIN").fill("123456");
  await page.keyboard.press("Enter");
  await expect(section.getByText(/no row of digits/)).toBeVisible();
  await section.getByLabel("New PIN").fill("482917");
  await page.keyboard.press("Enter");
  await expect(section.getByText(/opens with your PIN/)).toBeVisible();
  await page.goto(server.address);
  await dayShown(page);

  await page.clock.fastForward("11:00");
  const lock = page.getByRole("dialog", { name: "Locked" });
  await expect(lock.getByText("Bram Oakley is signed in.")).toBeVisible();
  // Behind the cover nothing can be reached or read.
  const covered = () =>
    page.getByRole("link", { name: "Library" }).evaluateAll((links) =>
      links.every((link) => link.closest("[inert], [aria-hidden=true]") !== null),
    );
  await expect.poll(covered).toBe(true);
  await expect.poll(async () => (await page.request.get(`${server.address}/api/day`)).status()).toBe(423);
  await expectAccessible(page, "a locked tablet");
  await page.keyboard.press("Escape");
  await expect(lock).toBeVisible();
  await expect(lock.getByLabel("PIN", { exact: true })).toBeFocused();
  await page.keyboard.type("482918");
  await page.keyboard.press("Enter");
  await expect(lock.getByText("Not the right PIN.")).toBeVisible();
  await lock.getByLabel("PIN", { exact: true }).fill("482917");
  await page.keyboard.press("Enter");
  await expect(lock).toHaveCount(0);
  await dayShown(page);

  // The network is gone: the tablet knows its user by itself, and the server is told when it is back.
  await page.clock.fastForward("11:00");
  await expect(lock).toBeVisible();
  await expect.poll(async () => (await page.request.get(`${server.address}/api/day`)).status()).toBe(423);
  await context.setOffline(true);
  await lock.getByLabel("PIN", { exact: true }).fill("482911");
  await page.keyboard.press("Enter");
  await expect(lock.getByText("Not the right PIN.")).toBeVisible();
  await lock.getByLabel("PIN", { exact: true }).fill("482917");
  await page.keyboard.press("Enter");
  await expect(lock).toHaveCount(0);
  await expect(page.getByRole("link", { name: "Library" })).toBeVisible();
  await context.setOffline(false);
  await expect
    .poll(async () => (await page.request.get(`${server.address}/api/day`)).status(), { timeout: 20_000 })
    .toBe(200);
});

test("somebody else takes a locked tablet over, and what runs goes on", async ({ page }) => {
  await page.clock.install();
  await openScreen(page, server.address, /Nerys Quill/);
  await beginLegLowering(page);
  await page.keyboard.press("Space");
  await stored(page);
  await page.clock.fastForward("11:00");
  const lock = page.getByRole("dialog", { name: "Locked" });
  await expect(lock).toBeVisible();
  // No key of the live screen works through the lock.
  await lock.getByRole("button", { name: "Somebody else" }).focus();
  await page.keyboard.press(".");
  await lock.getByRole("button", { name: "Somebody else" }).click();
  const next = page.getByRole("dialog", { name: "Who takes the tablet?" });
  await next.getByRole("button", { name: /Bram Oakley/ }).click();
  await next.getByRole("button", { name: "Take it over" }).click();
  await expect(next).toHaveCount(0);
  await expect(page.getByRole("group", { name: "Pain during this trial" })).toBeVisible();
  await page.keyboard.press("Space");
  await stored(page);
  const visit = /visits\/([^/]+)/.exec(page.url())![1]!;
  const { events } = (await (await page.request.get(`${server.address}/api/visits/${visit}/events`)).json()) as {
    events: { kind: string; by: string }[];
  };
  const reps = events.filter((e) => e.kind === "rep-done" || e.kind === "hold-started" || e.kind === "measure-taken");
  expect(new Set(reps.map((e) => e.by))).toEqual(new Set(["Ines Tarrow", "Bram Oakley"]));
  expect(events.some((e) => e.kind === "trial-ended")).toBe(false);
});

test("a lost tablet is signed out from another one", async ({ page, browser }) => {
  await enterInes(page);
  await dayShown(page);
  const lost = await (await browser.newContext()).newPage();
  await enterInes(lost);
  await dayShown(lost);
  await page.goto(`${server.address}/account`);
  await page.getByRole("button", { name: /^Sign out: / }).first().click();
  // Its next question, and its stream, are answered by the door.
  await expect(lost.getByRole("heading", { name: "Sign in" })).toBeVisible({ timeout: 70_000 });
});

test("what was decided on is amended with a reason, and what stood there is shown struck through", async ({ page }) => {
  await enterInes(page);
  await page.getByRole("link", { name: /Brannoc Velde/ }).first().click();
  await page.waitForURL(/visits/);
  await page.goto(page.url().replace(/visits\/([^/]+).*/, "visits/$1/session"));
  await page.getByRole("button", { name: "Correct the check-in" }).click();
  await pick(page, "The morning after the last session", "6");
  await page.getByRole("button", { name: "Save the correction" }).press("Enter");
  const why = page.getByRole("dialog", { name: "Why is it changed?" });
  await expect(why.getByLabel("Reason")).toBeFocused();
  await expectAccessible(page, "asked why");
  await page.keyboard.press("Enter");
  await expect(why).toBeVisible();
  await page.keyboard.type("He had meant the evening.");
  await page.keyboard.press("Enter");
  await expect(why).toHaveCount(0);
  await page.getByRole("link", { name: "Amendments" }).click();
  const change = page.getByRole("article", { name: "Check-in" });
  await expect(change.getByRole("row", { name: /^Pain the next morning \d 6$/ })).toBeVisible();
  await expect(change.locator("del").first()).toBeVisible();
  await expect(change.getByText("He had meant the evening.")).toBeVisible();
  await expect(change.getByText(/Ines Tarrow/)).toBeVisible();
  await expectAccessible(page, "amendments");
});

test("a trial taken under the wrong client goes to the right one", async ({ page }) => {
  await openScreen(page, server.address, /Maris Telleke/);
  await beginLegLowering(page);
  await doTrial(page, "keys", true);
  await stored(page);
  await page.getByRole("button", { name: "Correct a trial" }).click();
  await page.getByRole("button", { name: /^Correct: / }).last().click();
  await page.getByLabel("Why").fill("The tablet was still open at the client before.");
  await page.getByRole("button", { name: /It was another client/ }).click();
  await page.getByRole("option", { name: /Asa Lindqvarn/ }).click();
  await page.getByRole("link", { name: "Amendments" }).click();
  await expect(page.getByText("The tablet was still open at the client before.")).toBeVisible();
  await page.goto(server.address);
  await page.getByRole("link", { name: /Asa Lindqvarn/ }).first().click();
  await page.getByRole("link", { name: "Amendments" }).click();
  await expect(page.getByText("The tablet was still open at the client before.")).toBeVisible();
});
