import { expect, type Page, test } from "@playwright/test";
import { enter, expectAccessible } from "./hands";
import { Server } from "./server";

const server = new Server("demo", 5273);

test.beforeAll(() => server.start());
test.afterAll(() => server.close());

/** A clip is shown at its own pace: up to a quarter of a minute. */
const clipOver = (page: Page) =>
  expect(page.getByRole("button", { name: /^(It held|That is it|Left)$/ }).first()).toBeEnabled({ timeout: 30_000 });

test("a drill by keys alone: a clip is marked, told and shown again, and the room knows of it", async ({ page }) => {
  test.setTimeout(180_000);
  await enter(page, server, /Ines Tarrow/);
  await page.getByRole("link", { name: "Practice room" }).press("Enter");
  await expect(page.getByText("You have not practised here yet.")).toBeVisible();
  await expectAccessible(page, "the practice room");
  await page.getByRole("button", { name: "Choose faults …" }).press("Enter");
  await expect(page.getByRole("checkbox", { name: "pelvis twists" })).toBeVisible();
  await expectAccessible(page, "the practice room with faults to choose");
  await page.getByRole("button", { name: "Begin", exact: true }).press("Enter");
  await expect(page.getByRole("heading", { name: "Clip 1 of 20" })).toBeVisible();
  await expectAccessible(page, "before the first clip");
  await page.keyboard.press("Space");
  await expect(page.getByRole("button", { name: "Mark what you see" })).toBeDisabled();
  // The body moves by itself.
  const body = page.locator("[data-live] svg path").nth(3);
  const before = await body.getAttribute("d");
  await expect.poll(() => body.getAttribute("d")).not.toBe(before);
  const chip = page.locator("[data-live] .stage button").first();
  const key = await chip.locator("kbd").innerText();
  await page.keyboard.press(key);
  await expect(chip).toHaveAccessibleName(/marked 1/);
  await clipOver(page);
  await page.keyboard.press((await page.getByText("Which side?").count()) > 0 ? "ArrowLeft" : "Space");
  await expect(page.getByRole("heading", { name: /^(Right|It gave way|It held)/ })).toBeVisible();
  await expectAccessible(page, "what was there");
  await page.keyboard.press("Space");
  await expect(page.getByRole("heading", { name: "Clip 2 of 20" })).toBeVisible();
  // Left and come back: it goes on with the same clip.
  await page.reload();
  await expect(page.getByRole("heading", { name: "Clip 2 of 20" })).toBeVisible();
  await page.getByRole("button", { name: "End here" }).press("Enter");
  await expect(page.getByText("You ended it.")).toBeVisible();
  await expect(page.getByText("Ines Tarrow practised watching movement", { exact: false })).toBeVisible();
  await expectAccessible(page, "what it came to");
  await page.getByRole("link", { name: "Practice room" }).first().press("Enter");
  await expect(page.getByText(/One clip so far: not enough yet/)).toBeVisible();
  await expect(page.getByRole("link", { name: "Certificate of practice" })).toHaveCount(0);
});

test.describe("by touch", () => {
  test.use({ hasTouch: true, viewport: { width: 820, height: 1180 } });

  test("a team session is made and taken part in; nothing of it is told before it is over", async ({ page }) => {
    test.setTimeout(120_000);
    await enter(page, server, /Ines Tarrow/);
    await page.goto(`${server.address}/practice`);
    await page.getByLabel("Name", { exact: true }).fill("Autumn");
    await page.getByRole("button", { name: "Make it", exact: true }).tap();
    await expect(page.getByText(/The report comes when somebody has done it all/)).toBeVisible();
    await expectAccessible(page, "a team session");
    await page.getByRole("button", { name: /Take part/ }).tap();
    await page.getByRole("button", { name: "Show the first clip" }).tap();
    await clipOver(page);
    await page.getByRole("button", { name: "It held" }).tap();
    await expect(page.getByRole("heading", { name: /^Clip 2 of/ })).toBeVisible();
    await expect(page.getByRole("button", { name: "End here" })).toHaveCount(0);
    await expectAccessible(page, "a clip of a team session");
    await page.goto(`${server.address}/settings?part=eye`);
    await expect(page.getByText(/clips? by one rater\./)).toBeVisible();
    await expect(page.getByText(/There are too few clips yet/)).toBeVisible();
    await expectAccessible(page, "what the eye misses");
  });
});

test("from twenty clips on there is a certificate for paper, which says what it is not", async ({ page }) => {
  await enter(page, server, /Bram Oakley/);
  await page.goto(`${server.address}/practice/certificate`);
  await expect(page.getByText(/not enough yet|Nothing/)).toBeVisible();
  await page.evaluate(async () => {
    const post = async (path: string, body: unknown) => {
      const answer = await fetch(path, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify(body),
      });
      if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
      return (await answer.json()) as { id: string; end: string | null };
    };
    for (let clip = 0, place = 0, run = null as { id: string; end: string | null } | null; clip < 20; clip++, place++) {
      if (!run || run.end) {
        run = await post("/api/practice/drills", { faults: [], episode: null, clips: 20, minutes: 8 });
        place = 0;
      }
      await post(`/api/practice/runs/${run.id}/answers`, { place, marks: [] });
      run = (await (await fetch(`/api/practice/runs/${run.id}`)).json()) as { id: string; end: string | null };
    }
  });
  await page.goto(`${server.address}/practice`);
  await page.getByRole("link", { name: "Certificate of practice" }).press("Enter");
  await expect(page.getByText(/Bram Oakley has rated 20 clips/)).toBeVisible();
  await expect(page.getByText(/is no qualification/)).toBeVisible();
  await expectAccessible(page, "a certificate");
  // On paper stands nothing to press.
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("button", { name: "Print" })).toBeHidden();
  await expect(page.getByText(/Bram Oakley has rated 20 clips/)).toBeVisible();
});
