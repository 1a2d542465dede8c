import { expect, test } from "@playwright/test";
import { expectAccessible } from "./hands";
import { eventsOf, openScreen } from "./screening";
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

test("a tilt sensor is watched: neutral, control lost, its mark kept, and the connection lost", async ({ page }) => {
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
  await page.waitForTimeout(7000);
  await sensor.getByRole("button", { name: "Take neutral" }).click();
  await expect(sensor.getByRole("alert")).toContainText(/Lie still|Not quiet/);
  await tell("still");
  await page.waitForTimeout(1000);
  await sensor.getByRole("button", { name: "Take neutral" }).click();
  await expect(sensor.getByText("In the band")).toBeVisible();
  await expectAccessible(page, "an instrument watched");

  await tell("gives-way");
  await page.getByRole("button", { name: "Start hold" }).click();
  await expect(sensor.getByText("Control lost")).toBeVisible({ timeout: 60_000 });
  await sensor.getByRole("button", { name: "low back arches: earlier" }).click();
  await sensor.getByRole("button", { name: "Mark: low back arches" }).click();
  await expect(sensor.getByRole("button", { name: "Mark: low back arches" })).toHaveCount(0);
  await expect(page.getByText(/low back arches \d+\.\d s/)).toBeVisible();
  await expect(page.getByText("all stored")).toBeVisible();
  const kept = (await eventsOf(page, server.address)).filter((e) => e.kind === "fault-marked");
  expect(kept).toHaveLength(1);
  expect(kept[0]).toMatchObject({ fault: "arch", instrument: "tilt" });

  // The connection goes: the words say so, and capture goes on by hand.
  standIns.stop();
  await expect(sensor.getByText("Connection lost")).toBeVisible();
  await page.getByRole("button", { name: "Rep done" }).click();
  await expect(page.getByRole("button", { name: "Start hold" })).toBeVisible();
});
