import { expect, type Page } from "@playwright/test";
import { station } from "./hands";

export const startButton = (page: Page) => page.getByRole("button", { name: /^Start(, (left|right))?$/ });
export const finished = (page: Page) => page.getByRole("heading", { name: "Screen complete" });

/** Begins a screen of two tasks and starts the one that climbs. */
export async function beginLegLowering(page: Page) {
  await keepOnly(page, ["Fists", "Leg lowering"]);
  await page.getByRole("button", { name: "Begin the screen" }).click();
  await page.getByRole("button", { name: "Do Leg lowering now" }).or(startButton(page)).first().click();
  if (await startButton(page).isVisible()) await startButton(page).click();
}

/** How a trial is done: with the finger, or with keys alone. */
export type Hand = "touch" | "keys";

const main = (page: Page) => page.getByRole("main");
const asked = async (page: Page) => (await page.getByText(/^asked:/).innerText().catch(() => "")) || "";

/** Does the trial on screen as its task is measured; with a fault in the last two reps when it is too hard. */
export async function doTrial(page: Page, hand: Hand, clean: boolean, inSession = false) {
  const button = (name: string | RegExp) => main(page).getByRole("button", { name });
  const press = async (key: string, name: string | RegExp) => {
    if (hand === "keys") await page.keyboard.press(key);
    else await button(name).first().tap();
  };
  if (await button("It stayed level").count()) {
    await press(clean ? "Space" : "/", clean ? "It stayed level" : "It dropped");
  } else if (await page.getByRole("group", { name: /How hard was it/ }).count()) {
    await press(clean ? "1" : "3", clean ? /^1/ : /^3/);
  } else if (await button("Reach counts").count()) {
    for (let i = 0; i < 3; i++) await press("Space", "Reach counts");
  } else if (/at most/.test(await asked(page))) {
    await press("Space", "Start hold");
    await held(page, 0.3);
    await mark(page, hand);
    await press("Space", "End hold");
  } else {
    await doReps(page, hand, clean, inSession, press);
  }
  const faults = page.getByRole("group", { name: "Faults, by where they show" });
  // A clean one ends by itself; what was held shorter than it might have been does not, nor a set of a session.
  const itself = hand === "touch" && clean && !inSession && !(await page.getByRole("button", { name: /, marked \d/ }).count());
  if (itself) await expect(faults).toHaveCount(0);
  else await end(page, hand);
}

/** The client's own time: what is held is measured by the page's clock. */
const held = (page: Page, seconds: number) => page.waitForTimeout(seconds * 1000);

async function doReps(
  page: Page,
  hand: Hand,
  clean: boolean,
  inSession: boolean,
  press: (key: string, name: string | RegExp) => Promise<void>,
) {
  const words = await asked(page);
  const reps = Number(/asked: (?:\d+ sets of )?(\d+)/.exec(words)![1]);
  const hold = Number(/hold (\d+)/.exec(words)?.[1] ?? 0);
  const degrees = await page.getByRole("button", { name: "45°" }).count();
  if (degrees) await press("]", "45°");
  if (clean && !hold && hand === "touch" && (await page.getByRole("button", { name: /^All \d+ clean$/ }).count()) > 0) {
    await page.getByRole("button", { name: /^All \d+ clean$/ }).tap();
    return;
  }
  // By touch one that gives way is ended after its second broken rep; with keys its last two are broken.
  const short = !clean && hand === "touch";
  for (let rep = 1; rep <= (short ? 2 : reps); rep++) {
    if (hold) {
      await press("Space", "Start hold");
      // A whole one counts by itself in a screen; in a session it waits for the hand.
      if (clean && hand === "touch" && !inSession) {
        await expect
          .poll(() => repsSaid(page), { timeout: hold * 1000 + 5000 })
          .not.toBe(rep - 1);
        // The way back; a press before it would be taken for the hold that has just counted.
        await held(page, 1.1);
        continue;
      }
      await held(page, clean ? hold + (inSession ? 0.2 : -0.3) : 0.15);
    }
    if (short || (!clean && rep > reps - 2)) await mark(page, hand);
    await press("Space", /^(Rep done|There and back)/);
  }
}

/** How many reps the strip says were done. */
async function repsSaid(page: Page) {
  const words = await page.getByRole("img", { name: /^\d+ of \d+ reps, / }).getAttribute("aria-label").catch(() => null);
  // With the last one the trial may have ended by itself.
  return words ? Number(/^\d+/.exec(words)![0]) : -1;
}

/** The first fault of the task that costs the rep, by its key or its place on the figure. */
async function mark(page: Page, hand: Hand) {
  const chip = page
    .getByRole("group", { name: "Faults, by where they show" })
    .getByRole("button", { name: /arches|twists|gives|drops|leans|touches|rounds|sinks/ })
    .first();
  if (hand === "touch") return chip.tap();
  const key = await chip.locator("kbd").innerText();
  await page.keyboard.press(/^[a-z0-9]$/.test(key) ? key : "a");
}

async function end(page: Page, hand: Hand) {
  if (hand === "keys") await page.keyboard.press(".");
  else await main(page).getByRole("button", { name: /^End / }).tap();
  const why = page.getByRole("heading", { name: "Why did it end?" });
  const faults = page.getByRole("group", { name: "Faults, by where they show" });
  await expect.poll(async () => (await why.isVisible()) || (await faults.count()) === 0).toBe(true);
  if (await why.isVisible()) {
    if (hand === "keys") await page.keyboard.press("Enter");
    else await page.getByRole("button", { name: "Control lost" }).tap();
  }
}

/** Says why the trial ended, where that is asked. */
export async function sayWhy(page: Page) {
  const why = page.getByRole("button", { name: "Control lost" });
  const faults = page.getByRole("group", { name: "Faults, by where they show" });
  await expect.poll(async () => (await why.isVisible()) || (await faults.count()) === 0).toBe(true);
  if (await why.isVisible()) await why.click();
}

/** Takes out every task but these, on the page where the screen is planned. */
export async function keepOnly(page: Page, names: string[]) {
  for (;;) {
    const out = page.getByRole("button", { name: /^Leave out / });
    await expect(page.getByRole("button", { name: /^(Begin the screen|Back to the screen)$/ })).toBeEnabled();
    const all = await out.evaluateAll((buttons) => buttons.map((b) => b.getAttribute("aria-label") ?? ""));
    const extra = all.find((label) => !names.includes(label.replace("Leave out ", "")));
    if (!extra) return;
    await page.getByRole("button", { name: extra, exact: true }).click();
    await expect(page.getByRole("button", { name: extra, exact: true })).toHaveCount(0);
  }
}

/** Signs in and opens the screen of a client of the demo. */
export async function openScreen(
  page: Page,
  address: string,
  name: RegExp,
  email = "ines@saltmere.example",
  password = "lantern-quay-7",
) {
  await page.goto(address);
  await page.request.post(`${address}/api/sign-in`, { data: { email, password } });
  await page.goto(address);
  await page.getByRole("link", { name }).first().click();
  await station(page, "Screen");
}

interface Told {
  kind: string;
  by: string | null;
  trialId: string;
  instrument: string | null;
}

export async function eventsOf(page: Page, address: string): Promise<Told[]> {
  const visit = /visits\/([^/]+)/.exec(page.url())![1]!;
  const answer = await page.request.get(`${address}/api/visits/${visit}/events`);
  return ((await answer.json()) as { events: Told[] }).events;
}

export const stored = (page: Page) => expect(page.getByText("saved", { exact: true })).toBeVisible();

/** How the trial on the screen is measured. */
export async function kindOfTrial(page: Page) {
  const has = async (name: string) => (await page.getByRole("button", { name }).count()) > 0;
  if (await has("It stayed level")) return "yes or no";
  if (await has("Reach counts")) return "reach";
  if (await page.getByRole("group", { name: /How hard was it/ }).count()) return "effort";
  return /at most/.test(await page.getByText(/^asked:/).innerText()) ? "seconds" : "reps";
}
