import { expect, type Page, test } from "@playwright/test";
import { expectAccessible, station } from "./hands";
import { Server } from "./server";

const server = new Server("demo", 5199);

test.beforeAll(() => server.start());
test.afterAll(() => server.close());

async function openPlan(page: Page, name: RegExp) {
  await page.goto(server.address);
  await page.getByRole("button", { name: /Ines Tarrow/ }).click();
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
  await page.getByRole("link", { name }).first().click();
  await station(page, "Plan");
  await expect(page.getByRole("heading", { name: /Plan, revision/ })).toBeVisible();
}

/** The exercises of the plan, by name, in order. */
const exercises = (page: Page) =>
  page.getByRole("grid", { name: "Exercises, in order" }).getByRole("row").getByRole("heading").allInnerTexts();

/** Everything about one exercise, opened. */
async function about(page: Page, rung: string) {
  await page.getByRole("button", { name: `${rung}: change, swap, why` }).click();
  return page.getByRole("dialog", { name: rung, exact: true });
}

async function proposeAnew(page: Page) {
  await page.getByRole("button", { name: "Propose again from the findings" }).click();
  await expect(page.getByRole("heading", { name: "Proposed plan" })).toBeVisible();
}

test("a plan follows the minutes, keeps what is kept, leaves out what is not wanted", async ({ page }) => {
  await openPlan(page, /Nerys Quill/);
  await proposeAnew(page);
  const slider = page.getByRole("slider", { name: "Minutes a day" });
  const all = await exercises(page);
  await slider.focus();
  await slider.press("Home");
  await expect(page.getByText("P-NEAREST", { exact: false }).first()).toBeVisible();
  for (let i = 0; i < 7; i++) await slider.press("ArrowRight");
  await expect(page.getByText("8 min; the client has 15")).toBeVisible();
  await expect.poll(async () => (await exercises(page)).length).toBeLessThanOrEqual(all.length);
  await expectAccessible(page, "proposal with a slider");

  const row = page.getByRole("row", { name: "Leg float" });
  const whole = await about(page, "Leg float");
  await expectAccessible(page, "an exercise of a plan");
  await whole.getByRole("button", { name: "Lock Leg float as it is" }).click();
  await whole.getByRole("button", { name: "Done" }).click();
  await row.getByRole("button", { name: /^Reps, right:/ }).click();
  const reps = page.getByRole("textbox", { name: "Reps, right" });
  await reps.fill("4");
  await reps.press("Enter");
  await page.keyboard.press("Escape");
  await slider.focus();
  for (let i = 0; i < 7; i++) await slider.press("ArrowRight");
  await expect(page.getByText("15 min, what the client has")).toBeVisible();
  await expect(row.getByRole("button", { name: "Reps, right: 4" })).toBeVisible();
  await expect(row.getByText("locked")).toBeVisible();

  // Whatever stands last in the plan: it goes, and stays away.
  const name = (await exercises(page)).at(-1)!;
  const standing = async () => (await exercises(page)).includes(name);
  await (await about(page, name)).getByRole("button", { name: "Leave out" }).click();
  await expect.poll(standing).toBe(false);
  await slider.focus();
  await slider.press("ArrowRight");
  await expect(page.getByText("16 min; the client has 15")).toBeVisible();
  expect(await standing()).toBe(false);
});

test("an exercise is swapped for an equal, with what it asks and what is different", async ({ page }) => {
  await openPlan(page, /Ivo Sandringham/);
  const before = await exercises(page);
  const row = page.getByRole("row", { name: "Heel tap" });
  await (await about(page, "Heel tap")).getByRole("button", { name: "Swap" }).click();
  const dialog = page.getByRole("dialog", { name: "Swap for a similar exercise" });
  await expect(dialog.getByText(/Its load: \d+ N·m against arching/)).toBeVisible();
  await expectAccessible(page, "swaps");
  const choice = dialog.getByRole("button").filter({ hasText: "%" }).first();
  const name = (await choice.locator("strong").first().innerText()).trim();
  await choice.click();
  await expect(page.getByRole("row", { name, exact: true })).toBeVisible();
  await expect(row).toHaveCount(0);
  expect((await exercises(page)).length).toBe(before.length);
});

test("moving a peg by keys or by dragging changes what is prescribed", async ({ page }) => {
  await openPlan(page, /Ivo Sandringham/);
  await page.getByRole("tab", { name: "Ladders" }).click();
  const ladder = page.getByRole("radiogroup", { name: "Limb lowering" });
  await ladder.getByRole("radio", { name: /^Heel tap/ }).focus();
  await page.keyboard.press("ArrowDown");
  await expect(ladder.getByRole("radio", { name: /^Both arms overhead/ })).toBeChecked();

  const peg = ladder.locator('[data-rung="B4"]');
  const target = ladder.locator('[data-rung="B2"]');
  await target.scrollIntoViewIfNeeded();
  const from = (await peg.boundingBox())!;
  const to = (await target.boundingBox())!;
  await page.mouse.move(from.x + 30, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(to.x + 30, to.y + to.height / 2, { steps: 6 });
  await page.mouse.up();
  await page.getByRole("tab", { name: "Exercises" }).click();
  await expect(page.getByRole("row", { name: "Four-count march" })).toBeVisible();
  await expect(page.getByRole("row", { name: /^Both arms overhead/ })).toHaveCount(0);
});

test("the order is changed by keys alone", async ({ page }) => {
  await openPlan(page, /Ivo Sandringham/);
  const before = await exercises(page);
  const grip = page.getByRole("grid", { name: "Exercises, in order" }).getByRole("button").first();
  await grip.focus();
  await page.keyboard.press("Enter");
  // It is taken up once the keys are at a place to put it.
  await expect(grip).not.toBeFocused();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect.poll(() => exercises(page)).not.toEqual(before);
  expect((await exercises(page)).sort()).toEqual([...before].sort());
});

test("a barred rung needs a reason and a second confirmation, and stays marked", async ({ page }) => {
  await openPlan(page, /Ottoline Brask/);
  await page.getByRole("tab", { name: "Ladders" }).click();
  await page.getByRole("button", { name: "All ladders" }).click();
  const ladder = page.getByRole("radiogroup", { name: "Hands and knees" });
  await expect(ladder.getByText(/contraindicated · sore wrist/).first()).toBeVisible();
  await ladder.getByText("Leg slide", { exact: true }).click();
  const override = page.getByRole("dialog", { name: "A contraindicated rung" });
  await override.getByLabel("Why it is safe for this client").fill("On fists, tried, pain free.");
  await override.getByText("I have reviewed this").click();
  await override.getByRole("button", { name: "Prescribe despite the contraindication" }).click();
  await page.getByRole("tab", { name: "Exercises" }).click();
  await expect(page.getByRole("row", { name: "Leg slide" }).getByText(/despite a contraindication/)).toBeVisible();
  await page.getByRole("button", { name: /Accept as revision/ }).click();
  const second = page.getByRole("dialog", { name: "Despite a contraindication" });
  await expect(second.getByText(/Your reason: On fists/)).toBeVisible();
  await expectAccessible(page, "second look");
  await second.getByRole("button", { name: "Confirm and accept" }).click();
  await expect(page.getByRole("heading", { name: "Take home" })).toBeVisible();
  // What the client takes home does not say so.
  await expect(page.getByText(/despite a contraindication/)).toHaveCount(0);

  const sheet = await page.request.get(
    `${page.url().replace(/\/visits.*/, "").replace("/episodes", "/api/episodes")}/sheet.pdf`,
  );
  expect(sheet.status()).toBe(200);
  expect((await sheet.body()).subarray(0, 5).toString()).toBe("%PDF-");

  await page.getByRole("button", { name: /Open a feed/ }).click();
  const feed = await page.getByText(/\/feeds\/[0-9a-f]+\.ics/).innerText();
  const signedOut = await page.context().browser()!.newContext();
  const calendar = await signedOut.request.get(/http\S+/.exec(feed)![0]);
  expect(await calendar.text()).toContain("Leg slide");
  await signedOut.close();
});

test("a school is copied and changed, and it is shown whom that touches before it is stored", async ({ page }) => {
  await openPlan(page, /Fenwick Oduya/);
  await page.goto(`${server.address}/settings`);
  await page.getByRole("button", { name: "Copy and change" }).click();
  const copy = page.getByRole("dialog", { name: "Copy a policy" });
  await copy.getByLabel("Name").fill("Quay way");
  await copy.getByRole("button", { name: "Copy it" }).click();
  await expect(page.getByRole("heading", { name: "Quay way" })).toBeVisible();

  await page.goto(server.address);
  await page.getByRole("link", { name: /Fenwick Oduya/ }).first().click();
  await station(page, "Ask");
  await page.getByRole("button", { name: "Change: Policy" }).click();
  await page.getByRole("button", { name: /Policy/ }).click();
  await page.getByRole("option", { name: "Quay way" }).click();
  await page.getByRole("button", { name: /^(Keep|Save|Store)/ }).first().click();
  await expect(page.getByText(/Nothing was stored/)).toHaveCount(0);

  await page.goto(`${server.address}/settings`);
  await page.getByRole("link", { name: /Quay way/ }).click();
  await expect(page.getByRole("heading", { name: "Quay way" })).toBeVisible();
  await page.getByLabel("Find a setting").fill("rest between other");
  const rest = page.getByRole("textbox", { name: "Rest between other sets, s" });
  await rest.fill("120");
  await rest.press("Tab");
  await expect(page.getByText("One open plan would change:")).toBeVisible();
  await expect(page.getByRole("link", { name: "Fenwick Oduya" })).toBeVisible();
  await expectAccessible(page, "a changed policy");
  await page.getByRole("button", { name: "Save as version 2" }).click();
  await expect(page.getByText(/own, version 2/)).toBeVisible();
  // What was looked for still is.
  await expect(page.getByLabel("Find a setting")).toHaveValue("rest between other");
});
