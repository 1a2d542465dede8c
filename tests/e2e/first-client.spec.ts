import { expect, type Page, test } from "@playwright/test";
import { askNewClient, becomeFirst, pick, typeDate } from "./hands";
import { doTrial, finished, startButton } from "./screening";
import { Server } from "./server";

const server = new Server("serve", 5257);
test.beforeAll(() => server.start());
test.afterAll(() => server.close());
test.use({ hasTouch: true, viewport: { width: 820, height: 1180 } });

/** Counts what the hand does, over all pages of the visit. */
async function countHands(page: Page) {
  await page.addInitScript(() => {
    for (const kind of ["click", "keydown"] as const)
      addEventListener(kind, () => localStorage.setItem(kind, String(Number(localStorage.getItem(kind) ?? 0) + 1)), true);
    window.print = () => localStorage.setItem("printed", "yes");
  });
  return () =>
    page.evaluate(() => ({ presses: Number(localStorage.getItem("click") ?? 0), keys: Number(localStorage.getItem("keydown") ?? 0) }));
}

/** Seconds a practised hand takes for a press and for a key (keystroke-level model of Card, Moran and Newell; from memory). */
const pressSeconds = 1.1 + 1.35;
const keySeconds = 0.28;

test("somebody new books, screens, plans and prints a first client by what the screens say", async ({ page }) => {
  test.skip(!process.env.PALAESTRA_SOAK, "it takes a client's own time: in the soak");
  test.setTimeout(600_000);
  const hands = await countHands(page);
  const log: string[] = [];
  const began = Date.now();
  const step = async (name: string) => {
    const { presses, keys } = await hands();
    log.push(`${name}: ${presses} presses, ${keys} keys, ${((Date.now() - began) / 1000).toFixed(0)} s`);
  };
  await page.goto(server.address);
  await becomeFirst(page, server.firstCode());
  await step("in the clinic");
  await page.getByRole("button", { name: "New client" }).first().click();
  await askNewClient(page, "Tamsin Greave");
  await page.getByRole("button", { name: "Next" }).click();
  await page.getByRole("button", { name: "Open the episode" }).click();
  await expect(page.getByRole("heading", { name: "Neutral" })).toBeVisible();
  await pick(page, "Resting shape of the low back", "large arch");
  await page.getByRole("button", { name: "Save and screen" }).click();
  await step("asked");
  await pick(page, "Time available", "10 min");
  await page.getByRole("button", { name: "Begin the screen" }).click();
  let trials = 0;
  for (; trials < 40; trials++) {
    await expect(startButton(page).or(finished(page))).toBeVisible();
    if (await finished(page).isVisible()) break;
    await startButton(page).tap();
    await doTrial(page, "touch", trials % 3 !== 2);
  }
  await step(`${trials} trials`);
  await page.getByRole("link", { name: "See the findings" }).click();
  await page.getByRole("link", { name: "Make a plan" }).click();
  await page.getByRole("button", { name: "Accept as revision 1" }).click();
  await step("planned");
  await page.getByRole("button", { name: "Print this page" }).click();
  expect(await page.evaluate(() => localStorage.getItem("printed"))).toBe("yes");
  const next = new Date(Date.now() + 7 * 86_400_000);
  const two = (n: number) => String(n).padStart(2, "0");
  await typeDate(page, "Next visit", `${two(next.getDate())}${two(next.getMonth() + 1)}${next.getFullYear()}1030`);
  await page.getByRole("button", { name: "Book the visit" }).click();
  await expect(page.getByText("Next visit:").first()).toBeVisible();
  await step("printed and booked");
  const { presses, keys } = await hands();
  const minutes = (presses * pressSeconds + keys * keySeconds + trials * 6) / 60;
  console.log(log.join("\n"));
  console.log(`${presses} presses, ${keys} keys, ${trials} trials: about ${minutes.toFixed(1)} min with six seconds a trial for the client`);
  expect(presses).toBeLessThanOrEqual(130);
});
