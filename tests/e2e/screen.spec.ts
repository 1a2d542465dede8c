import { expect, type Page, test } from "@playwright/test";
import { expectAccessible, pick, station } from "./hands";
import { doTrial, finished, keepOnly, startButton } from "./screening";
import { Server } from "./server";

const server = new Server("demo", 5196);

test.beforeAll(() => server.start());
test.afterAll(() => server.close());

async function openScreen(page: Page, name: RegExp, email = "ines@saltmere.example", password = "lantern-quay-7") {
  await page.goto(server.address);
  await page.request.post(`${server.address}/api/sign-in`, { data: { email, password } });
  await page.goto(server.address);
  await page.getByRole("link", { name }).first().click();
  await station(page, "Screen");
}

const visitOf = (page: Page) => /visits\/([^/]+)/.exec(page.url())![1]!;

interface Told {
  kind: string;
  by: string | null;
  trialId: string;
}

const eventsOf = async (page: Page): Promise<Told[]> =>
  ((await (await page.request.get(`${server.address}/api/visits/${visitOf(page)}/events`)).json()) as { events: Told[] })
    .events;

const stored = (page: Page) => expect(page.getByText("all stored")).toBeVisible();

for (const [hand, size] of [
  ["touch", { width: 820, height: 1180 }],
  ["keys", { width: 1280, height: 800 }],
] as const) {
  test.describe(`a whole screen with ${hand} alone`, () => {
    test.use({ viewport: size, hasTouch: hand === "touch" });

    test(`at ${size.width} × ${size.height}, accessible in every state`, async ({ page }) => {
      await openScreen(page, hand === "touch" ? /Maris Telleke/ : /Asa Lindqvarn/);
      await expect(page.getByRole("heading", { name: /^The screen/ })).toBeVisible();
      await expectAccessible(page, "planning the screen");
      const begin = page.getByRole("button", { name: "Begin the screen" });
      if (hand === "touch") await begin.tap();
      else await begin.press("Enter");

      const seen = new Set<string>();
      for (let trial = 0; trial < 60; trial++) {
        await page.waitForTimeout(150);
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
          await page.waitForTimeout(250);
          await expectAccessible(page, state);
        }
        await doTrial(page, hand, trial % 3 !== 2);
      }
      await expect(finished(page)).toBeVisible();
      expect([...seen]).toEqual(expect.arrayContaining(["effort", "yes or no", "seconds", "reps"]));
      await stored(page);
      await expectAccessible(page, "screened");
      const link = page.getByRole("link", { name: "See the findings" });
      if (hand === "touch") await link.tap();
      else await link.press("Enter");
      await expect(page.getByRole("heading", { name: "Control by direction" })).toBeVisible();
      await page.getByRole("button", { name: "One-leg stance" }).click();
      await expect(page.getByText(/Springer et al\. 2007/).first()).toBeVisible();
      await expectAccessible(page, "findings");
    });
  });
}

async function kindOfTrial(page: Page) {
  const has = async (name: string) => (await page.getByRole("button", { name }).count()) > 0;
  if (await has("It stayed level")) return "yes or no";
  if (await has("Reach counts")) return "reach";
  if (await page.getByRole("group", { name: /How hard was it/ }).count()) return "effort";
  return /at most/.test(await page.getByText(/^asked:/).innerText()) ? "seconds" : "reps";
}

test("range, instrument, persisting faults, pause, the wrong side and undo across the end", async ({ page }) => {
  await openScreen(page, /Brannoc Velde/);
  await page.getByRole("button", { name: "Change the tasks" }).click();
  await keepOnly(page, ["Roll", "Leg lowering"]);
  await page.getByRole("button", { name: "Add Kick-back hold" }).click();
  await expect(page.getByRole("button", { name: "Leave out Kick-back hold" })).toBeVisible();
  await page.getByRole("button", { name: "Back to the screen" }).click();
  await page.getByRole("button", { name: "Do Kick-back hold now" }).or(startButton(page)).first().click();
  if (await startButton(page).isVisible()) await startButton(page).click();

  // A long press says that the fault stays; so does its key with shift.
  await page.getByRole("button", { name: "75 %" }).click();
  await page.keyboard.press("Space");
  await page.waitForTimeout(200);
  const arches = page.getByRole("button", { name: /^low back arches/ });
  await arches.hover();
  await page.mouse.down();
  await page.waitForTimeout(700);
  await page.mouse.up();
  await expect(page.getByRole("button", { name: "low back arches, marked 1 times, persisting" })).toBeVisible();
  await page.keyboard.press("Shift+W");
  await expect(page.getByRole("button", { name: /pelvis twists.*persisting/ })).toBeVisible();
  await page.keyboard.press("Space");

  await page.getByRole("button", { name: "Pause" }).click();
  await page.reload();
  await page.getByRole("button", { name: "Go on" }).click();

  await page.getByRole("button", { name: "More", exact: true }).click();
  await expectAccessible(page, "more about the trial");
  await pick(page, "What showed that the trunk moved", "dowel");
  await page.getByRole("button", { name: /^It was the (left|right) side$/ }).click();
  const side = await page.getByRole("button", { name: /^End (left|right) side$/ }).innerText();
  await page.keyboard.press(".");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Undo its end" }).click();
  await expect(page.getByRole("button", { name: side })).toBeVisible();
  await page.keyboard.press(".");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Pain after, where felt" }).click();
  await page.getByRole("radiogroup", { name: /^Pain after/ }).getByText("2", { exact: true }).click();
  await stored(page);
  const kinds = (await eventsOf(page)).map((e) => e.kind);
  for (const kind of ["range-reached", "trial-paused", "trial-resumed", "instrument-used", "side-corrected", "undone"]) {
    expect(kinds, kind).toContain(kind);
  }
});

test("two tablets and a colleague: nothing is lost and nothing counts twice", async ({ page, browser }) => {
  await openScreen(page, /Nerys Quill/);
  await keepOnly(page, ["Fists", "Leg lowering"]);
  await page.getByRole("button", { name: "Begin the screen" }).click();
  await page.getByRole("button", { name: "Do Leg lowering now" }).or(startButton(page)).first().click();
  if (await startButton(page).isVisible()) await startButton(page).click();
  await page.keyboard.press("Space");
  await stored(page);

  // The other tablet sees the open trial, takes it over and goes on; the first one follows.
  const other = await (await browser.newContext()).newPage();
  await openScreen(other, /Nerys Quill/, "bram@saltmere.example", "tide-table-4");
  await expect(other.getByText(/is open since .* with Ines Tarrow/)).toBeVisible();
  await expectAccessible(other, "a trial on another tablet");
  await other.getByRole("button", { name: "Take it over here" }).click();
  await other.keyboard.press("+");
  await stored(other);
  await expect(page.getByRole("group", { name: "Pain during this trial" }).locator(".value")).toHaveText("5", {
    timeout: 15_000,
  });
  await other.keyboard.press(".");
  await other.keyboard.press("Enter");
  await expect(startButton(page).first()).toBeVisible({ timeout: 15_000 });

  // Handed over: the next one signs in at the same place; each mark stays with who made it.
  await page.getByRole("button", { name: "Hand over the tablet" }).click();
  await page.getByRole("button", { name: /Bram Oakley/ }).click();
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
  await expect(startButton(page).first()).toBeVisible();
  const events = await eventsOf(page);
  expect(new Set(events.map((e) => e.by))).toEqual(new Set(["Ines Tarrow", "Bram Oakley"]));
  expect(events.filter((e) => e.kind === "trial-ended")).toHaveLength(1);
});

test("an earlier screen is repeated with one press, and compared", async ({ page }) => {
  await openScreen(page, /Fenwick Oduya/);
  await page.getByRole("button", { name: /^Repeat the screen of/ }).click();
  await expect(page.getByText("Done in the screen before: now and then can be compared.").first()).toBeVisible();
  await openScreen(page, /Brannoc Velde/);
  await station(page, "Findings");
  await expect(page.getByRole("heading", { name: "Against an earlier screen" })).toBeVisible();
  await expect(page.getByRole("row", { name: /Roll, both knees up.*left.*20.*45.*better/ })).toBeVisible();
  await page.getByRole("button", { name: /with no clear change/ }).click();
  await expect(page.getByRole("cell", { name: /^no clear change/ }).first()).toBeVisible();
  await page.getByRole("button", { name: "front", exact: true }).click();
  await expect(page.getByText(/^weight \d+/).first()).toBeVisible();
});
