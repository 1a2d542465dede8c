import AxeBuilder from "@axe-core/playwright";
import { expect, type Page, test } from "@playwright/test";
import { askNewClient, enter, expectAccessible } from "./hands";
import { Server } from "./server";

// For every eye and hand: each view at each width, in light, in the dark and in colours of the device's own.
const server = new Server("demo", 5251);
test.beforeAll(() => server.start());
test.afterAll(() => server.close());

const sizes = [
  { width: 390, height: 844 },
  { width: 820, height: 1180 },
  { width: 1280, height: 800 },
];
const stations = ["ask", "neutral", "screen", "findings", "plan", "session", "decide", "take-home", "note", "chart", "progress", "letter", "replay", "amendments", "discharge", "plan/compare"];
const alone = ["/", "/new", "/clients", "/library", "/library/rungs/B6", "/library/sheet", "/audit", "/overrides", "/settings", "/clinic", "/people", "/account"];

/** WCAG 2 A and AA; what is forced is not painted as asked for, so contrast is left to the device there. */
async function violations(page: Page, forced: boolean) {
  const axe = new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa"]);
  const found = await (forced ? axe.disableRules(["color-contrast"]) : axe).analyze();
  return found.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 140)).join(" | ")}`);
}

const places = (episodeId: string, visitId: string) => [
  ...alone,
  ...stations.map((station) => `/episodes/${episodeId}/visits/${visitId}/${station}`),
];

/** All of them in the soak; in the test run each view has one, and all have their turn. */
const soak = Boolean(process.env.PALAESTRA_SOAK);

for (const half of [0, 1]) {
  test(`every view at each width, light, dark and in forced colours: ${half + 1} of 2`, async ({ page }) => {
    test.setTimeout(soak ? 1_800_000 : 240_000);
    await enter(page, server, /Ines Tarrow/);
    const { visits } = (await (await page.request.get(`${server.address}/api/day`)).json()) as {
      visits: { name: string; episodeId: string; visitId: string }[];
    };
    const { episodeId, visitId } = visits.find((v) => v.name === "Brannoc Velde")!;
    const wrong: string[] = [];
    for (const [v, where] of places(episodeId, visitId).entries()) {
      if (v % 2 !== half) continue;
      for (const [s, size] of sizes.entries()) {
        if (!soak && s !== v % 3) continue;
        for (const look of soak ? [0, 1, 2] : [Math.floor(v / 3) % 3]) {
          await page.setViewportSize(size);
          await page.emulateMedia({ colorScheme: look === 1 ? "dark" : "light", forcedColors: look === 2 ? "active" : "none" });
          await page.goto(server.address + where);
          await expect(page.getByRole("heading").first()).toBeVisible();
          await page.waitForLoadState("networkidle");
          const name = `${where.split("/").at(-1)} at ${size.width}, ${["light", "dark", "forced colours"][look]}`;
          wrong.push(...(await violations(page, look === 2)).map((what) => `${name}: ${what}`));
          const aside = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
          if (aside > 0) wrong.push(`${name}: ${aside} px past the edge`);
        }
      }
    }
    expect(wrong).toEqual([]);
  });
}

test("whoever is new is offered four cards, once, and finds them again behind the question mark", async ({ page }) => {
  await enter(page, server, /Ines Tarrow/);
  await page.getByRole("button", { name: "Show the cards" }).click();
  const cards = page.getByRole("dialog", { name: "A visit in four cards" });
  for (const name of ["Screen", "Findings", "Plan", "Decide"]) {
    await expect(cards.getByRole("heading", { name })).toBeVisible();
    await expect
      .poll(() => cards.getByRole("img", { name: `Picture: ${name}` }).evaluate((img: HTMLImageElement) => img.naturalWidth))
      .toBeGreaterThan(600);
    if (name === "Screen") await expectAccessible(page, "the first card");
    await cards.getByRole("button", { name: /^(Next|Begin)$/ }).press("Enter");
  }
  await expect(cards).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole("link", { name: /Maris Telleke/ }).first()).toBeVisible();
  await expect(page.getByText("New here?")).toHaveCount(0);
  await page.keyboard.press("?");
  await page.getByRole("button", { name: "Show the cards" }).click();
  await cards.getByRole("button", { name: "Skip" }).click();
  await expect(cards).toHaveCount(0);
});

test("a sign-in that has ended is mended in place, and what was typed is still there", async ({ page, context }) => {
  await enter(page, server, /Ines Tarrow/);
  await page.getByRole("button", { name: "New client" }).click();
  await askNewClient(page, "Wendeline Aster");
  const again = page.getByRole("dialog", { name: "Sign in again" });
  /** Presses until somebody is asked; what the page asks for by itself may have met it before. */
  const ended = async (...presses: [role: "button" | "tab", name: RegExp | string][]) => {
    await context.clearCookies();
    await expect(async () => {
      for (const [role, name] of presses)
        if (!(await again.isVisible())) await page.getByRole(role, { name }).click({ timeout: 2000 });
      await expect(again).toBeVisible({ timeout: 2000 });
    }).toPass();
  };
  await ended(["tab", /Body and home/], ["button", "Open the episode"]);
  await expect(again.getByText(/The sign-in of Ines Tarrow/)).toBeVisible();
  await expectAccessible(page, "sign in again");
  await again.getByRole("button", { name: /Ines Tarrow/ }).click();
  await again.getByRole("button", { name: "Sign in", exact: true }).click();
  await expect(again).toHaveCount(0);
  await page.getByRole("tab", { name: /What hurts/ }).click();
  await expect(page.getByLabel("Main complaint")).toHaveValue("Aches after a day of splicing rope.");
  // Somebody else does not find it.
  await ended(["tab", /Body and home/], ["button", "Open the episode"]);
  await again.getByRole("button", { name: /Bram Oakley/ }).first().click();
  await again.getByRole("button", { name: "Sign in", exact: true }).click();
  await expect(again).toHaveCount(0);
  await expect(page.getByText("Aches after a day of splicing rope.")).toHaveCount(0);
});
