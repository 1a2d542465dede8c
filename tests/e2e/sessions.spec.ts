import { expect, type Page, test } from "@playwright/test";
import { randomUUID } from "node:crypto";
import { expectAccessible, pick, station } from "./hands";
import { Server } from "./server";

const server = new Server("demo", 5200);

test.beforeAll(() => server.start());
test.afterAll(() => server.close());

async function signIn(page: Page) {
  await page.goto(server.address);
  await page.getByRole("button", { name: /Ines Tarrow/ }).click();
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
}

interface SessionView {
  sets: { itemId: string; side: string; set: number; way?: string | null }[];
  items: { item: { id: string; rungId: string; doses: { side: string; dose: { reps: number; hold: number; fewer: number } }[] } }[];
  trials: { planItemId: string; side: string; set: number; variant?: string | null }[];
}

const ids = (page: Page) => {
  const [, episode, visit] = /episodes\/([^/]+)\/visits\/([^/]+)/.exec(page.url())!;
  return { episode: episode!, visit: visit! };
};

/** The sets that are still to do, all clean, as another tablet would send them. */
async function doTheRest(page: Page) {
  const { visit } = ids(page);
  const session = (await (await page.request.get(`${server.address}/api/visits/${visit}/session`)).json()) as SessionView;
  let at = Date.now() - 20 * 60_000;
  const events: Record<string, unknown>[] = [];
  for (const set of session.sets) {
    const sameSet = (t: (typeof session.trials)[number]) =>
      t.planItemId === set.itemId && t.side === set.side && t.set === set.set && (t.variant ?? null) === (set.way ?? null);
    if (session.trials.some(sameSet)) continue;
    const { item } = session.items.find((i) => i.item.id === set.itemId)!;
    const { dose } = item.doses.find((d) => d.side === set.side)!;
    const reps = Math.max(1, dose.reps - (set.set - 1) * dose.fewer);
    const trialId = randomUUID();
    const tap = (kind: string, after: number, fields: object = {}) =>
      events.push({ id: randomUUID(), trialId, kind, at: new Date((at += after * 100)).toISOString(), ...fields });
    tap("trial-started", 5, {
      rungId: item.rungId,
      side: set.side,
      purpose: "session",
      planItemId: item.id,
      set: set.set,
      variant: set.way ?? undefined,
      target: { reps, sets: 1, hold: dose.hold, fewer: 0 },
    });
    tap("pain-marked", 1, { phase: "before", value: 3 });
    for (let rep = 0; rep < reps; rep++) {
      if (dose.hold > 0) tap("hold-started", 1);
      tap("rep-done", Math.max(2, dose.hold) * 10);
    }
    tap("trial-ended", 1, { reason: "target-met" });
    tap("pain-marked", 1, { phase: "after", value: 3 });
    tap("effort-marked", 1, { value: 5 });
    tap("felt-marked", 1, { place: "abdomen" });
  }
  const sent = await page.request.post(`${server.address}/api/visits/${visit}/events`, { data: { events } });
  expect(sent.ok()).toBe(true);
  await page.reload();
}

async function checkIn(page: Page, now: string, morning: string, settled: string) {
  await page.getByText("Asked: none of these").click();
  await pick(page, /^Pain now/, now);
  await pick(page, "Usual, since last time", "3");
  await pick(page, /^The morning after/, morning);
  await pick(page, "After the last work it settled", settled);
}

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
  test.setTimeout(120_000);
  await signIn(page);
  await page.getByRole("link", { name: /Asa Lindqvarn/ }).first().click();
  await station(page, "Session");

  // Visit 2. The home log by keys: a whole day as planned, one cell typed; what is no number is not stored.
  await checkIn(page, "3", "3", "the same day");
  const log = page.getByRole("region", { name: "Home log" });
  await log.getByRole("button", { name: "As planned" }).first().click();
  const cell = log.getByRole("textbox", { name: /^Pain, / }).nth(1);
  await cell.fill("x");
  await cell.press("ArrowDown");
  await expect(log.getByText("Not a whole number: pain. Not stored yet.")).toBeVisible();
  await cell.fill("2");
  await cell.press("ArrowDown");
  await expect(log.getByText("Not a whole number")).toHaveCount(0);
  await expectAccessible(page, "check-in with home log");
  await page.getByRole("button", { name: "Begin the session" }).click();

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
  const offer = page.getByRole("alertdialog", { name: "The trunk gave way again" });
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
  await page.getByRole("button", { name: "Stop: pain or worry" }).click();
  await expectAccessible(page, "what it was");
  await page.getByRole("button", { name: "The client's wish" }).click();
  await expect(page.getByText(/^(Rest \d+ s|Rested)$/)).toBeVisible();
  await expectAccessible(page, "rest with the next set in view");

  await expect(page.getByText("all stored")).toBeVisible();
  await doTheRest(page);
  await pick(page, /^Pain after/, "3");
  await pick(page, "Felt mainly in", "abdomen");
  await pick(page, /^How hard/, "6");
  await expect(page.getByRole("heading", { name: /reps clean$/ })).toBeVisible();
  await expect(page.getByText(/made easier/)).toBeVisible();
  await expectAccessible(page, "summary");
  // A set that does not count is taken out and counted again.
  const asked = await page.getByRole("heading", { name: /reps clean$/ }).innerText();
  await page.getByRole("button", { name: "Put a set right" }).click();
  await page.getByRole("button", { name: /: does not count$/ }).first().click();
  await expect(page.getByRole("button", { name: /^Start/ })).toBeVisible();
  await page.getByRole("button", { name: "Count it again" }).click();
  await expect(page.getByRole("heading", { name: asked })).toBeVisible();
  await page.getByRole("link", { name: "Go to Decide" }).click();
  await expect(page.getByRole("heading", { name: /decisions/ })).toBeVisible();
  await page.getByRole("button", { name: "Evidence, and what would change it" }).first().click();
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
  await page.getByRole("button", { name: "Begin the session" }).click();
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
  await page.getByRole("button", { name: "Keep the answers" }).click();
  await expect(page.getByRole("region", { name: "Activities the client named" })).toContainText("rowing");
  await expectAccessible(page, "progress");
  await page.getByRole("link", { name: "Letter" }).click();
  await expect(page.getByLabel("About")).toHaveValue(/Asa Lindqvarn/);
  await page.getByRole("textbox", { name: "To", exact: true }).fill("The harbour surgery");
  await page.getByRole("button", { name: "Keep my changes" }).click();
  await expect(page.getByText("Edited by Ines Tarrow")).toBeVisible();
  await expectAccessible(page, "letter");
  await page.reload();
  await expect(page.getByRole("textbox", { name: "To", exact: true })).toHaveValue("The harbour surgery");
});

test("pain that rises from 4 to 7 is shown at once, heads the summary, eases, adds nothing and stands in the letter", async ({ page }) => {
  test.setTimeout(120_000);
  await signIn(page);
  await page.getByRole("link", { name: /Ottoline Brask/ }).first().click();
  await station(page, "Session");
  await checkIn(page, "4", "3", "the same day");
  await page.getByRole("button", { name: "Begin the session" }).click();
  await page.getByRole("button", { name: /^Start/ }).first().click();
  const hurt = (await page.getByRole("heading", { level: 1 }).innerText()).split("\n")[0]!;
  for (let up = 0; up < 3; up++) await page.keyboard.press("+");
  const offer = page.getByRole("alertdialog", { name: /^Pain rose from 4 to [67]$/ });
  await expect(offer).toBeVisible();
  await expect(page.getByRole("alertdialog", { name: "Pain rose from 4 to 7" })).toBeVisible();
  await offer.getByRole("button", { name: /^Stop/ }).click();
  await expect(page.getByText("all stored")).toBeVisible();
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
  await expect(page.getByText(/^(ease the dose|step down|stop)$/).first()).toBeVisible();
  expect(hurt.length).toBeGreaterThan(0);
  await page.getByRole("link", { name: "Letter" }).click();
  await expect
    .poll(async () => (await page.getByRole("textbox").evaluateAll((boxes) => boxes.map((b) => (b as HTMLTextAreaElement).value))).join(" "))
    .toMatch(/Peak pain in the sessions was 7 of 10\..*from 4 to 7, 5 at the end/);
});

test("what is ready is tried one up at Decide's word, by keys, and moves up", async ({ page }) => {
  test.setTimeout(120_000);
  await signIn(page);
  await page.getByRole("link", { name: /Ottoline Brask/ }).first().click();
  await station(page, "Session");
  await checkIn(page, "3", "3", "the same day");
  await page.getByRole("button", { name: "Begin the session" }).click();
  await expect(page.getByRole("button", { name: /^Start/ }).first()).toBeVisible();
  await doTheRest(page);
  await page.getByRole("link", { name: "Decide", exact: true }).click();
  const bridge = page.getByRole("region", { name: /^Bridge: / });
  await expect(bridge.getByText("Ready:")).toBeVisible();
  await expectAccessible(page, "decide, ready");
  await bridge.getByRole("link", { name: /^try one up today/ }).click();
  await expect(page.getByRole("heading", { name: /^Ready: try one up today/ })).toBeVisible();
  await expectAccessible(page, "one up offered");

  // The bridge is done on both sides at once, what comes after it on each.
  for (const side of ["left", "right"]) {
    await page.getByRole("button", { name: new RegExp(`^Try it ${side}`) }).press("Enter");
    await expect(page.getByText("tried one up", { exact: false }).first()).toBeVisible();
    const reps = Number(/asked: (\d+) reps/.exec(await page.getByText(/asked: \d+ reps/).first().innerText())![1]);
    for (let rep = 0; rep < reps; rep++) await page.keyboard.press("Space");
    if (await page.getByRole("button", { name: `End ${side} side` }).isVisible()) await page.keyboard.press(".");
    await pick(page, /^Pain after/, "3");
    await pick(page, "Felt mainly in", "abdomen");
    await pick(page, /^How hard/, "5");
    await expect(page.getByText("all stored")).toBeVisible();
  }
  await page.getByRole("link", { name: "Decide", exact: true }).click();
  await expect(page.getByRole("region", { name: /^Bridge: step up/ })).toBeVisible();
  await expect(page.getByText(/^Tried one up left: /)).toBeVisible();
});

for (const width of [1280, 390]) {
  test(`looking back at ${width}: what other policies would have decided, and where the policy was not followed`, async ({ page }) => {
    await page.setViewportSize({ width, height: 844 });
    await signIn(page);
    await page.getByRole("link", { name: /Sunniva Achterby/ }).first().click();
    await page.getByRole("link", { name: "Progress" }).click();
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
