import { expect, type Page, test } from "@playwright/test";
import { expectAccessible, pick, station } from "./hands";
import { Server } from "./server";
import { checkIn, doTheRest, ids, signIn } from "./sessionHands";

const server = new Server("demo", 5200);

test.beforeAll(() => server.start());
test.afterAll(() => server.close());

async function openNext(page: Page, time: string) {
  const { episode } = ids(page);
  const today = new Date();
  const day = `${today.getFullYear()}-${String(today.getMonth() + 1).padStart(2, "0")}-${String(today.getDate()).padStart(2, "0")}`;
  const booked = await page.request.post(`${server.address}/api/episodes/${episode}/visits`, {
    data: { plannedAt: `${day}T${time}` },
  });
  expect(booked.ok()).toBe(true);
  const { id } = (await booked.json()) as { id: string };
  await page.goto(`${server.address}/episodes/${episode}/visits/${id}/session`);
}

test("three visits: one thing is changed in the set, the sheet comes in, a flare eases the dose", async ({ page }) => {
  test.setTimeout(600_000);
  await signIn(page, server.address);
  await page.getByRole("link", { name: /Asa Lindqvarn/ }).first().click();
  await station(page, "Session");

  // Visit 2. The home log by keys: a whole day as planned, one cell typed; what is no number is not stored.
  await checkIn(page, "3", "3", "the same day");
  await page.getByRole("button", { name: "Next" }).click();
  const log = page.getByRole("region", { name: "Home log" });
  await log.getByRole("button", { name: "As planned" }).first().click();
  const cell = log.getByRole("textbox", { name: /^Pain, / }).nth(1);
  await cell.fill("x");
  await cell.press("ArrowDown");
  await expect(log.getByText("Not a whole number: pain. Not saved yet.")).toBeVisible();
  await cell.fill("2");
  await cell.press("ArrowDown");
  await expect(log.getByText("Not a whole number")).toHaveCount(0);
  await expectAccessible(page, "check-in with home log");
  await page.getByRole("button", { name: "Start the session" }).click();

  // An exercise is left out and brought back.
  await page.getByRole("button", { name: "Skip, swap, add" }).click();
  await page.getByRole("button", { name: /^Skip / }).last().click();
  await expect(page.getByText("left out today")).toBeVisible();
  await page.getByRole("button", { name: "Bring back" }).click();
  await expect(page.getByText("left out today")).toHaveCount(0);
  await expectAccessible(page, "session overview");

  // Two broken reps in a row: the change is offered, one key takes it, and the set goes on made easier.
  await page.getByRole("button", { name: /^Start/ }).first().click();
  const held = (await page.getByRole("button", { name: "Start hold" }).count()) > 0;
  for (let rep = 0; rep < 2; rep++) {
    if (held) await page.keyboard.press("Space");
    await page.keyboard.press("a");
    await page.keyboard.press("Space");
  }
  const offer = page.getByRole("alertdialog", { name: "Control lost again" });
  await expect(offer).toBeVisible();
  await expectAccessible(page, "one change offered");
  await page.keyboard.press("1");
  await expect(offer).toHaveCount(0);
  await page.keyboard.press("a");
  await page.keyboard.press("Space");
  if (held) await page.keyboard.press("Space");
  await expect(offer).toBeVisible();
  await offer.getByRole("button", { name: /shorter range|fewer seconds|shorter lever|more support|lower rung/i }).first().click();
  await expect(page.getByText(/made easier/)).toBeVisible();
  await page.getByRole("button", { name: "Stop: pain or concern" }).click();
  await expectAccessible(page, "what it was");
  await page.getByRole("button", { name: "The client’s choice" }).click();
  await expect(page.getByText(/^(Rest \d+ s|Rested)$/)).toBeVisible();
  await expectAccessible(page, "rest with the next set in view");

  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  await doTheRest(page);
  await pick(page, /^Pain after/, "3");
  await pick(page, "Felt mainly in", "abdomen");
  await pick(page, /^How hard/, "6");
  await expect(page.getByRole("heading", { name: /reps clean$/ })).toBeVisible();
  await expect(page.getByText(/made easier/)).toBeVisible();
  await expectAccessible(page, "summary");
  // A set that does not count is taken out and counted again.
  const asked = await page.getByRole("heading", { name: /reps clean$/ }).innerText();
  await page.getByRole("button", { name: "Correct a set" }).click();
  await page.getByRole("button", { name: /: does not count$/ }).first().click();
  await expect(page.getByRole("button", { name: /^Start/ })).toBeVisible();
  await page.getByRole("button", { name: "Count it again" }).click();
  await expect(page.getByRole("heading", { name: asked })).toBeVisible();
  await page.getByRole("link", { name: "Go to Decide" }).click();
  await expect(page.getByRole("heading", { name: /decisions/ })).toBeVisible();
  await page.getByRole("button", { name: /: evidence, and what would change it$/ }).first().click();
  await page.getByText("pain the morning after").first().click();
  await page.getByRole("textbox", { name: /were \(it was 3\)/ }).fill("8");
  await page.getByRole("textbox", { name: /were \(it was 3\)/ }).blur();
  await expect(page.getByText(/Pain 8 the morning after, reference \d/)).toBeVisible();
  await expectAccessible(page, "decide");
  await page.getByRole("button", { name: "Agree with all" }).click();
  await expect(page.getByText(/plan 2,/)).toBeVisible();

  // Visit 3 flares: every proposal eases.
  await openNext(page, "23:40");
  await checkIn(page, "6", "7", "longer than a day");
  await page.getByRole("button", { name: "Start the session" }).click();
  await expect(page.getByRole("button", { name: /^Start/ }).first()).toBeVisible();
  await doTheRest(page);
  await page.getByRole("link", { name: "Go to Decide" }).click();
  await expect(page.getByText(/Pain 7 the morning after, reference \d/).first()).toBeVisible();
  await expect(page.getByText(/^(step up|add)$/)).toHaveCount(0);
  await page.getByRole("button", { name: "Agree with all" }).click();
  await expect(page.getByText(/plan 3,/)).toBeVisible();

  // Looking back.
  await page.getByRole("link", { name: "Progress" }).click();
  await expect(page.getByRole("heading", { name: "How it goes" })).toBeVisible();
  await page.getByLabel("Another activity").fill("rowing across the harbour");
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await pick(page, /rowing across the harbour/, "4");
  await page.getByRole("button", { name: "Save the answers" }).click();
  await expect(page.getByRole("region", { name: "Activities the client named" })).toContainText("rowing");
  await expectAccessible(page, "progress");
  await page.getByRole("link", { name: "Letter" }).click();
  await expect(page.getByLabel("About")).toHaveValue(/Asa Lindqvarn/);
  await page.getByRole("textbox", { name: "To", exact: true }).fill("The harbour surgery");
  await page.getByRole("button", { name: "Save changes" }).click();
  await expect(page.getByText("Edited by Ines Tarrow")).toBeVisible();
  await expectAccessible(page, "letter");
  await page.reload();
  await expect(page.getByRole("textbox", { name: "To", exact: true })).toHaveValue("The harbour surgery");
});

test("pain that rises from 4 to 7 is shown at once, heads the summary, eases, adds nothing and stands in the letter", async ({ page }) => {
  test.setTimeout(600_000);
  await signIn(page, server.address);
  await page.getByRole("link", { name: /Ottoline Brask/ }).first().click();
  await station(page, "Session");
  await checkIn(page, "4", "3", "the same day");
  await page.getByRole("button", { name: "Start the session" }).click();
  await page.getByRole("button", { name: /^Start/ }).first().click();
  const hurt = (await page.getByRole("heading", { level: 1 }).innerText()).split("\n")[0]!;
  for (let up = 0; up < 3; up++) await page.keyboard.press("+");
  const offer = page.getByRole("alertdialog", { name: /^Pain rose from 4 to [67]$/ });
  await expect(offer).toBeVisible();
  await expect(page.getByRole("alertdialog", { name: "Pain rose from 4 to 7" })).toBeVisible();
  await offer.getByRole("button", { name: /^Stop/ }).click();
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  await doTheRest(page);
  await pick(page, /^Pain after/, "6");
  await pick(page, "Felt mainly in", "abdomen");
  await pick(page, /^How hard/, "5");
  await expect(page.getByRole("heading", { level: 1, name: /^Pain rose from 4 to 7/ })).toBeVisible();
  await pick(page, /ten minutes of rest/, "5");
  await expectAccessible(page, "a summary that opens with pain");
  await page.getByRole("link", { name: "Go to Decide" }).click();
  await expect(page.getByText(/Pain rose from 4 to 7\./).first()).toBeVisible();
  await expect(page.getByText(/^(step up|add)$/)).toHaveCount(0);
  await expect(page.getByText(/^(reduce the dose|step down|stop)$/).first()).toBeVisible();
  expect(hurt.length).toBeGreaterThan(0);
  await page.getByRole("link", { name: "Letter" }).click();
  await expect
    .poll(async () => (await page.getByRole("textbox").evaluateAll((boxes) => boxes.map((b) => (b as HTMLTextAreaElement).value))).join(" "))
    .toMatch(/Peak pain in the sessions was 7 of 10\..*from 4 to 7, 5 at the end/);
});

for (const width of [1280, 390]) {
  test(`looking back at ${width}: what other policies would have decided, and where the policy was not followed`, async ({ page }) => {
    await page.setViewportSize({ width, height: 844 });
    await signIn(page, server.address);
    await page.getByRole("link", { name: /Sunniva Achterby/ }).first().click();
    await station(page, "Progress");
    await page.getByRole("link", { name: "What other policies would have decided" }).click();
    await expect(page.getByText(/^At \d of \d visits they would have decided differently/)).toBeVisible();
    const rows = page.getByRole("row");
    const apart = await rows.count();
    await expectAccessible(page, "replay");
    await page.getByText("Show the lines where all agree, too").click();
    expect(await rows.count()).toBeGreaterThan(apart);
    await page.goto(`${server.address}/overrides`);
    await expect(page.getByText("“Double shift at the ovens this week.”").first()).toBeVisible();
    await expectAccessible(page, "overrides");
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
  });
}
