import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { chromium, expect, type Page, test } from "@playwright/test";
import { enter, expectAccessible } from "./hands";
import { Server } from "./server";

// The home programme as a file on a phone, without network; and its log back in the clinic.
const server = new Server("demo", 5263);
const folder = mkdtempSync(path.join(tmpdir(), "palaestra-home-"));
const file = path.join(folder, "exercises.html");
const executablePath = process.env.CHROMIUM ?? "/usr/bin/chromium";

test.beforeAll(() => server.start());
test.afterAll(async () => {
  await server.close();
  rmSync(folder, { recursive: true, force: true });
});

interface DayVisit {
  name: string;
  episodeId: string;
  visitId: string;
}

async function takeHome(page: Page, name: string): Promise<DayVisit> {
  await enter(page, server, /Ines Tarrow/);
  const { visits } = (await (await page.request.get(`${server.address}/api/day`)).json()) as { visits: DayVisit[] };
  const visit = visits.find((v) => v.name === name)!;
  await page.goto(`${server.address}/episodes/${visit.episodeId}/visits/${visit.visitId}/take-home`);
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "For the client's phone" }).click();
  await (await download).saveAs(file);
  return visit;
}

const press = (page: Page, name: string | RegExp) => page.getByRole("button", { name, exact: typeof name === "string" }).click();

async function begin(page: Page) {
  const anyway = page.getByRole("button", { name: "Do the exercises anyway" });
  if (await anyway.isVisible()) await anyway.click();
  await page.getByRole("button", { name: /^(Begin|Go on:)/ }).click();
}

async function liveDay(page: Page, effort: string) {
  await begin(page);
  await onward(page, effort);
}

/** The sets that are left of the day as they are led, with the phone's clock put on. */
async function onward(page: Page, effort: string) {
  for (let step = 0; step < 60; step++) {
    const start = page.getByRole("button", { name: "Start", exact: true });
    const set = page.getByRole("button", { name: "Set done" });
    const next = page.getByRole("button", { name: "Next set" });
    const over = page.getByText("Done for today.");
    await expect(start.or(set).or(next).or(over)).toBeVisible();
    if (await over.isVisible()) return;
    if (await start.isVisible()) await start.click();
    else if (await next.isVisible()) await next.click();
    else {
      await expect(async () => {
        await page.clock.runFor(20_000);
        await expect(page.getByText(/that is all of this set/).first()).toBeVisible({ timeout: 100 });
      }).toPass({ timeout: 30_000 });
      await set.click();
      await press(page, effort);
    }
  }
  throw new Error("the day does not end");
}

test("five days on a phone without network, and the log becomes the home log: by file, by photo, by camera", async ({
  page,
}) => {
  test.setTimeout(420_000);
  const visit = await takeHome(page, "Ottoline Brask");
  expect(readFileSync(file).length).toBeLessThan(600_000);
  const browser = await chromium.launch({ executablePath, args: ["--no-sandbox"] });
  const phone = await browser.newContext({ viewport: { width: 360, height: 640 }, offline: true, acceptDownloads: true });
  const home = await phone.newPage();
  const asked: string[] = [];
  home.on("request", (request) => asked.push(request.url()));
  // The days before today: what the log tells lies behind the visit.
  const now = new Date();
  const evening = (day: number) => new Date(now.getFullYear(), now.getMonth(), now.getDate() - 6 + day, 18);
  const morning = home.getByRole("group", { name: "How is your back this morning?" });
  const wake = async (day: number, back: number) => {
    await home.clock.setFixedTime(evening(day));
    await home.reload();
    await morning.getByRole("button", { name: `${back} of 10`, exact: true }).click();
    await expect(morning).toHaveCount(0);
  };
  await home.clock.install({ time: evening(1) });
  await home.goto(`file://${file}`);
  await expect(home.getByRole("heading", { name: "Today" })).toBeVisible();
  await expectAccessible(home, "today on the phone");
  await liveDay(home, "Just right");
  await expectAccessible(home, "the day done");
  // Each next day asks how the morning is, once.
  await wake(2, 3);
  await liveDay(home, "Easy");
  await wake(3, 2);
  await liveDay(home, "Just right");
  // It hurts: smaller, and on.
  await wake(4, 2);
  await begin(home);
  await press(home, "Start");
  await press(home, "It hurts");
  await expect(home.getByRole("heading", { name: "Rest a moment" })).toBeFocused();
  await press(home, "4 of 10");
  await expectAccessible(home, "it hurts");
  await press(home, /^Make it smaller/);
  await onward(home, "Hard");
  // And stopped.
  await wake(5, 4);
  await begin(home);
  await press(home, "It hurts");
  await press(home, "9 of 10");
  await expect(home.getByText("That is enough for today.")).toBeVisible();
  await expect(home.getByRole("button", { name: /^Make it smaller/ })).toHaveCount(0);
  await press(home, "Stop for today");
  await expect(home.getByText("You stopped for today. That was right.")).toBeVisible();
  await expect(home.getByRole("button", { name: /^(Begin|Go on)/ })).toHaveCount(0);
  await home.reload();
  await expect(home.getByText("You stopped for today. That was right.")).toBeVisible();
  await press(home, "Show my log");
  await expectAccessible(home, "the log as a code");
  expect(asked.filter((url) => !/^(file|data|blob):/.test(url))).toEqual([]);

  // By photo of the screen, one of each code.
  const photos: string[] = [];
  const codes = Number(/of (\d)/.exec(await home.getByRole("status").innerText())![1]);
  for (let n = 1; n <= codes; n++) {
    photos.push(path.join(folder, `code${n}.jpg`));
    await home.screenshot({ path: photos.at(-1)!, type: "jpeg", quality: 80 });
    if (n < codes) await press(home, "Next code");
  }
  const download = home.waitForEvent("download");
  await press(home, "Save the log as a file");
  const saved = path.join(folder, "log.txt");
  await (await download).saveAs(saved);
  await browser.close();

  await page.goto(`${server.address}/episodes/${visit.episodeId}/visits/${visit.visitId}/session`);
  const openLog = async (on: Page) => {
    const scan = on.getByRole("button", { name: "Scan the client's log" });
    const folded = on.getByRole("button", { name: /^Home log/ });
    const tab = on.getByRole("tab", { name: /Home log$/ });
    await expect(scan.or(folded).or(tab).first()).toBeVisible();
    if (!(await scan.isVisible())) await folded.or(tab).first().click();
    await scan.click();
  };
  await openLog(page);
  const dialog = page.getByRole("dialog");
  // There is no camera here: said, and the other ways are there.
  await expect(dialog.getByText(/No camera can be used here/)).toBeVisible();
  await expectAccessible(page, "scanning without a camera");
  const chooser = page.waitForEvent("filechooser");
  await dialog.getByRole("button", { name: "Choose a photo" }).click();
  await (await chooser).setFiles(photos);
  await expect(dialog.getByText("5 days imported.")).toBeVisible();
  await dialog.getByRole("button", { name: "Close" }).click();
  await expect(page.getByText("reported by client").first()).toBeVisible();

  // The file says the same: it was there already.
  await openLog(page);
  const second = page.waitForEvent("filechooser");
  await dialog.getByRole("button", { name: "Choose the file" }).click();
  await (await second).setFiles(saved);
  await expect(dialog.getByText(/^All of this log was taken in already/)).toBeVisible();
  await dialog.getByRole("button", { name: "Close" }).click();

  // By the tablet's camera: the pictures of the phone as what it sees.
  const film = path.join(folder, "seen.mjpeg");
  writeFileSync(film, Buffer.concat(photos.flatMap((photo) => Array<Buffer>(40).fill(readFileSync(photo)))));
  const tablet = await chromium.launch({
    executablePath,
    args: [
      "--no-sandbox",
      "--use-fake-ui-for-media-stream",
      "--use-fake-device-for-media-stream",
      `--use-file-for-fake-video-capture=${film}`,
    ],
  });
  try {
    const sees = await (await tablet.newContext({ viewport: { width: 820, height: 1180 } })).newPage();
    await enter(sees, server, /Ines Tarrow/);
    await sees.goto(`${server.address}/episodes/${visit.episodeId}/visits/${visit.visitId}/session`);
    await openLog(sees);
    await expect(sees.getByRole("dialog").getByText(/^All of this log was taken in already/)).toBeVisible({ timeout: 30_000 });
  } finally {
    await tablet.close();
  }
});

test("where the phone keeps nothing that is said before the first tick, and a reload still has it", async ({ page }) => {
  await takeHome(page, "Ottoline Brask");
  const browser = await chromium.launch({ executablePath, args: ["--no-sandbox"] });
  try {
    const home = await (await browser.newContext({ viewport: { width: 360, height: 640 }, offline: true })).newPage();
    await home.addInitScript(() => {
      Object.defineProperty(window, "localStorage", {
        get: () => {
          throw new DOMException("denied", "SecurityError");
        },
      });
    });
    await home.goto(`file://${file}`);
    await expect(home.getByText(/This phone does not keep what you tap here/)).toBeVisible();
    await press(home, "It hurts");
    await press(home, "5 of 10");
    await press(home, "Stop for today");
    await expect(home.getByText("You stopped for today. That was right.")).toBeVisible();
    await home.reload();
    await expect(home.getByText("You stopped for today. That was right.")).toBeVisible();
  } finally {
    await browser.close();
  }
});

test("without scripts the whole programme is readable, and on a slow phone it opens all the same", async ({
  page,
}) => {
  await takeHome(page, "Ottoline Brask");
  const browser = await chromium.launch({ executablePath, args: ["--no-sandbox"] });
  try {
    const plain = await (await browser.newContext({ viewport: { width: 360, height: 640 }, javaScriptEnabled: false })).newPage();
    await plain.goto(`file://${file}`);
    for (const words of [/Start:/, /Feel it in:/, /Stop and call if/]) await expect(plain.getByText(words).first()).toBeVisible();
    expect(await plain.locator("section svg").count()).toBeGreaterThanOrEqual(3);

    const slow = await (await browser.newContext({ viewport: { width: 360, height: 640 }, offline: true })).newPage();
    const devtools = await slow.context().newCDPSession(slow);
    await devtools.send("Emulation.setCPUThrottlingRate", { rate: 4 });
    await slow.addInitScript(() => {
      const timer = setInterval(() => {
        if (!document.querySelector("#root button")) return;
        clearInterval(timer);
        document.title = `usable after ${Math.round(performance.now())} ms`;
      }, 5);
    });
    await slow.goto(`file://${file}`);
    await expect(slow).toHaveTitle(/^usable after/);
    console.log(`the home programme, four times slower: ${await slow.title()}`);
    await devtools.send("Emulation.setCPUThrottlingRate", { rate: 1 });
  } finally {
    await browser.close();
  }
});

test("at a secret address it opens on a phone without sign-in, until it is closed", async ({ page }) => {
  await enter(page, server, /Ines Tarrow/);
  const { visits } = (await (await page.request.get(`${server.address}/api/day`)).json()) as { visits: DayVisit[] };
  const visit = visits.find((v) => v.name === "Nerys Quill")!;
  const takeHomePage = `${server.address}/episodes/${visit.episodeId}/visits/${visit.visitId}/take-home`;
  await page.goto(`${server.address}/settings?part=clinic`);
  await page.getByText(/Home programmes may have a secret address/).click();
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("button", { name: "Save" })).toBeDisabled();
  await page.goto(takeHomePage);
  const panel = page.getByRole("region", { name: "On the client’s phone" });
  await panel.getByRole("button", { name: "Open an address for the phone" }).click();
  await expect(panel.getByRole("img", { name: "The address as a code for the phone’s camera" })).toBeVisible();
  await expectAccessible(page, "take home with an address");
  const address = await panel.locator("code").innerText();
  const browser = await chromium.launch({ executablePath, args: ["--no-sandbox"] });
  try {
    const phone = await browser.newContext({ viewport: { width: 360, height: 640 } });
    const home = await phone.newPage();
    const said: string[] = [];
    home.on("console", (message) => said.push(message.text()));
    const asked: string[] = [];
    home.on("request", (request) => asked.push(request.url()));
    await home.goto(address);
    await press(home, "It hurts");
    await press(home, "5 of 10");
    await press(home, "Stop for today");
    await home.reload();
    await expect(home.getByText("You stopped for today. That was right.")).toBeVisible();
    // Nothing but itself was asked for, and nothing was refused by its policy.
    expect(asked.filter((url) => !url.startsWith(address) && !url.startsWith("data:"))).toEqual([]);
    expect(said).toEqual([]);
    await panel.getByRole("button", { name: "Close the address" }).click();
    await expect(panel.getByRole("button", { name: "Open an address for the phone" })).toBeVisible();
    await home.reload();
    await expect(home.getByText(/This address is not open any more/).first()).toBeVisible();
  } finally {
    await browser.close();
  }
});
