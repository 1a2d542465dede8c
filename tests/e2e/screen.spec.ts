import { expect, type Page, test } from "@playwright/test";
import { expectAccessible } from "./hands";
import { doTrial, finished, kindOfTrial, openScreen, startButton, stored } from "./screening";
import { Server } from "./server";

const server = new Server("demo", 5196);

test.beforeAll(() => server.start());
test.afterAll(() => server.close());

for (const [hand, size] of [
  ["touch", { width: 820, height: 1180 }],
  ["keys", { width: 1280, height: 800 }],
] as const) {
  test.describe(`a whole screen with ${hand} alone`, () => {
    test.use({ viewport: size, hasTouch: hand === "touch" });

    test(`at ${size.width} × ${size.height}, accessible in every state`, async ({ page }) => {
      await openScreen(page, server.address, hand === "touch" ? /Maris Telleke/ : /Asa Lindqvarn/);
      await expect(page.getByRole("heading", { name: /^The screen/ })).toBeVisible();
      await expectAccessible(page, "planning the screen");
      const begin = page.getByRole("button", { name: "Begin the screen" });
      if (hand === "touch") await begin.tap();
      else await begin.press("Enter");

      const seen = new Set<string>();
      let trials = 0;
      await page.evaluate(() => {
        document.addEventListener("pointerup", () => {
          document.body.dataset.taps = String(Number(document.body.dataset.taps ?? 0) + 1);
        }, true);
      });
      for (let trial = 0; trial < 60; trial++) {
        await expect(startButton(page).or(finished(page)).first()).toBeVisible();
        if (await finished(page).isVisible()) break;
        if (hand === "touch") await startButton(page).tap();
        else {
          await expect(startButton(page)).toBeFocused();
          await page.keyboard.press("Enter");
        }
        await expect(page.getByRole("group", { name: "Faults, by where they show" })).toBeVisible();
        const state = await kindOfTrial(page);
        if (!seen.has(state)) {
          seen.add(state);
          await expectAccessible(page, state);
        }
        trials++;
        await doTrial(page, hand, trial % 3 !== 2 && !(hand === "keys" && (await isHeld(page))));
      }
      await expect(finished(page)).toBeVisible();
      if (hand === "touch") {
        const taps = Number(await page.evaluate(() => document.body.dataset.taps));
        test.info().annotations.push({ type: "taps", description: `${taps} in ${trials} trials` });
        console.log(`${taps} taps in ${trials} trials`);
        expect(taps / trials, `${taps} taps in ${trials} trials`).toBeLessThanOrEqual(5);
      }
      expect([...seen]).toEqual(expect.arrayContaining(["effort", "yes or no", "seconds", "reps"]));
      await stored(page);
      await expectAccessible(page, "screened");
      const link = page.getByRole("link", { name: "See the findings" });
      if (hand === "touch") await link.tap();
      else await link.press("Enter");
      await expect(page.getByRole("tab", { name: "By direction" })).toBeVisible();
      await expectAccessible(page, "findings at a glance");
      await page.getByRole("button", { name: /with trials and norms/ }).click();
      await page.getByRole("button", { name: "One-leg stance" }).click();
      await expect(page.getByText(/Springer et al\. 2007/).first()).toBeVisible();
      await expectAccessible(page, "findings");
    });
  });
}

/** With keys holds are broken off: a clean one takes its whole time, and touch does those. */
const isHeld = async (page: Page) => (await page.getByRole("button", { name: "Start hold" }).count()) > 0;
