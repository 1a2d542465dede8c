import AxeBuilder from "@axe-core/playwright";
import { expect, type Page } from "@playwright/test";
import type { Server } from "./server";

/** Signs in as one of the demo's accounts. */
export async function enter(page: Page, server: Server, name: RegExp) {
  await page.goto(server.address);
  await page.getByRole("button", { name }).click();
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
  await expect(page.getByRole("link", { name: "Library" })).toBeVisible();
}

/** To another step of the visit: by its name, or where there is no room for all names by the menu. */
export async function station(page: Page, name: string) {
  const steps = page.getByRole("navigation", { name: "Steps of the visit" });
  const leave = page.getByRole("button", { name: "Leave", exact: true });
  await expect(steps.or(leave)).toBeVisible();
  if (await leave.isVisible()) {
    await leave.click();
    return page.getByRole("menuitem", { name, exact: true }).click();
  }
  const link = steps.getByRole("link", { name, exact: true });
  if (await link.isVisible()) return link.click();
  await steps.locator(".short").getByRole("button").click();
  await page.getByRole("menuitem", { name, exact: true }).click();
}

export const pick = (page: Page, group: string | RegExp, choice: string | RegExp) =>
  page
    .getByRole("radiogroup", { name: group })
    .locator("label")
    .filter({ hasText: typeof choice === "string" ? new RegExp(`^${choice}$`) : choice })
    .click();

/** Types the code, and is the clinic's first administrator. */
export async function becomeFirst(page: Page, code: string) {
  await page.getByLabel("Code").fill(code);
  await page.getByLabel("Name").fill("Edda Marl");
  await page.getByLabel("E-mail").fill("edda@clinic.example");
  await page.getByLabel("Password").fill("three quiet words");
  await page.getByRole("button", { name: "Open the clinic" }).click();
}

/** Types a date (and time) part by part, in the clinic's order; full parts go on by themselves. */
export async function typeDate(page: Page, label: string, digits: string) {
  await page.getByRole("group", { name: label }).getByRole("spinbutton").first().click();
  await page.keyboard.type(digits);
}

/** Answers the questions of a new client who has no red flag. */
export async function askNewClient(page: Page, name: string) {
  await page.getByLabel("Name", { exact: true }).fill(name);
  await typeDate(page, "Birth date", "11041979");
  await page.getByText("Asked: none of these").click();
  await page.getByRole("button", { name: "Next" }).click();
  await page.getByLabel("Main complaint").fill("Aches after a day of splicing rope.");
  await pick(page, "Pain now", "2");
  await pick(page, "Worst, last week", "4");
  await pick(page, "Usual, last week", "2");
  await pick(page, "After a flare-up it settles", "within an hour");
}

/** What was rendered last is drawn, and nothing is on its way to another colour or place. */
export const settled = (page: Page) =>
  page.waitForFunction(
    () =>
      new Promise<boolean>((resolve) =>
        requestAnimationFrame(() =>
          requestAnimationFrame(() => {
            const moving = document
              .getAnimations()
              .some((a) => a.playState === "running" && a.effect?.getComputedTiming().iterations !== Infinity);
            resolve(!moving);
          }),
        ),
      ),
  );

/** No violation of WCAG 2 A and AA that axe can see. */
export async function expectAccessible(page: Page, what: string) {
  await settled(page);
  const found = await new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa"]).analyze();
  const words = found.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 140)).join(" | ")}`);
  expect(words, what).toEqual([]);
}

/** The number that stands before "clean of N reps" for the running side. */
export const liveCounts = async (page: Page) => {
  const words = await page.getByText(/clean of \d+ reps/).allInnerTexts();
  return words.map((w) => Number(/of (\d+)/.exec(w)?.[1]));
};
