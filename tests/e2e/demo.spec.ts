import { expect, type Page, test } from "@playwright/test";
import { expectAccessible, settled, station } from "./hands";
import { Server } from "./server";

const server = new Server("demo", 5192);

test.beforeAll(() => server.start());
test.afterAll(() => server.close());

async function enter(page: Page) {
  await page.goto(server.address);
  await page.getByRole("button", { name: /Ines Tarrow/ }).click();
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Needs a decision" })).toBeVisible();
}

async function open(page: Page, name: RegExp) {
  await page.goto(server.address);
  await page.getByRole("link", { name }).first().click();
  await expect(page.getByRole("navigation", { name: "Steps of the visit" })).toBeVisible();
}

const sizes = [
  { width: 1280, height: 800 },
  { width: 820, height: 1180 },
];

/** Every station, and what stands on it when it is there. */
const stations = [
  ["Ask", "What hurts"],
  ["Neutral", "Neutral"],
  ["Screen", "The screen"],
  ["Findings", "Opposite arm and leg"],
  ["Plan", "Plan, revision"],
  ["Session", "Today"],
  ["Decide", "decisions"],
  ["Take home", "Take home"],
] as const;

for (const size of sizes) {
  test(`every view is accessible at ${size.width} × ${size.height}`, async ({ page }) => {
    await page.setViewportSize(size);
    await page.goto(server.address);
    await expect(page.getByText("Demo.")).toBeVisible();
    await expectAccessible(page, "sign-in");
    await enter(page);
    await expectAccessible(page, "day");
    await page.getByRole("button", { name: "New client" }).click();
    await expectAccessible(page, "new client");
    await open(page, /Nerys Quill/);
    for (const [name, sign] of stations) {
      await station(page, name);
      await expect(page.getByRole("heading", { name: new RegExp(sign) }).first()).toBeVisible();
      await expectAccessible(page, name);
    }
    await page.goto(`${page.url().replace(/take-home$/, "plan/compare")}`);
    await expect(page.getByRole("heading", { name: "Revisions side by side" })).toBeVisible();
    await expectAccessible(page, "revisions side by side");
    await page.goto(`${server.address}/settings`);
    await expect(page.getByRole("heading", { name: "Policies" })).toBeVisible();
    await expectAccessible(page, "settings");
    await open(page, /Ottoline Brask/);
    await station(page, "Session");
    await expect(page.getByRole("heading", { name: "Since last time" })).toBeVisible();
    await expectAccessible(page, "start of a session");
    await open(page, /Tobiah Wren/);
    await expectAccessible(page, "red flag");
    await station(page, "Plan");
    await expect(page.getByRole("heading", { name: "Stopped by a red flag" })).toBeVisible();
    await expectAccessible(page, "closed");
  });
}

test("a red flag at a later visit stops it before any other question is answered", async ({ page }) => {
  await enter(page);
  await open(page, /Fenwick Oduya/);
  await station(page, "Session");
  await page.getByText("Pain has moved further down the leg since last time").click();
  await page.getByRole("button", { name: "Record the red flag and stop" }).click();
  await expect(page.getByRole("heading", { name: "Stopped by a red flag" })).toBeVisible();
  await station(page, "Decide");
  await expect(page.getByRole("heading", { name: "Stopped by a red flag" })).toBeVisible();
});

test("the live screen is accessible, and nothing in it is smaller than a finger", async ({ page }) => {
  await page.setViewportSize({ width: 820, height: 1180 });
  await enter(page);
  await open(page, /Maris Telleke/);
  await station(page, "Screen");
  await page.getByRole("button", { name: "Begin the screen" }).click();
  await page.getByRole("button", { name: "Do Leg lowering now" }).click();
  await page.getByRole("button", { name: /^Start/ }).click();
  await expect(page.getByRole("button", { name: /^(Rep done|Start hold)$/ })).toBeVisible();
  await expectAccessible(page, "live screen");
  for (const button of await page.getByRole("main").getByRole("button").all()) {
    if ((await button.innerText()) === "Keys ?") continue;
    const box = (await button.boundingBox())!;
    expect(box.height, await button.innerText()).toBeGreaterThanOrEqual(56);
    expect(box.width, await button.innerText()).toBeGreaterThanOrEqual(56);
  }
});

test("nothing is wider than a phone", async ({ page }) => {
  await enter(page);
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, /Nerys Quill/);
  for (const [name, sign] of stations) {
    await station(page, name);
    await expect(page.getByRole("heading", { name: new RegExp(sign) }).first()).toBeVisible();
    await settled(page);
    const width = await page.evaluate(() => document.documentElement.scrollWidth);
    expect(width, name).toBeLessThanOrEqual(390);
  }
});

test("a forbidden rung shows why, and is used only with a written reason and a second look", async ({ page }) => {
  await enter(page);
  await open(page, /Ottoline Brask/);
  await station(page, "Plan");
  await page.getByRole("tab", { name: /^Left out/ }).click();
  await expect(page.getByRole("heading", { name: "Contraindicated for this client" })).toBeVisible();
  await page.getByRole("tab", { name: "Exercises" }).click();
  await page.getByRole("button", { name: "Add an exercise" }).click();
  await page.getByRole("button", { name: /Leg float.*contraindicated/ }).click();
  const use = page.getByRole("button", { name: "Prescribe despite the contraindication" });
  await expect(use).toBeDisabled();
  await page.getByLabel("Why it is safe for this client").fill("On fists, tried, pain free.");
  await expect(use).toBeDisabled();
  await page.getByText("I have reviewed this").click();
  await use.click();
  await expect(page.getByText(/prescribed all the same: On fists, tried, pain free\./)).toBeVisible();
});

for (const [paper, size] of [
  ["A4", { width: 595, height: 842 }],
  ["Letter", { width: 612, height: 792 }],
] as const) {
  test(`five exercises fit one page of ${paper}`, async ({ page }) => {
    await enter(page);
    await open(page, /Ivo Sandringham/);
    await station(page, "Plan");
    await expect(page.getByRole("heading", { name: /Plan, revision/ })).toBeVisible();
    const outs = page.getByRole("button", { name: /: change, swap, why$/ });
    while ((await outs.count()) > 5) {
      const before = await outs.count();
      await outs.last().click();
      await page.getByRole("button", { name: "Leave out", exact: true }).click();
      await expect(outs).toHaveCount(before - 1);
    }
    for (const rung of [/^Leg reach, arms still$/, /^Bridge, straighten one leg$/, /^Leg slide$/, /^Heel tap$/]) {
      if ((await outs.count()) >= 5) break;
      const before = await outs.count();
      await page.getByRole("button", { name: "Add an exercise" }).click();
      await page.getByRole("dialog").getByText(rung).first().click();
      await expect(outs).toHaveCount(before + 1);
    }
    await expect(outs).toHaveCount(5);
    const accept = page.getByRole("button", { name: /Accept as revision/ });
    if (await accept.isEnabled()) await accept.click();
    else await station(page, "Take home");
    await page.getByRole("radiogroup", { name: "Paper" }).getByText(paper).click();
    await expect(page.getByRole("article", { name: "Home programme" }).locator("section")).toHaveCount(5);
    const pdf = (await page.pdf({ preferCSSPageSize: true })).toString("latin1");
    expect(pdf.match(/\/Type\s*\/Page\b(?!s)/g)).toHaveLength(1);
    const box = /\/MediaBox\s*\[\s*0\s+0\s+([\d.]+)\s+([\d.]+)/.exec(pdf)!;
    expect(Math.abs(Number(box[1]) - size.width)).toBeLessThan(2);
    expect(Math.abs(Number(box[2]) - size.height)).toBeLessThan(2);
  });
}

test("a sentence of letters is written the clinic's own way, by keys, and seen before it is kept", async ({ page }) => {
  await enter(page);
  await page.goto(`${server.address}/settings?part=words`);
  const letters = page.getByRole("region", { name: "Letters and home programmes" });
  await letters.getByText("Letters", { exact: true }).focus();
  await page.keyboard.press("Enter");
  const change = letters.getByRole("button", { name: /^Change: Current plan/ });
  await change.press("Enter");
  const dialog = page.getByRole("dialog", { name: "Sentence" });
  const text = dialog.getByLabel("Sentence");
  await text.fill("Daily at home: {{ exercises | join: ");
  await dialog.getByRole("button", { name: "Preview" }).press("Enter");
  await expect(dialog.getByText(/This sentence cannot be read/)).toBeVisible();
  await expect(text).toHaveValue("Daily at home: {{ exercises | join: ");
  await expectAccessible(page, "a sentence that cannot be read");
  await text.fill('Daily at home: {{ exercises | join: "; " }}.');
  await dialog.getByRole("button", { name: "Preview" }).press("Enter");
  await expect(dialog.getByText(/^As it would read for /)).toBeVisible();
  await expect(dialog.getByText(/^Daily at home: /).last()).toBeVisible();
  await dialog.getByRole("button", { name: "Save" }).press("Enter");
  await expect(letters.getByText(/your own, by Ines Tarrow/)).toBeVisible();
  await letters.getByRole("button", { name: /^Change: Daily at home/ }).press("Enter");
  await dialog.getByRole("button", { name: "Use the original" }).press("Enter");
  await expect(letters.getByRole("button", { name: /^Change: Current plan/ })).toBeVisible();
});
