import { expect, test } from "@playwright/test";
import { expectAccessible } from "./hands";
import { Server } from "./server";
import { signIn } from "./sessionHands";

const server = new Server("demo", 5188);

test.beforeAll(() => server.start());
test.afterAll(() => server.close());

// A tablet that was bought elsewhere, or has never been told where it is.
test.use({ timezoneId: "Pacific/Auckland" });

test("times are the clinic's on any tablet; zone, order of dates and first day of the week are set by keys", async ({ page }) => {
  await signIn(page, server.address);
  await expect(page.getByRole("link", { name: "Settings" })).toBeVisible();
  const told = async () => {
    const day = await (await page.request.get(`${server.address}/api/day`)).json();
    return day.visits.map((v: { plannedAt: string }) => v.plannedAt.slice(11, 16)) as string[];
  };
  const onPage = async (times: string[]) => {
    for (const time of times) await expect(page.getByText(new RegExp(`^${time} · `)).first()).toBeVisible();
  };
  await onPage(await told());

  await page.goto(`${server.address}/settings?part=clinic`);
  await page.getByRole("combobox", { name: "Time zone" }).fill("chatham");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  for (const [list, choice] of [["Dates", "November 29, 2026"], ["Weeks begin on", "Sunday"]] as const) {
    await page.getByRole("button", { name: new RegExp(list) }).press("Enter");
    await page.getByRole("option", { name: choice }).press("Enter");
  }
  await expect(page.getByText(/keep their local time/)).toBeVisible();
  await expectAccessible(page, "settings of the clinic's time");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByRole("button", { name: "Save", exact: true })).toBeDisabled();
  await expect
    .poll(async () => (await (await page.request.get(`${server.address}/api/day`)).json()).now)
    .toMatch(/\+1[23]:45$/);

  await page.goto(server.address);
  await expect(page.getByRole("heading", { name: /^\w+day, \w+ \d+ / })).toBeVisible();
  await onPage(await told());

  await page.goto(`${server.address}/new`);
  const birth = page.getByRole("group", { name: "Birth date" });
  await expect(birth.getByRole("spinbutton").first()).toHaveAccessibleName(/^month/);
  await page.getByRole("tab", { name: /Body and home/ }).click();
  await page.getByRole("button", { name: "Add days away" }).click();
  await page.getByRole("group", { name: "From" }).getByRole("button").click();
  const month = page.getByRole("dialog");
  await expect(month.locator("thead th").first()).toHaveText("S");
  await expect(month.locator("thead th").nth(1)).toHaveText("M");
  await expectAccessible(page, "a month to pick a day from");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Enter");
  await expect(month).toHaveCount(0);
});
