import AxeBuilder from "@axe-core/playwright";
import { chromium, expect, type Page, test } from "@playwright/test";
import { enter, expectAccessible, pick, station } from "./hands";
import { doTrial, finished, kindOfTrial, startButton } from "./screening";
import { Server } from "./server";

// What is read standing, at a glance: the whole of it is on the screen of a tablet, for every client of the demo.
const server = new Server("demo", 5211);
test.beforeAll(() => server.start());
test.afterAll(() => server.close());

const screens = [
  { width: 1280, height: 800 },
  { width: 820, height: 1180 },
];

interface DayVisit {
  name: string;
  episodeId: string;
  visitId: string;
}

/** Every view that is one look, and the heading that says it has something to show. */
const places = [
  ["plan", /^(Plan, revision|Proposed plan)/, 3],
  ["findings", /^(?!Nothing|A red flag)/, 3],
  ["decide", /decisions?\b/, 1],
] as const;

for (const [place, shown, least] of places) {
  test(`${place} is one look, light, dark and in forced colours`, async ({ page }) => {
    await enter(page, server, /Ines Tarrow/);
    test.setTimeout(180_000);
    let seen = 0;
    for (const visit of await visitsOf(page)) {
      await page.goto(`${server.address}/episodes/${visit.episodeId}/visits/${visit.visitId}/${place}`);
      await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
      await page.waitForLoadState("networkidle");
      if (!(await page.getByRole("heading", { level: 1, name: shown }).isVisible())) continue;
      seen++;
      // Browsers write titles down: no name stands in them.
      await expect(page).toHaveTitle(new RegExp(`^${place} · [\\w-]*\\d+ · Palaestra$`, "i"));
      await isOneLook(page, `${place} of ${visit.name}`);
      if (place === "findings" && (await page.getByRole("img", { name: /^Trunk ring/ }).isVisible())) await labelsStandApart(page, visit.name);
      const anew = page.getByRole("button", { name: "Propose again from the findings" });
      if (place === "plan" && (await anew.isVisible())) {
        await anew.click();
        await expect(page.getByRole("heading", { level: 1, name: "Proposed plan" })).toBeVisible();
        await isOneLook(page, `a plan proposed anew for ${visit.name}`);
      }
      if (seen > 1) continue;
      await page.emulateMedia({ colorScheme: "dark" });
      await expectAccessible(page, `${place} in the dark`);
      for (const colorScheme of ["light", "dark"] as const) {
        await page.emulateMedia({ colorScheme, forcedColors: "active" });
        // The ground that is forced on every page, once it is.
        await expect
          .poll(() => page.evaluate(() => getComputedStyle(document.body).backgroundColor))
          .toBe(colorScheme === "light" ? "rgb(255, 255, 255)" : "rgb(0, 0, 0)");
        // Contrast is the device's then, and cannot be read off the page: what was asked for is told, not what is painted.
        const { violations } = await new AxeBuilder({ page }).disableRules(["color-contrast"]).analyze();
        expect(violations.map((v) => v.id), `${place} in forced colours, ${colorScheme}`).toEqual([]);
      }
      await page.emulateMedia({ colorScheme: "light", forcedColors: "none" });
    }
    expect(seen).toBeGreaterThanOrEqual(least);
  });
}

test("light or dark is chosen on the device, and paper stays light", async ({ page }) => {
  await enter(page, server, /Ines Tarrow/);
  await page.goto(`${server.address}/account`);
  await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
  const ground = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor);
  const light = await ground();
  await pick(page, "On this device", "Dark");
  await expect.poll(ground).not.toBe(light);
  const dark = await ground();
  await expectAccessible(page, "account in the dark");
  await page.reload();
  await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
  expect(await ground()).toBe(dark);
  await page.emulateMedia({ media: "print" });
  await expect.poll(() => page.evaluate(() => getComputedStyle(document.querySelector("h1")!).color)).toBe("rgb(36, 50, 58)");
  await page.emulateMedia({ media: "screen" });
  await pick(page, "On this device", "Light");
  await page.emulateMedia({ colorScheme: "dark" });
  await expect.poll(ground).toBe(light);
});

test("an address that leads nowhere says so", async ({ page }) => {
  await enter(page, server, /Ines Tarrow/);
  const nowhere = "01a22c7d-2038-7279-a21e-000000000000";
  for (const address of ["/nowhere/at/all", `/episodes/${nowhere}/visits/${nowhere}/plan`]) {
    await page.goto(server.address + address);
    await expect(page.getByRole("heading", { name: "Nothing here" })).toBeVisible();
    await expect(page).toHaveTitle("Nothing here · Palaestra");
    await expectAccessible(page, address);
  }
  await page.getByRole("link", { name: "The day" }).click();
  await expect(page).toHaveTitle("The day · Palaestra");
});

test("numbers of a plan that were changed are not lost by a tap on another step", async ({ page }) => {
  await enter(page, server, /Ines Tarrow/);
  await page.getByRole("link", { name: /Ottoline Brask/ }).first().click();
  await station(page, "Plan");
  await page.getByRole("button", { name: /^Reps/ }).first().click();
  await page.getByRole("button", { name: "Increase" }).or(page.getByText("+", { exact: true })).first().click();
  await page.keyboard.press("Escape");
  await station(page, "Session");
  const ask = page.getByRole("alertdialog", { name: "Not saved yet" });
  await ask.getByRole("button", { name: "Stay here" }).click();
  await expect(page.getByRole("button", { name: /Accept as revision/ })).toBeEnabled();
  await page.getByRole("button", { name: /Accept as revision/ }).click();
  await expect(page.getByRole("article", { name: "Home programme" })).toBeVisible();
});

test.describe("a page whose script comes from the server each time", () => {
test.use({ serviceWorkers: "block" });
test("a page that breaks says so, and what was tapped is kept", async ({ page }) => {
  await enter(page, server, /Ines Tarrow/);
  await page.getByRole("link", { name: /Ottoline Brask/ }).first().click();
  await expect(page.getByRole("navigation", { name: "Steps of the visit" })).toBeVisible();
  // In the place of the notes' own script one whose page throws as it is drawn.
  await page.route(/\/assets\/NotePage-.*\.js$/, (route) =>
    route.fulfill({ contentType: "text/javascript", body: 'export function NotePage() { throw new Error("broken on purpose"); }' }),
  );
  await page.goto(page.url().replace(/[^/]+$/, "note"));
  await expect(page.getByRole("heading", { name: "This page could not be shown" })).toBeVisible();
  await expect(page.getByText("broken on purpose")).toBeVisible();
  await page.unroute(/\/assets\/NotePage-.*\.js$/);
  await page.getByRole("button", { name: "Load again" }).click();
  await expect(page.getByRole("heading", { name: "This page could not be shown" })).toHaveCount(0);
});
});

/** Nothing of the page is past the edges of the screen. */
const past = (page: Page) =>
  page.evaluate(() => {
    const { scrollHeight, scrollWidth, clientHeight, clientWidth } = document.documentElement;
    return { down: scrollHeight - clientHeight, aside: scrollWidth - clientWidth };
  });

async function isOneLook(page: Page, what: string) {
  for (const size of screens) {
    await page.setViewportSize(size);
    // Laid out anew, drawings and all.
    await expect.poll(() => past(page), `${what} at ${size.width}`).toEqual({ down: 0, aside: 0 });
  }
}

/** No word of the ring lies over another, or past its edge. */
async function labelsStandApart(page: Page, of: string) {
  const ring = page.getByRole("img", { name: /^Trunk ring/ });
  const boxes = await ring.evaluate((svg) => {
    const box = (e: Element) => (({ left, right, top, bottom }) => ({ left, right, top, bottom }))(e.getBoundingClientRect());
    return { ring: box(svg), words: Array.from(svg.querySelectorAll("text")).map((t) => ({ said: t.textContent, ...box(t) })) };
  });
  expect(boxes.words.length).toBeGreaterThanOrEqual(6);
  for (const [i, a] of boxes.words.entries()) {
    expect(a.left >= boxes.ring.left - 1 && a.right <= boxes.ring.right + 1, `${a.said} of ${of}`).toBe(true);
    for (const b of boxes.words.slice(i + 1)) {
      const over = Math.min(a.right, b.right) > Math.max(a.left, b.left) && Math.min(a.bottom, b.bottom) > Math.max(a.top, b.top);
      expect(over, `“${a.said}” over “${b.said}” of ${of}`).toBe(false);
    }
  }
}

const visitsOf = async (page: Page) =>
  ((await (await page.request.get(`${server.address}/api/day`)).json()) as { visits: DayVisit[] }).visits;

test("the first questions, what was asked before and the start of a session are one look each", async ({ page }) => {
  test.setTimeout(180_000);
  await enter(page, server, /Ines Tarrow/);
  await page.goto(`${server.address}/new`);
  for (const step of [/Red flags/, /What hurts/, /Body and home/]) {
    await page.getByRole("tab", { name: step }).click();
    await isOneLook(page, `a new client, ${step.source}`);
  }
  for (const visit of await visitsOf(page)) {
    const base = `${server.address}/episodes/${visit.episodeId}/visits/${visit.visitId}`;
    await page.goto(`${base}/ask`);
    await expect(page.getByRole("heading", { level: 1, name: "Ask" })).toBeVisible();
    await page.waitForLoadState("networkidle");
    const steps = await page.getByRole("tab").count();
    for (let step = 0; step < Math.max(1, steps); step++) {
      if (steps > 0) await page.getByRole("tab").nth(step).click();
      await isOneLook(page, `Ask of ${visit.name}, step ${step + 1}`);
    }
    await page.goto(`${base}/session`);
    await expect(page.getByRole("heading").first()).toBeVisible();
    await page.waitForLoadState("networkidle");
    const asked = await page.getByRole("tab").count();
    for (let step = 0; step < Math.max(1, asked); step++) {
      if (asked > 0) await page.getByRole("tab").nth(step).click();
      await isOneLook(page, `Session of ${visit.name}, step ${step + 1}`);
    }
  }
});

test("a live trial of every measure is one look, in the dark and in forced colours too", async ({ page }) => {
  test.setTimeout(240_000);
  await enter(page, server, /Ines Tarrow/);
  const visit = (await visitsOf(page)).find((v) => /Asa Lindqvarn/.test(v.name))!;
  await page.goto(`${server.address}/episodes/${visit.episodeId}/visits/${visit.visitId}/screen`);
  await page.getByRole("button", { name: "Begin the screen" }).click();
  const seen = new Set<string>();
  for (let trial = 0; trial < 40 && seen.size < 4; trial++) {
    await expect(startButton(page).or(finished(page)).first()).toBeVisible();
    if (await finished(page).isVisible()) break;
    await startButton(page).click();
    const faults = page.getByRole("group", { name: "Faults, by where they show" });
    await expect(faults).toBeVisible();
    await expect(page.getByRole("navigation", { name: "Steps of the visit" })).toHaveCount(0);
    const kind = await kindOfTrial(page);
    if (!seen.has(kind)) {
      seen.add(kind);
      await isOneLook(page, `live, ${kind}`);
      for (const width of [390, 820, 1280]) {
        await page.setViewportSize({ width, height: width === 820 ? 1180 : 844 });
        await expectAccessible(page, `live, ${kind}, at ${width}`);
        // Nothing that is pressed lies over something else that is.
        expect(await overlapping(page), `live, ${kind}, at ${width}`).toEqual([]);
      }
      await page.emulateMedia({ colorScheme: "dark" });
      await expectAccessible(page, `live, ${kind}, in the dark`);
      await page.emulateMedia({ colorScheme: "light", forcedColors: "active" });
      const { violations } = await new AxeBuilder({ page }).disableRules(["color-contrast"]).analyze();
      expect(violations.map((v) => v.id), `live, ${kind}, forced colours`).toEqual([]);
      await page.emulateMedia({ forcedColors: "none" });
    }
    await doTrial(page, "keys", true);
  }
  expect([...seen]).toEqual(expect.arrayContaining(["effort", "yes or no", "reps"]));
});

/** Buttons of a live trial of which one covers a part of another. */
const overlapping = (page: Page) =>
  page.evaluate(() => {
    const boxes = Array.from(document.querySelectorAll("main button"))
      .map((b) => ({ name: (b.textContent ?? "").trim(), box: b.getBoundingClientRect() }))
      .filter(({ box }) => box.width > 0);
    return boxes.flatMap((a, i) =>
      boxes
        .slice(i + 1)
        .filter(
          (b) =>
            a.box.left < b.box.right - 1 &&
            b.box.left < a.box.right - 1 &&
            a.box.top < b.box.bottom - 1 &&
            b.box.top < a.box.bottom - 1,
        )
        .map((b) => `${a.name} over ${b.name}`),
    );
  });

test("letters twice as large as usual push nothing past the edge", async () => {
  test.setTimeout(120_000);
  const large = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
    args: ["--no-sandbox", "--blink-settings=defaultFontSize=32"],
  });
  try {
    const page = await (await large.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    await enter(page, server, /Ines Tarrow/);
    const { episodeId, visitId } = (await visitsOf(page)).find((v) => /Brannoc Velde/.test(v.name))!;
    const places = ["ask", "findings", "plan", "session", "decide", "take-home", "progress", "letter", "note", "chart"];
    for (const where of [
      "/",
      "/new",
      "/settings",
      "/library",
      "/clients",
      "/account",
      ...places.map((place) => `/episodes/${episodeId}/visits/${visitId}/${place}`),
    ]) {
      await page.goto(server.address + where);
      await expect(page.getByRole("heading").first()).toBeVisible();
      await page.waitForLoadState("networkidle");
      const size = await page.evaluate(() => parseFloat(getComputedStyle(document.body).fontSize));
      expect(size, `${where}: letters are as large as the browser says`).toBeGreaterThan(30);
      await expect.poll(async () => (await past(page)).aside, where).toBe(0);
    }
  } finally {
    await large.close();
  }
});
