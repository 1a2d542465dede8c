import { expect, type Page, test } from "@playwright/test";
import { beginLegLowering, openScreen, stored } from "./screening";
import { Server } from "./server";

// What is tapped is kept, or it is said at once that it is not.
const server = new Server("demo", 5265);

test.beforeAll(() => server.start());
test.afterAll(() => server.close());

const visitOf = (page: Page) => /visits\/([^/]+)/.exec(page.url())![1]!;

/** How many marks the server has of a visit, none twice. */
async function marksOnServer(page: Page) {
  const answer = await page.request.get(`${server.address}/api/visits/${visitOf(page)}/events`);
  const { events } = (await answer.json()) as { events: { id: string; kind: string }[] };
  expect(new Set(events.map((e) => e.id)).size).toBe(events.length);
  return events.filter((e) => e.kind === "fault-marked").length;
}

async function inATrial(page: Page, name: RegExp) {
  await openScreen(page, server.address, name);
  await beginLegLowering(page);
  await markTwo(page);
  await stored(page);
}

/** Two marks, whatever the trial is measured by. */
async function markTwo(page: Page) {
  for (const fault of ["holds breath", "rushed"]) await page.getByRole("button", { name: new RegExp(`^${fault}`) }).first().click();
}

test("a full tablet without a server says at once that a tap is only on the page, and loses none", async ({ page, context }) => {
  await page.addInitScript(() => {
    // As a browser refuses it: by an exception from the store.
    const put = IDBObjectStore.prototype.put;
    IDBObjectStore.prototype.put = function (...row: Parameters<typeof put>) {
      if (document.documentElement.hasAttribute("data-full")) throw new DOMException("full", "QuotaExceededError");
      return put.apply(this, row);
    };
  });
  await inATrial(page, /Nerys Quill/);
  const before = await marksOnServer(page);
  await context.setOffline(true);
  const full = (is: boolean) => page.evaluate((now) => document.documentElement.toggleAttribute("data-full", now), is);
  await full(true);
  await markTwo(page);
  await expect(page.getByRole("status").filter({ hasText: "2 only on this page" })).toBeVisible();
  await expect(page.getByRole("status").filter({ hasText: /\d kept/ })).toHaveCount(0);
  // There is room again: now they outlive the page.
  await full(false);
  await expect(page.getByRole("status").filter({ hasText: "2 kept; server away" })).toBeVisible({
    timeout: 15_000,
  });
  await context.setOffline(false);
  await page.reload();
  await stored(page);
  expect(await marksOnServer(page)).toBe(before + 2);
});

test("a browser that stores nothing says so from the start, and what is tapped reaches the server", async ({ page }) => {
  await page.addInitScript(() => {
    Object.defineProperty(window, "indexedDB", { get: () => undefined });
  });
  await openScreen(page, server.address, /Ottoline Brask/);
  const mark = page.getByRole("button", { name: "nothing is stored here" });
  await expect(mark).toBeVisible();
  await mark.click();
  await expect(page.getByRole("dialog", { name: "What is stored" })).toContainText("do not close or reload it");
  await page.keyboard.press("Escape");
  await beginLegLowering(page);
  await markTwo(page);
  await expect.poll(() => marksOnServer(page)).toBe(2);
});

test("two tabs are one: what one taps without a server the other sends", async ({ page, context }) => {
  await inATrial(page, /Fenwick Oduya/);
  const before = await marksOnServer(page);
  const other = await context.newPage();
  await other.goto(page.url());
  await stored(other);
  await context.setOffline(true);
  await page.bringToFront();
  await markTwo(page);
  await expect(other.getByRole("status").filter({ hasText: "2 kept" })).toBeVisible();
  // The tab that was tapped in is gone before the network is back.
  await page.close({ runBeforeUnload: false });
  await context.setOffline(false);
  await stored(other);
  expect(await marksOnServer(other)).toBe(before + 2);
});
