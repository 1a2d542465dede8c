import { readFileSync } from "node:fs";
import { expect, type Page, test } from "@playwright/test";
import { expectAccessible, settled } from "./hands";
import { Server } from "./server";

const server = new Server("demo", 5195);

test.beforeAll(() => server.start());
test.afterAll(() => server.close());

test.beforeEach(async ({ page }) => {
  await page.goto(server.address);
  await page.getByRole("button", { name: /Ines Tarrow/ }).click();
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Needs a decision" })).toBeVisible();
});

const newtonMetres = (page: Page) =>
  page
    .getByRole("table")
    .getByRole("row")
    .nth(1)
    .getByRole("cell")
    .first()
    .innerText()
    .then(Number);

test("from the ladders to a rung: it moves, it fails, and the load follows the sliders", async ({ page }) => {
  await page.getByRole("link", { name: "Library" }).click();
  await expect(page.getByRole("heading", { name: "Limb lowering" })).toBeVisible();
  await expect(page.locator("ol svg").first()).toBeVisible();
  await expectAccessible(page, "library");
  await page.getByRole("link", { name: "Leg reach, arms still" }).click();
  await expect(page.getByRole("heading", { name: "Leg reach, arms still" })).toBeVisible();
  await expect(page.getByText("For a typical body, 1.70 m, 70 kg.")).toBeVisible();
  const full = await newtonMetres(page);
  await expect(page.getByRole("heading", { name: "Faults" })).toBeVisible();
  await expect(page.getByRole("img", { name: /low back arches/ })).toBeVisible();
  await expectAccessible(page, "rung");

  // The slider by keyboard: to its least range.
  await page.getByRole("slider", { name: "Range" }).focus();
  await page.keyboard.press("Home");
  await expect(page.getByText(/^20 %, heel/)).toBeVisible();
  await expect.poll(() => newtonMetres(page)).toBeLessThan(full);
  await page.keyboard.press("End");
  await expect.poll(() => newtonMetres(page)).toBe(full);

  const figure = page.getByRole("img", { name: /^Leg reach, arms still:/ });
  await page.getByRole("button", { name: "Show it moving" }).click();
  const shape = () => figure.locator("path").evaluateAll((paths) => paths.map((p) => p.getAttribute("d")).join());
  const one = await shape();
  await expect.poll(shape).not.toBe(one);
  await page.getByRole("button", { name: "Hold still" }).click();

  // The drawing as a file, with its words in it.
  for (const [kind, begins] of [
    ["SVG", /^<svg [^]*<title>Leg reach, arms still:/],
    ["PNG", /^.PNG[^]*iTXtDescription[^]*Leg reach, arms still:/],
  ] as const) {
    const download = page.waitForEvent("download");
    await page.getByRole("button", { name: `Save as ${kind}` }).click();
    const saved = await download;
    expect(saved.suggestedFilename()).toBe(`Leg reach, arms still.${kind.toLowerCase()}`);
    expect(readFileSync(await saved.path(), "latin1")).toMatch(begins);
  }

  await page.getByRole("link", { name: /^Harder: / }).click();
  await expect(page.getByRole("heading", { name: "Leg reach, same side in a row" })).toBeVisible();
});

test("with motion reduced nothing moves by itself; a slider goes through the pictures", async ({ page }) => {
  await page.emulateMedia({ reducedMotion: "reduce" });
  await page.goto(`${server.address}/library/rungs/J4`);
  await expect(page.getByRole("heading", { name: "Circle, leg straight, large" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Show it moving" })).toHaveCount(0);
  await page.getByRole("slider", { name: "Through the movement" }).focus();
  await page.keyboard.press("Home");
  await expect(page.getByRole("img", { name: /^Circle, leg straight, large: / })).toBeVisible();
});

test("with a client open, the library shows what is barred, and the load is for this body", async ({ page }) => {
  await page.getByRole("link", { name: /Ottoline Brask/ }).first().click();
  // The day has a way to the library of its own.
  await expect(page.getByRole("navigation", { name: "Steps of the visit" })).toBeVisible();
  await page.getByRole("link", { name: "Library" }).click();
  await expect(page.getByText("for Ottoline Brask")).toBeVisible();
  await expect(page.getByRole("link", { name: /Leg float contraindicated/ })).toBeVisible();
  await expect(page.getByRole("link", { name: /Bridge · in the plan/ })).toBeVisible();
  await page.getByRole("link", { name: /Leg float contraindicated/ }).click();
  await expect(page.getByRole("alert")).toContainText("leans on flat hands");
  await expect(page.getByText(/^For Ottoline Brask, 1\./)).toBeVisible();
  await expectAccessible(page, "rung of a client");
  await page.getByRole("link", { name: "Back to Ottoline Brask" }).click();
  await expect(page.getByRole("navigation", { name: "Steps of the visit" })).toBeVisible();
});

test("every rung is on the contact sheet, small and large, on either side", async ({ page }) => {
  await page.goto(`${server.address}/library/sheet`);
  await expect(page.getByRole("heading", { name: "Every rung, drawn" })).toBeVisible();
  const rungs = page.getByRole("listitem");
  await expect(rungs.filter({ hasText: "Foot float" }).locator("svg")).toBeVisible();
  expect(await rungs.count()).toBeGreaterThan(90);
  expect(await rungs.locator("svg").count()).toBe(await rungs.count());
  await page.getByRole("radiogroup", { name: "Size" }).getByText("320 px").click();
  await page.getByRole("radiogroup", { name: "Side of the task" }).getByText("left").click();
  await expect(rungs.locator("svg").first()).toBeVisible();
  await expectAccessible(page, "contact sheet");
});

test("a shorter range in a plan says where it ends and what it is of the full load", async ({ page }) => {
  await page.getByRole("link", { name: /Ivo Sandringham/ }).first().click();
  await page
    .getByRole("navigation", { name: "Steps of the visit" })
    .getByRole("link", { name: "Plan", exact: true })
    .click();
  await expect(page.getByRole("heading", { name: /Plan, revision/ })).toBeVisible();
  await page.getByRole("button", { name: "Add an exercise" }).click();
  await page.getByLabel("Find by name").fill("leg reach, arms");
  await page.getByRole("dialog").getByRole("button", { name: "Leg reach, arms still" }).click();
  await page.getByRole("button", { name: "Leg reach, arms still: change, swap, why" }).click();
  const whole = page.getByRole("dialog", { name: "Leg reach, arms still" });
  await whole.getByRole("button", { name: /^Range in percent of the movement, left/ }).click();
  const range = page.getByRole("textbox", { name: "Range in percent of the movement, left" });
  await range.fill("60");
  await range.blur();
  await expect(whole.getByText(/60 % of the range, heel \d+ cm up: \d+ % of the full load/)).toBeVisible();
});

test("nothing in the library is wider than a phone", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  for (const path of ["/library", "/library/rungs/H1", "/library/sheet"]) {
    await page.goto(server.address + path);
    await expect(page.locator("main svg").first()).toBeVisible();
    await settled(page);
    expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(390);
  }
});
