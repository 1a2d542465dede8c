import { existsSync, readdirSync } from "node:fs";
import path from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { Build } from "./build";
import { enter, expectAccessible, liveCounts, station } from "./hands";
import { Server } from "./server";

const client = new Build();
const server = new Server("demo", 5243, undefined, { PALAESTRA_CLIENT: client.folder });

/** As a clinic is renewed: the server is stopped and started with the next version beside the same data. */
async function renew(mark: string) {
  await server.kill();
  client.make(mark);
  await server.start();
  await kept(mark);
}

const kept = (mark: string) =>
  expect
    .poll(() => {
      const folder = path.join(server.folder, "client");
      const builds = existsSync(folder) ? readdirSync(folder).filter((name) => !name.endsWith(".part")) : [];
      return builds.some((name) =>
        readdirSync(path.join(folder, name, "assets")).some((file) => file.endsWith(`${mark}.js`)),
      );
    })
    .toBe(true);

const buildOf = (page: Page) => page.locator('meta[name="palaestra-client"]').getAttribute("content");

test.beforeAll(async () => {
  client.make("one");
  await server.start();
  await kept("one");
});
test.afterAll(async () => {
  await server.close();
  client.remove();
});

test("an update while a screen is live interrupts nothing, and is taken when somebody wants it", async ({ page }) => {
  // Nothing is loaded before it is needed: what comes after the update has to be found after it.
  await page.addInitScript(() => {
    window.requestIdleCallback = () => 0;
  });
  await enter(page, server, /Sorrel|Ines/);
  const first = await buildOf(page);
  await page.getByRole("link", { name: /Maris Telleke/ }).first().click();
  await station(page, "Screen");
  await page.getByRole("button", { name: "Begin the screen" }).click();
  await page.getByRole("button", { name: "Do Leg lowering now" }).click();
  await page.getByRole("button", { name: /^Start/ }).click();
  const rep = page.getByRole("button", { name: /^(Rep done|Start hold)$/ });
  await rep.first().click();
  const before = await liveCounts(page);

  await renew("two");

  await rep.first().click();
  await rep.first().click();
  await expect.poll(() => liveCounts(page)).not.toEqual(before);
  await expect(page.getByText("A new version is ready.")).toHaveCount(0);
  await expect(page.getByText("saved", { exact: true })).toBeVisible();

  // A page of the build before, first asked for after the update.
  await station(page, "Session");
  const steps = page.getByRole("navigation", { name: "Steps of the visit" });
  await expect(steps.getByRole("link", { name: "Session" })).toHaveAttribute("aria-current", "page");
  await expect(page.getByRole("main").getByRole("heading").first()).toBeVisible();
  await page.getByRole("link", { name: "The day" }).first().click();
  await expect(page.getByText("A new version is ready.")).toBeVisible();
  await expectAccessible(page, "the day with a new version");
  await page.getByRole("button", { name: "Use it now" }).click();
  await expect.poll(() => buildOf(page)).not.toBe(first);
  await expect(page.getByRole("link", { name: /Maris Telleke/ }).first()).toBeVisible();
  await expect(page.getByText("A new version is ready.")).toHaveCount(0);
});

test("a page left open over two updates goes on where the browser keeps it, and elsewhere is loaded anew by one press", async ({ page, browser }) => {
  // As over plain http in the clinic's network, where nothing is kept.
  const unkept = await (await browser.newContext({ serviceWorkers: "block" })).newPage();
  for (const one of [page, unkept]) {
    await one.addInitScript(() => {
      window.requestIdleCallback = () => 0;
    });
    await enter(one, server, /Sorrel|Ines/);
  }
  await page.evaluate(() => navigator.serviceWorker.ready);
  await renew("three");
  await renew("four");
  const clients = (one: Page) => one.getByRole("link", { name: "Clients", exact: true });
  await clients(page).click();
  await expect(page.getByRole("heading", { name: "Clients" })).toBeVisible();
  await clients(unkept).click();
  await expect(unkept.getByRole("alert")).toContainText("This page could not be shown");
  await expectAccessible(unkept, "a page that could not be loaded");
  await unkept.getByRole("button", { name: "Load again" }).click();
  await expect(unkept.getByRole("heading", { name: "Clients" })).toBeVisible();
});
