import { expect, type Page, test } from "@playwright/test";
import { askNewClient, becomeFirst, expectAccessible, pick, station, typeDate } from "./hands";
import { doTrial, finished, keepOnly, startButton, stored, sayWhy } from "./screening";
import { Server } from "./server";

const server = new Server("serve", 5191);

test.beforeAll(() => server.start());
test.afterAll(() => server.close());

interface Told {
  id: string;
  kind: string;
  trialId: string;
}

const eventsOf = async (page: Page): Promise<Told[]> => {
  const visitId = /visits\/([^/]+)/.exec(page.url())![1];
  const answer = await page.request.get(`${server.address}/api/visits/${visitId}/events`);
  return ((await answer.json()) as { events: Told[] }).events;
};

/** The clinic's first administrator, made or signed in. */
async function signInFirst(page: Page) {
  const data = { name: "Edda Marl", email: "edda@clinic.example", password: "three quiet words" };
  const first = await page.request.post(`${server.address}/api/first-administrator`, {
    data: { ...data, code: server.firstCode() },
  });
  if (!first.ok())
    await page.request.post(`${server.address}/api/sign-in`, {
      data: { email: data.email, password: data.password },
    });
}

test("from an empty database to the second plan revision, through a reload and a killed server", async ({
  page,
}) => {
  await page.goto(server.address);
  await becomeFirst(page, server.firstCode());

  await expect(page.getByRole("heading", { name: "No clients yet" })).toBeVisible();
  await page.getByRole("button", { name: "New client" }).first().click();

  // A height of 17 m is refused at its field, and nothing that was typed is lost, not even by a reload.
  await askNewClient(page, "Wenna Sorrel");
  await page.getByRole("button", { name: "Next" }).click();
  await page.getByRole("textbox", { name: "Height, cm" }).fill("1700");
  await page.getByRole("textbox", { name: "Height, cm" }).blur();
  await page.getByRole("button", { name: "Open the episode" }).click();
  await expect(page.getByText("Height is between 100 and 230 cm.").first()).toBeVisible();
  await page.reload();
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Wenna Sorrel");
  await page.getByRole("tab", { name: /Body and home/ }).click();
  await page.getByRole("textbox", { name: "Height, cm" }).fill("170");
  await page.getByRole("textbox", { name: "Height, cm" }).blur();
  await page.getByRole("button", { name: "Open the episode" }).click();

  await expect(page.getByRole("heading", { name: "Neutral" })).toBeVisible();
  await pick(page, "Resting shape of the low back", "large arch");
  await expect(page.getByText("The resting arch is large")).toBeVisible();
  await expect(page.getByText("Gently flat; brace.")).toBeVisible();
  await page.getByRole("button", { name: "Save and screen" }).click();

  // First trial, one without holds: two reps, a reload in the middle, the rest.
  // The screen is planned by hand: three climbs, and one rung for itself.
  await keepOnly(page, ["Leg lowering", "Bridge, climbing", "Opposite arm and leg"]);
  await page.getByRole("button", { name: "Add any exercise" }).click();
  await pick(page, "From which ladder", "Limb lowering");
  await page.getByRole("button", { name: "Add Heel tap" }).click();
  await expect(page.getByText(/^4 tasks/)).toBeVisible();
  await page.getByRole("button", { name: "Begin the screen" }).click();
  await page.getByRole("button", { name: "Do Heel tap now" }).click();
  await startButton(page).click();
  await page.keyboard.press("Space");
  await page.keyboard.press("Space");
  await expect(page.getByText("clean of 2 reps")).toBeVisible();
  await page.reload();
  await expect(page.getByText("clean of 2 reps")).toBeVisible();
  await page.keyboard.press("Space");
  await page.keyboard.press("z");
  await expect(page.getByText("clean of 2 reps")).toBeVisible();
  await page.keyboard.press("y");
  await page.keyboard.press("Space");
  await page.keyboard.press("Space");
  await expect(page.getByText("clean of 5 reps")).toBeVisible();
  await page.keyboard.press(".");

  // Second trial: the server is killed in the middle; the marks go on; it is started again and has them once.
  await expect(startButton(page)).toBeVisible();
  await startButton(page).click();
  await page.keyboard.press("Space");
  await stored(page);
  await server.kill();
  await page.keyboard.press("a");
  await page.keyboard.press("Space");
  await page.keyboard.press("Space");
  await expect(page.getByText(/kept; server away/)).toBeVisible();
  await page.keyboard.press(".");
  await sayWhy(page);
  await server.start();
  await expect(page.getByText("saved", { exact: true })).toBeVisible({ timeout: 60_000 });
  const afterKill = await eventsOf(page);
  expect(new Set(afterKill.map((e) => e.id)).size).toBe(afterKill.length);
  const second = afterKill.filter((e) => e.trialId === afterKill.at(-1)!.trialId).map((e) => e.kind);
  expect(second.filter((k) => k === "fault-marked")).toHaveLength(1);
  expect(second.at(-1)).toBe("trial-ended");

  // The rest of the screen, as it is proposed: easy on the left, one rung harder breaks.
  for (let trial = 0; trial < 30; trial++) {
    await expect(startButton(page).or(finished(page))).toBeVisible();
    if (await finished(page).isVisible()) break;
    const left = (await startButton(page).innerText()).includes("left");
    await startButton(page).click();
    const hard = await page
      .getByRole("heading", { name: /Leg reach|Opposite|Single-leg|Kick-back|Both legs|Weight/ })
      .isVisible();
    await doTrial(page, "keys", left ? !hard : trial % 2 === 0 && !hard);
  }
  await page.getByRole("link", { name: "See the findings" }).click();
  await expect(page.getByRole("img", { name: /Trunk ring/ })).toBeVisible();

  await page.getByRole("link", { name: "Make a plan" }).click();
  await expect(page.getByRole("heading", { name: /Proposed plan/ })).toBeVisible();
  await page.getByRole("button", { name: /: change, swap, why$/ }).first().click();
  await expect(page.getByText("(P-BASE)")).toBeVisible();
  await page.getByRole("button", { name: "Done" }).click();
  await page.getByRole("button", { name: "Accept as revision 1" }).click();

  await expect(page.getByRole("article", { name: "Home programme" })).toBeVisible();
  const today = new Date();
  const two = (n: number) => String(n).padStart(2, "0");
  await typeDate(page, "Next visit", `${two(today.getDate())}${two(today.getMonth() + 1)}${today.getFullYear()}2359`);
  await page.getByRole("button", { name: "Book the visit" }).click();

  // The next visit, from the day.
  await expect(page.getByText("Next visit:").first()).toBeVisible();
  await page.getByRole("link", { name: "The day" }).click();
  await page.getByRole("link", { name: /Wenna Sorrel.*visit 2/ }).click();
  await page.getByText("Asked: none of these").click();
  await page.getByRole("button", { name: "Next" }).click();
  await pick(page, /^Pain now/, "2");
  await pick(page, "Usual, since last time", "2");
  await pick(page, "After the last session it settled", "within an hour");
  await page.getByRole("button", { name: "Start the session" }).click();
  for (let set = 0; set < 30; set++) {
    await expect(startButton(page).or(page.getByRole("heading", { name: /reps clean$/ }))).toBeVisible();
    if (await page.getByRole("heading", { name: /reps clean$/ }).isVisible()) break;
    await startButton(page).click();
    await doTrial(page, "keys", (await page.getByRole("button", { name: "Start hold" }).count()) === 0);
    await pick(page, /^Pain after/, "2");
    await pick(page, "Felt mainly in", "abdomen");
    await pick(page, /^How hard/, "5");
  }
  await page.getByRole("link", { name: "Go to Decide" }).click();
  await expect(page.getByRole("heading", { name: /decisions/ })).toBeVisible();
  await page.getByRole("button", { name: /: evidence, and what would change it$/ }).first().click();
  await expect(page.getByText(/^Rules? D-/).first()).toBeVisible();
  await page.getByRole("button", { name: "Other" }).first().click();
  await page
    .getByRole("radiogroup", { name: "Instead" })
    .getByText(/^(ease the dose|step down)$/)
    .first()
    .click();
  await expect(page.getByRole("button", { name: "Use this instead" })).toBeDisabled();
  await page.getByRole("textbox", { name: "Why" }).fill("Long shift ahead of her.");
  await page.getByRole("button", { name: "Use this instead" }).click();
  await expect(
    page.getByText(/by the policy; yours: (ease the dose|step down) \(Long shift ahead of her\)/),
  ).toBeVisible();
  await page.getByRole("button", { name: "Accept these decisions" }).click();
  await expect(page.getByText(/plan 2,/)).toBeVisible();

  await station(page, "Decide");
  await expect(page.getByText("Chosen by Edda Marl: Long shift ahead of her.")).toBeVisible();
});

test("an administrator without a backup is told, and makes one by keys", async ({ page }) => {
  await signInFirst(page);
  await page.goto(server.address);
  await expect(page.getByText("There is no backup yet.")).toBeVisible();
  await page.getByRole("link", { name: "See backups" }).press("Enter");
  const backups = page.getByRole("region", { name: "Backups" });
  await expect(backups).toBeInViewport();
  await backups.getByRole("button", { name: "Back up now" }).press("Enter");
  await expect(backups.getByText("Last good backup")).toBeVisible();
  await expect(backups.getByText("1 backup")).toBeVisible();
  await expectAccessible(page, "settings with backups");
  await page.getByRole("link", { name: "The day" }).click();
  await expect(page.getByText("There is no backup yet.")).toBeHidden();
});

test("a red flag closes the stations until somebody records what was done", async ({ page }) => {
  await signInFirst(page);
  await page.goto(server.address);
  await page.getByRole("button", { name: "New client" }).first().click();
  await askNewClient(page, "Joss Ferrant");
  await page.getByRole("tab", { name: /Red flags/ }).click();
  await page.getByText("Pain at night that no position eases").click();
  await page.getByRole("button", { name: "Open the episode" }).click();
  await expect(page.getByRole("button", { name: "Record and continue" })).toBeVisible();
  await station(page, "Screen");
  await expect(page.getByRole("heading", { name: "Stopped by a red flag" })).toBeVisible();
  await page.getByRole("link", { name: "The day" }).click();
  await expect(page.getByText("Record what was done before anything else.")).toBeVisible();
  await page
    .getByRole("link", { name: /Joss Ferrant/ })
    .first()
    .click();
  await page.getByLabel("What was found").fill("Eased by lying on the side after all.");
  await page.getByLabel("What was done about it").fill("Seen by the physician, who sent him back.");
  await page.getByRole("button", { name: "Record and continue" }).click();
  await expect(page.getByText(/Resolved .* by Edda Marl/)).toBeVisible();
  await station(page, "Screen");
  await expect(page.getByRole("button", { name: "Begin the screen" })).toBeVisible();
});
