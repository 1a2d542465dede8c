import { expect, type Page } from "@playwright/test";
import { randomUUID } from "node:crypto";
import { pick } from "./hands";
import { doTrial, startButton } from "./screening";

const origin = (page: Page) => new URL(page.url()).origin;

export async function signIn(page: Page, address: string) {
  await page.goto(address);
  await page.getByRole("button", { name: /Ines Tarrow/ }).click();
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
}

interface SessionView {
  sets: { itemId: string; side: string; set: number; way?: string | null }[];
  items: { item: { id: string; rungId: string; doses: { side: string; dose: { reps: number; hold: number; fewer: number } }[] } }[];
  trials: { planItemId: string; side: string; set: number; variant?: string | null }[];
}

export const ids = (page: Page) => {
  const [, episode, visit] = /episodes\/([^/]+)\/visits\/([^/]+)/.exec(page.url())!;
  return { episode: episode!, visit: visit! };
};

/** The sets that are still to do, all clean, as another tablet would send them. */
export async function doTheRest(page: Page) {
  const { visit } = ids(page);
  const session = (await (await page.request.get(`${origin(page)}/api/visits/${visit}/session`)).json()) as SessionView;
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
  const sent = await page.request.post(`${origin(page)}/api/visits/${visit}/events`, { data: { events } });
  expect(sent.ok()).toBe(true);
  await page.reload();
}

export async function checkIn(page: Page, now: string, morning: string, settled: string) {
  await page.getByText("Asked: none of these").click();
  await page.getByRole("button", { name: "Next" }).click();
  await pick(page, /^Pain now/, now);
  await pick(page, "Usual, since last time", "3");
  await pick(page, /^The morning after/, morning);
  await pick(page, "After the last session it settled", settled);
}

/** All sets of a session by touch, each clean and with its pain after; returns how many. */
export async function wholeSession(page: Page) {
  const start = startButton(page);
  const see = page.getByRole("button", { name: "See the session" });
  let sets = 0;
  for (; sets < 40; sets++) {
    await expect(start.or(see).first()).toBeVisible();
    if (await see.isVisible()) break;
    await start.tap();
    await expect(page.getByRole("group", { name: "Faults, by where they show" })).toBeVisible();
    await doTrial(page, "touch", true, true);
    await page.getByRole("radiogroup", { name: /^Pain after/ }).locator("label").filter({ hasText: /^5$/ }).tap();
  }
  await see.tap();
  return sets;
}
