import { expect, type Page, test } from "@playwright/test";
import { enter, expectAccessible, station } from "./hands";
import { openScreen } from "./screening";
import { Server } from "./server";

const server = new Server("demo", 5274);

test.beforeAll(() => server.start());
test.afterAll(() => server.close());

/** The trial of a demo client, with a sample picture measured and kept. */
async function keepPicture(page: Page) {
  await openScreen(page, server.address, /Brannoc Velde/);
  await station(page, "Findings");
  await page.getByRole("button", { name: /with trials and norms/ }).click();
  await page.getByRole("button", { name: "Kick-back" }).first().click();
  await page.getByRole("link", { name: "Measure a photograph" }).first().click();
  await page.getByRole("button", { name: /Sample picture/ }).click();
  await page.getByRole("option", { name: "one leg, level" }).click();
  await put(page);
  await page.getByText(/^Save the picture/).click();
  await page.getByRole("button", { name: "The client agrees" }).click();
  await page.getByRole("button", { name: "Save with the trial" }).click();
  await page.getByRole("button", { name: /with trials and norms/ }).click();
  await page.getByRole("button", { name: "Kick-back" }).first().click();
  await page.getByRole("link", { name: "See the photograph" }).click();
  await expect(page.getByRole("group", { name: "For the practice room" })).toBeVisible();
}

/** Both hip bones, level. */
async function put(page: Page) {
  const box = (await page.locator("svg").filter({ has: page.locator("image") }).boundingBox())!;
  const middle = box.x + box.width / 2;
  await expect(page.getByText("Tap: left hip bone")).toBeVisible();
  await page.mouse.click(middle + 40, box.y + 250);
  await expect(page.getByText("Tap: right hip bone")).toBeVisible();
  await page.mouse.click(middle - 40, box.y + 250);
}

test("recorded traces and a kept photograph are rated without names, and who no longer agrees is left out", async ({ page }) => {
  test.setTimeout(120_000);
  await keepPicture(page);
  const consent = page.getByRole("group", { name: "For the practice room" });
  await consent.getByRole("button", { name: "The client no longer agrees" }).click();
  await consent.getByRole("button", { name: "The client agrees" }).click();
  await expect(consent).toContainText("The client agreed that colleagues rate");
  await expectAccessible(page, "a photograph with what its client agreed to");
  const here = page.url();

  await page.goto(`${server.address}/practice`);
  const recorded = page.getByRole("region", { name: /own traces and photographs/ });
  await recorded.getByLabel("Name of the session").fill("Winter");
  await expect(recorded.getByRole("textbox", { name: "Photographs, of 1" })).toHaveValue("1");
  await recorded.getByRole("button", { name: "Make it of these" }).press("Enter");
  await expect(page.getByRole("heading", { name: "Winter" })).toBeVisible();
  await expect(page.getByText("Brannoc")).toHaveCount(0);
  const items = Number((await page.getByRole("heading", { name: /^1 of \d+:/ }).innerText()).match(/of (\d+)/)![1]);
  expect(items).toBeGreaterThan(1);
  const seen = { trace: false, photo: false };
  for (let n = 1; n <= items; n++) {
    await expect(page.getByRole("heading", { name: new RegExp(`^${n} of ${items}:`) })).toBeVisible();
    const points = page.getByRole("button", { name: "The points are right" });
    const lost = page.getByRole("textbox", { name: "Lost at, seconds" });
    await expect(points.or(lost)).toBeVisible();
    if (await lost.isVisible()) {
      // By a tap on the course first, then typed.
      await page.getByRole("img", { name: /^A course of/ }).click();
      await expect(lost).not.toHaveValue("");
      await lost.fill("2.5");
      await lost.press("Tab");
      if (!seen.trace) await expectAccessible(page, "a trace to be rated");
      seen.trace = true;
      await page.getByRole("button", { name: n % 2 === 0 ? "It was lost there" : "It held to the end" }).press("Enter");
    } else {
      await put(page);
      await expectAccessible(page, "a photograph to be rated");
      seen.photo = true;
      await points.press("Enter");
    }
  }
  expect(seen).toEqual({ trace: true, photo: true });
  await expect(page.getByText("Rated whole by one.", { exact: false })).toBeVisible();
  await expect(page.getByRole("row", { name: /^Side drop 1/ })).toBeVisible();
  await expectAccessible(page, "the report of a session on recorded traces and photographs");

  await page.goto(here);
  await consent.getByRole("button", { name: "The client no longer agrees" }).click();
  await expect(consent).toContainText("did not agree");
  await page.goto(`${server.address}/practice`);
  await page.getByRole("link", { name: "Winter" }).click();
  await expect(page.getByRole("row", { name: /^Side drop/ })).toHaveCount(0);
});

test("where nobody agreed the room says how to ask", async ({ page }) => {
  await enter(page, server, /Ines Tarrow/);
  for (const episode of await agreed(page)) {
    await page.request.put(`${server.address}/api/episodes/${episode}/practice-consent`, { data: { given: false } });
  }
  await page.goto(`${server.address}/practice`);
  await expect(page.getByText("Nothing to rate yet. Ask a client", { exact: false })).toBeVisible();
});

/** Episodes of the day whose clients agreed. */
async function agreed(page: Page): Promise<string[]> {
  const day = (await (await page.request.get(`${server.address}/api/day`)).json()) as { visits: { episodeId: string }[] };
  const found: string[] = [];
  for (const { episodeId } of day.visits) {
    const episode = (await (await page.request.get(`${server.address}/api/episodes/${episodeId}`)).json()) as { practiceConsent: boolean | null };
    if (episode.practiceConsent) found.push(episodeId);
  }
  return found;
}
