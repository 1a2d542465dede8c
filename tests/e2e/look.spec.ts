import AxeBuilder from "@axe-core/playwright";
import { expect, test } from "@playwright/test";
import { enter, expectAccessible, pick, station } from "./hands";
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
    const { visits } = (await (await page.request.get(`${server.address}/api/day`)).json()) as { visits: DayVisit[] };
    let seen = 0;
    for (const visit of visits) {
      await page.goto(`${server.address}/episodes/${visit.episodeId}/visits/${visit.visitId}/${place}`);
      await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
      await page.waitForLoadState("networkidle");
      if (!(await page.getByRole("heading", { level: 1, name: shown }).isVisible())) continue;
      seen++;
      await expect(page).toHaveTitle(new RegExp(`^${place} · ${visit.name} · Palaestra$`, "i"));
      for (const size of screens) {
        await page.setViewportSize(size);
        const past = await page.evaluate(() => {
          const { scrollHeight, scrollWidth, clientHeight, clientWidth } = document.documentElement;
          return { down: scrollHeight - clientHeight, aside: scrollWidth - clientWidth };
        });
        expect(past, `${place} of ${visit.name} at ${size.width}`).toEqual({ down: 0, aside: 0 });
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
