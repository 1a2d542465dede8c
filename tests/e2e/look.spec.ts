import { expect, test } from "@playwright/test";
import { enter } from "./hands";
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

for (const [place, shown] of [["plan", /^(Plan, revision|Proposed plan)/]] as const) {
  test(`${place} is one look`, async ({ page }) => {
    await enter(page, server, /Ines Tarrow/);
    const { visits } = (await (await page.request.get(`${server.address}/api/day`)).json()) as { visits: DayVisit[] };
    let seen = 0;
    for (const visit of visits) {
      await page.goto(`${server.address}/episodes/${visit.episodeId}/visits/${visit.visitId}/${place}`);
      await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
      await page.waitForLoadState("networkidle");
      if (!(await page.getByRole("heading", { level: 1, name: shown }).isVisible())) continue;
      seen++;
      for (const size of screens) {
        await page.setViewportSize(size);
        const past = await page.evaluate(() => {
          const { scrollHeight, scrollWidth, clientHeight, clientWidth } = document.documentElement;
          return { down: scrollHeight - clientHeight, aside: scrollWidth - clientWidth };
        });
        expect(past, `${place} of ${visit.name} at ${size.width}`).toEqual({ down: 0, aside: 0 });
      }
    }
    expect(seen).toBeGreaterThan(2);
  });
}
