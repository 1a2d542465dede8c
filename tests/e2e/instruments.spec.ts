import { expect, test, type Page } from "@playwright/test";
import { expectAccessible, station } from "./hands";
import { eventsOf, openScreen, sayWhy } from "./screening";
import { Server, StandIns } from "./server";

const port = 5203;
const server = new Server("demo", 5202, port);
const standIns = new StandIns(port);

test.beforeAll(async () => {
  standIns.start();
  await server.start();
});
test.afterAll(async () => {
  standIns.stop();
  await server.close();
});

test("a tilt sensor is watched: neutral, control lost, its mark and its trace kept, and the connection lost", async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem("palaestra.live", JSON.stringify({ instrument: "tilt-1" })));
  await openScreen(page, server.address, /Asa Lindqvarn/);
  const tell = (script: string) =>
    page.request.post(`${server.address}/api/instruments/tilt-1/script`, { data: { script } });
  await page.getByRole("button", { name: "Begin the screen" }).click();
  await page.getByRole("button", { name: "Do Opposite arm and leg now" }).click();
  await page.getByRole("button", { name: /^Start/ }).first().click();
  const sensor = page.getByRole("group", { name: "Tilt sensor" });
  await expect(sensor.getByText("No neutral yet")).toBeVisible();

  // While the client moves, neutral is refused and says why; lying still it is taken.
  await tell("trembles");
  await expect(async () => {
    await sensor.getByRole("button", { name: /^(Take|Retake) neutral/ }).click();
    await expect(sensor.getByRole("alert")).toContainText(/Lie still|Not quiet/, { timeout: 5000 });
  }).toPass({ timeout: 60_000 });
  await tell("still");
  await expect(async () => {
    await sensor.getByRole("button", { name: /^(Take|Retake) neutral/ }).click();
    await expect(sensor.getByText("In the band")).toBeVisible({ timeout: 1000 });
  }).toPass({ timeout: 60_000 });
  await expect(sensor.getByRole("alert")).toHaveCount(0);
  await expectAccessible(page, "an instrument watched");

  await page.getByRole("button", { name: "Start hold" }).click();
  await tell("gives-way");
  await expect(sensor.getByText("Control lost")).toBeVisible({ timeout: 60_000 });
  await tell("still");
  await sensor.getByRole("button", { name: "low back arches: earlier" }).first().click();
  // On a slow machine the stand-in has given way twice by now: one proposal is taken.
  await sensor.getByRole("button", { name: "Mark: low back arches" }).first().click();
  await expect(page.getByRole("button", { name: "low back arches, marked 1 times" })).toBeVisible();
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  const kept = (await eventsOf(page, server.address)).filter((e) => e.kind === "fault-marked");
  expect(kept).toHaveLength(1);
  expect(kept[0]).toMatchObject({ fault: "arch", instrument: "tilt" });

  // The connection goes: the words say so, and capture goes on by hand.
  standIns.stop();
  await expect(sensor.getByText("Connection lost")).toBeVisible();
  // The hold of before has counted by itself meanwhile.
  const hold = page.getByRole("button", { name: "Start hold" });
  await hold.click();
  await page.getByRole("button", { name: "Rep done" }).click();
  await expect(hold).toBeVisible();

  // What it saw until then stays with the trial.
  await page.keyboard.press(".");
  await sayWhy(page);
  await page.getByRole("link", { name: "See the trace of the tilt sensor" }).click({ timeout: 20_000 });
  await expect(page.getByRole("img", { name: /The trace of pitch, roll, yaw: control was lost (once|\d times)/ })).toBeVisible();
  await expect(page.getByText(/before control was lost/)).toBeVisible();
  await expect(page.getByRole("row", { name: /^Pitch/ })).toContainText("°");
  await expectAccessible(page, "a trace after the fact");
  // The loss was marked, what else it saw is still proposed; a rep nobody counted can still be.
  const trace = await page.getByRole("img", { name: /control was lost/ }).getAttribute("aria-label");
  const lost = Number(/lost (\d+) times/.exec(trace ?? "")?.[1] ?? 1);
  const proposed = page.getByRole("list", { name: "Proposed by the instrument" });
  await expect(proposed.getByRole("button", { name: "Mark: low back arches" })).toHaveCount(lost - 1);
  await proposed.getByRole("button", { name: /^Count rep/ }).first().click();
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  const counted = (await eventsOf(page, server.address)).filter((e) => e.kind === "rep-done");
  expect(counted.filter((e) => e.instrument === "tilt")).toHaveLength(1);
  await page.getByRole("button", { name: "Closer" }).click();
  await expect(page.getByRole("button", { name: "Whole" })).toBeEnabled();
});

/** The first trial of the first task of Brannoc's screen, opened in the findings. */
async function openTrial(page: Page) {
  await openScreen(page, server.address, /Brannoc Velde/);
  await station(page, "Findings");
  await page.getByRole("button", { name: /with trials and norms/ }).click();
  const tasks = page.locator("section").filter({ has: page.getByRole("heading", { name: "Tasks", exact: true }) });
  await tasks.getByRole("button", { name: "Kick-back" }).click();
}

test("a trace from another source is read in by its columns, and wrong rows are told", async ({ page }) => {
  await openTrial(page);
  await page.getByRole("link", { name: "Trace from a file" }).first().click();
  const rows = Array.from({ length: 300 }, (_, i) => `${i * 20};${i === 40 ? "?" : (5.33 + 0.01 * (i % 3)).toFixed(3).replace(".", ",")}`);
  await page.locator("input[type=file]").setInputFiles({
    name: "other.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(["t ms;P", ...rows].join("\n")),
  });
  await page.getByRole("button", { name: /Pressure/ }).click();
  await page.getByRole("option", { name: "P", exact: true }).click();
  await page.getByRole("button", { name: /mmHg/ }).click();
  await page.getByRole("option", { name: "kPa" }).click();
  await expectAccessible(page, "a trace from a file");
  await page.getByRole("button", { name: "Import" }).click();
  await expect(page.getByRole("alert")).toContainText("line 42, P: “?” is no number.");
  await page.getByText("Leave out rows that cannot be read").click();
  await page.getByRole("button", { name: "Import" }).click();
  await expect(page.getByText("cuff · 6.0 s at 50 a second")).toBeVisible();
  await expect(page.getByText("first three quiet seconds are taken as neutral")).toBeVisible();
  await expect(page.getByText("6.0 s from 30 to 50 mmHg")).toBeVisible();
  const csv = await page.request.get(await page.getByRole("link", { name: "Export CSV" }).evaluate((a) => (a as HTMLAnchorElement).href));
  expect(await csv.text()).toMatch(/^# instrument: cuff\r\n# rate_hz: 50/);
  await page.getByRole("button", { name: "Remove this trace" }).click();
  await page.getByLabel("Why it is removed").fill("The strap slipped.");
  await page.getByRole("button", { name: "Yes, remove the trace" }).click();
  await expect(page.getByRole("tab", { name: "By task" })).toBeVisible();
});

test("points on a photograph are put, moved by keys, read as angles and stored without the picture", async ({ page }) => {
  await openTrial(page);
  await page.getByRole("link", { name: "Measure a photograph" }).first().click();
  await page.getByRole("button", { name: /Sample picture/ }).click();
  await page.getByRole("option", { name: "one leg, level" }).click();
  const sheet = page.locator("svg").filter({ has: page.locator("image") });
  await expect(sheet).toBeVisible();
  const box = (await sheet.boundingBox())!;
  const middle = box.x + box.width / 2;
  await expect(page.getByText("Tap: left hip bone")).toBeVisible();
  await page.mouse.click(middle + 40, box.y + 250);
  await expect(page.getByText("Tap: right hip bone")).toBeVisible();
  await page.mouse.click(middle - 40, box.y + 250);
  const drop = page.getByRole("row", { name: /^Side drop/ });
  await expect(drop).toContainText("level");
  await expectAccessible(page, "points on a photograph");
  // Thirty pixels of the picture down: the right side is lower.
  await page.getByRole("button", { name: /^right hip bone/ }).focus();
  for (let i = 0; i < 30; i++) await page.keyboard.press("ArrowDown");
  await expect(drop).toContainText("the right side lower");
  await page.getByRole("button", { name: "Save with the trial" }).click();
  await page.getByRole("button", { name: /with trials and norms/ }).click();
  await page.getByRole("button", { name: "Kick-back" }).first().click();
  await expect(page.getByText(/^Side drop \d+° the right side lower$/)).toBeVisible();
  await page.getByRole("link", { name: "See the photograph" }).click();
  await expect(page.getByText("Only points and angles are saved, not the picture.")).toBeVisible();
  await page.reload();
  await page.getByRole("button", { name: "Withdraw this measurement" }).click();
  await page.getByRole("button", { name: /with trials and norms/ }).click();
  await page.getByRole("button", { name: "Kick-back" }).first().click();
  await expect(page.getByText(/^Side drop/)).toHaveCount(0);
});
