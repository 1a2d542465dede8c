import { expect, test } from "@playwright/test";
import { expectAccessible, pick, station } from "./hands";
import { Server } from "./server";
import { checkIn, doTheRest, signIn } from "./sessionHands";

const server = new Server("demo", 5203);

test.beforeAll(() => server.start());
test.afterAll(() => server.close());

test("what is ready is tried one up at Decide's word, by keys, and moves up", async ({ page }) => {
  test.setTimeout(600_000);
  await signIn(page, server.address);
  await page
    .getByRole("link", { name: /Ottoline Brask/ })
    .first()
    .click();
  await station(page, "Session");
  await checkIn(page, "3", "3", "the same day");
  await page.getByRole("button", { name: "Start the session" }).click();
  await expect(page.getByRole("button", { name: /^Start/ }).first()).toBeVisible();
  await doTheRest(page);
  await page.getByRole("link", { name: "Decide", exact: true }).click();
  const bridge = page.getByRole("region", { name: /^Bridge: / });
  await expect(bridge.getByText("Ready:")).toBeVisible();
  await expectAccessible(page, "decide, ready");
  await bridge.getByRole("link", { name: /^try one up today/ }).click();
  await expect(page.getByRole("heading", { name: /^Ready: try one up today/ })).toBeVisible();
  await expectAccessible(page, "one up offered");

  // The bridge is done on both sides at once, what comes after it on each. Another exercise is ready too: it waits.
  for (const side of ["left", "right"]) {
    await expect(
      page.getByRole("heading", { name: /^Ready: try one up today one-sided press/ }),
    ).toBeVisible();
    await page.getByRole("button", { name: new RegExp(`^Try it ${side}`) }).press("Enter");
    await expect(page.getByText("tried one up", { exact: false }).first()).toBeVisible();
    const reps = Number(
      /asked: (\d+) reps/.exec(
        await page
          .getByText(/asked: \d+ reps/)
          .first()
          .innerText(),
      )![1],
    );
    for (let rep = 1; rep <= reps; rep++) {
      await page.keyboard.press("Space");
      await expect(page.getByText(`${rep} clean of ${rep}`, { exact: false }).first()).toBeAttached();
    }
    if (await page.getByRole("button", { name: `End ${side} side` }).isVisible())
      await page.keyboard.press(".");
    await pick(page, /^Pain after/, "3");
    await pick(page, "Felt mainly in", "abdomen");
    if (side === "left") {
      // What is offered next is what the server says after it, not what was offered before.
      const anew = page.waitForResponse((r) => r.url().endsWith("/session") && r.ok());
      await pick(page, /^How hard/, "5");
      await anew;
      await expect(page.getByText("saved", { exact: true })).toBeVisible();
    }
  }
  // The last mark is still on its way when Decide is opened: nothing is agreed with until it is there.
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  let arrive = () => {};
  const held = new Promise<void>((resolve) => (arrive = resolve));
  await page.route("**/api/visits/*/events", async (route) => {
    if (route.request().method() === "POST") await held;
    await route.continue();
  });
  await pick(page, /^How hard/, "5");
  await page.getByRole("link", { name: "Decide", exact: true }).click();
  await expect(page.getByText("One mark is still being sent")).toBeVisible();
  await expect(page.getByRole("button", { name: "Agree with all" })).toBeDisabled();
  arrive();
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  await expect(page.getByRole("button", { name: "Agree with all" })).toBeEnabled();
  await expect(bridge).toHaveAccessibleName(/^Bridge: step up/);
  await expect(page.getByText(/^Tried one level up, left: /)).toBeVisible();
});
