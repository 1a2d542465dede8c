import { expect, type Page, test } from "@playwright/test";
import { enter, expectAccessible, pick, station, typeDate } from "./hands";
import { Server } from "./server";

const server = new Server("demo", 5201);

test.beforeAll(() => server.start());
test.afterAll(() => server.close());

const find = (page: Page, words: string) => page.getByRole("textbox", { name: "Find a client" }).fill(words);

test("a day of a reception desk and two practitioners", async ({ page: desk, browser }) => {
  test.setTimeout(240_000);
  await enter(desk, server, /Mina Forsgate/);
  const tablet = async (who: RegExp) => {
    const page = await (await browser.newContext({ viewport: { width: 820, height: 1180 } })).newPage();
    await enter(page, server, who);
    return page;
  };
  const ines = await tablet(/Ines Tarrow/);
  const other = await tablet(/Oriel Penhallow/);

  // Somebody new stands at the desk: taken in by keys, warned of nobody, booked now.
  await desk.getByRole("link", { name: "Clients" }).click();
  await expectAccessible(desk, "clients");
  await desk.getByRole("button", { name: "Register a client" }).press("Enter");
  await desk.getByLabel("Name", { exact: true }).fill("Łowenna Tregear");
  await typeDate(desk, "Birth date", "07071977");
  await desk.getByLabel("Phone", { exact: true }).fill("0171 5550 12");
  await expectAccessible(desk, "a client at the desk");
  await desk.getByRole("button", { name: "Save" }).press("Enter");
  await expect(desk.getByRole("heading", { level: 1, name: /Łowenna Tregear/ })).toBeVisible();
  await desk.getByRole("button", { name: "Book", exact: true }).press("Enter");
  await pick(desk, "When", "Now, walked in");
  await expectAccessible(desk, "a booking");
  await desk.getByRole("dialog").getByRole("button", { name: "Book", exact: true }).click();
  await expect(desk.getByText("Not asked yet.")).toBeVisible();
  await desk.getByRole("link", { name: "The day" }).click();
  await expect(desk.getByRole("region", { name: "Visits by hour" }).getByText("0171 5550 12")).toBeVisible();

  // Whoever is taken in a second time is told to be there.
  await desk.goto(`${server.address}/clients/new`);
  await desk.getByLabel("Name", { exact: true }).fill("Lowenna Tregear");
  await typeDate(desk, "Birth date", "07071977");
  await expect(desk.getByText("This client is there already:")).toBeVisible();

  // The practitioner hears of her without a reload, and asks before anything else.
  await ines.getByRole("link", { name: /Łowenna Tregear/ }).click();
  await station(ines, "Plan");
  await expect(ines.getByRole("heading", { name: "Nobody has asked this client yet" })).toBeVisible();
  await ines.getByRole("link", { name: "Go to Ask" }).click();
  await ines.getByRole("link", { name: /^Body chart: draw/ }).click();
  await expectAccessible(ines, "a body chart");

  // Drawn by finger: the low back; a slip between the legs is asked about at once.
  const back = ines.getByRole("img", { name: /^From behind/ });
  const at = (await back.boundingBox())!;
  await ines.mouse.move(at.x + at.width * 0.42, at.y + at.height * 0.38);
  await ines.mouse.down();
  for (let i = 0; i <= 12; i++)
    await ines.mouse.move(
      at.x + at.width * (0.45 + 0.05 * Math.cos((i / 12) * 6.28)),
      at.y + at.height * (0.38 + 0.025 * Math.sin((i / 12) * 6.28)),
    );
  await ines.mouse.up();
  await expect(ines.getByText(/^ache, 5 of 10: low back/)).toBeVisible();
  await ines.mouse.click(at.x + at.width * 0.5, at.y + at.height * 0.51);
  await expect(ines.getByRole("alertdialog").getByText(/Numb between the legs/)).toBeVisible();
  await expectAccessible(ines, "a question of the chart");
  await ines.keyboard.press("Escape");
  await expect(ines.getByRole("alertdialog")).toBeVisible();
  await ines.getByRole("alertdialog").getByRole("button", { name: "No", exact: true }).click();
  await ines.getByRole("button", { name: "Remove area 2" }).click();
  await expect(ines.getByText(/^ache, 5 of 10: low back/)).toHaveCount(1);
  // And by keys, by name.
  await ines.getByRole("button", { name: /Or add by name/ }).press("Enter");
  await ines.getByRole("option", { name: "buttock left" }).press("Enter");
  await expect(ines.getByText(/buttock left/).first()).toBeVisible();

  await station(ines, "Ask");
  await ines.getByText("Asked: none of these").click();
  await ines.getByRole("button", { name: "Next" }).click();
  await ines.getByLabel("Main complaint").fill("Low back, since moving house.");
  for (const [question, answer] of [
    ["Pain now", "3"],
    ["Worst, last week", "6"],
    ["Usual, last week", "4"],
    ["After a flare-up it settles", "the same day"],
  ] as const)
    await pick(ines, question, answer);
  await ines.getByRole("button", { name: "Save and continue" }).click();
  await expect(ines.getByRole("heading", { level: 1, name: "Neutral" })).toBeVisible();

  // A note is saved as it is written, survives a reload, and is signed with the password.
  await station(ines, "Notes");
  await ines.getByRole("radiogroup", { name: "Written" }).getByText("Under four headings").click();
  await ines.getByLabel("Subjective").fill("Stiff in the morning, better by noon.");
  await expect(ines.getByText("note saved")).toBeVisible();
  await expectAccessible(ines, "a note");
  // Also what was typed in the moment before.
  await ines.getByLabel("Objective").fill("Bends to the knees.");
  await ines.reload();
  await expect(ines.getByLabel("Subjective")).toHaveValue("Stiff in the morning, better by noon.");
  await expect(ines.getByLabel("Objective")).toHaveValue("Bends to the knees.");
  await expect(ines.getByText("note saved")).toBeVisible();
  await ines.getByRole("button", { name: "Sign", exact: true }).click();
  const confirm = ines.getByRole("dialog").getByLabel("Password");
  if (await confirm.isVisible({ timeout: 2000 }).catch(() => false)) {
    await confirm.fill("lantern-quay-7");
    await ines.getByRole("dialog").getByRole("button").first().click();
  }
  await expect(ines.getByText(/^Signed by Ines Tarrow/)).toBeVisible();

  // The desk books the next visits with her: the time that is taken is told, and booked only when asked.
  await desk.goto(`${server.address}/clients`);
  await find(desk, "tregear");
  await desk.getByRole("link", { name: "Łowenna Tregear" }).click();
  const book = async (who: string, anyway: boolean) => {
    await desk.getByRole("button", { name: "Book", exact: true }).click();
    const dialog = desk.getByRole("dialog");
    await dialog.getByRole("button", { name: /With$|With / }).click();
    await desk.getByRole("option", { name: who }).click();
    await dialog.getByRole("button", { name: "Book", exact: true }).click();
    if (anyway) {
      await expect(dialog.getByText(/^The time is taken/)).toBeVisible();
      await expectAccessible(desk, "a time that is taken");
      await dialog.getByRole("button", { name: "Book it anyway" }).click();
    }
    await expect(dialog).toHaveCount(0);
  };
  await book("Ines Tarrow", false);
  await desk.goto(`${server.address}/clients`);
  await find(desk, "wintering");
  await desk.getByRole("link", { name: "Halla Wintering" }).click();
  await book("Ines Tarrow", true);

  await expect(desk.getByText("Nothing booked.")).toHaveCount(0);
  // It is moved by keys; a colleague who had it open is told, and nothing is lost.
  await desk.getByRole("button", { name: /^Change the visit of/ }).first().press("Enter");
  await desk.getByRole("button", { name: "Move", exact: true }).press("Enter");
  await expectAccessible(desk, "moving a visit");
  await desk.getByRole("dialog").getByRole("spinbutton", { name: /hour/ }).click();
  await desk.keyboard.type("11");
  await desk.getByRole("dialog").getByRole("button", { name: "Move", exact: true }).click();
  await expect(desk.getByRole("dialog")).toHaveCount(0);
  await expect(desk.getByText(/11:00/).first()).toBeVisible();

  // Cancelled, struck through, put back.
  await desk.getByRole("button", { name: /^Change the visit of/ }).first().click();
  await desk.getByRole("button", { name: "Cancel the visit" }).click();
  await desk.getByLabel("Reason, if given").fill("Fever");
  await desk.getByRole("dialog").getByRole("button", { name: "Cancel the visit" }).click();
  await expect(desk.getByText("cancelled").first()).toBeVisible();
  await desk.getByRole("button", { name: /^Change the visit of/ }).first().click();
  await desk.getByRole("button", { name: "Put it back" }).click();
  await expect(desk.getByText("cancelled")).toHaveCount(0);

  // A visit that has begun stays where it is, whoever tries.
  await desk.goto(server.address);
  await desk.getByRole("button", { name: "Change the visit of Łowenna Tregear" }).click();
  await expect(desk.getByText("This visit has begun: it stays at its time.")).toBeVisible();
  await desk.keyboard.press("Escape");

  // Another day, and one practitioner's alone.
  await desk.getByRole("button", { name: "The day after" }).click();
  await expect(desk.getByText("no visits booked")).toBeVisible();
  await desk.getByRole("button", { name: "Today", exact: true }).click();
  await expectAccessible(desk, "the day at the desk");

  // The colleague: finds by birth date, opens the record, sees who wrote what.
  await find(other, "7.7.1977");
  await other.getByRole("link", { name: /Łowenna Tregear/ }).first().click();
  await station(other, "Notes");
  await expect(other.getByText(/^Signed by Ines Tarrow/)).toBeVisible();
});

test("an episode is discharged by keys, leaves the list, stands in the letter and is reopened", async ({ page }) => {
  await enter(page, server, /Ines Tarrow/);
  await page.getByRole("link", { name: /Perrin Lowmoor/ }).first().click();
  await page.getByRole("link", { name: "Letter" }).click();
  await page.getByRole("link", { name: "Discharge" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Discharge" })).toBeVisible();
  await expectAccessible(page, "a discharge");
  for (const goal of await page.getByRole("radiogroup").all()) await goal.getByText("Reached", { exact: true }).click();
  await page.getByLabel("What the client goes on with").fill("The home programme twice a week.");
  await page.getByRole("button", { name: "Discharge", exact: true }).press("Enter");
  await expect(page.getByText(/^Discharged on/).first()).toBeVisible();
  await page.getByRole("link", { name: "The last letter" }).click();
  await expect(page.getByLabel("Discharge", { exact: true }).getByRole("textbox")).toHaveValue(/twice a week/);
  await page.getByRole("link", { name: "The day" }).click();
  await expect(page.getByRole("heading", { name: "Needs a decision" })).toBeVisible();
  const pile = page.locator("section", { has: page.getByRole("heading", { name: "Needs a decision" }) });
  await expect(pile.getByText("Perrin Lowmoor")).toHaveCount(0);

  await find(page, "lowmoor");
  await page.getByRole("link", { name: /Perrin Lowmoor/ }).first().click();
  await station(page, "Plan");
  await expect(page.getByRole("heading", { name: "Nothing can be screened, planned or decided now" })).toBeVisible();
  await page.getByRole("link", { name: "Discharge and reopen" }).click();
  await page.getByLabel("Why it is reopened").fill("It came back");
  await page.getByRole("button", { name: "Reopen the episode" }).click();
  await expect(page.getByText(/^Reopened on/)).toBeVisible();
});

test("the clinic is counted without names, and a client who was erased is certified and found nowhere", async ({ page }) => {
  await enter(page, server, /Ines Tarrow/);
  await page.getByRole("link", { name: "Clinic", exact: true }).click();
  await expect(page.getByText("episodes open")).toBeVisible();
  await expectAccessible(page, "the clinic's view");
  const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: /CSV/ }).click()]);
  expect(file.suggestedFilename()).toBe("clinic.csv");

  await page.goto(`${server.address}/clients`);
  await find(page, "sandringham");
  await page.getByRole("link", { name: "Ivo Sandringham-Pell" }).click();
  await page.getByRole("button", { name: "Erase for good" }).click();
  await page.getByLabel(/^Write the name/).fill("Ivo Sandringham-Pell");
  await page.getByLabel("Why", { exact: true }).last().fill("Asked for it in writing");
  await expectAccessible(page, "erasing somebody");
  await page.getByRole("button", { name: "Erase", exact: true }).click();
  // The record is to be kept for years yet: that it goes early is said, and then it goes.
  await page.getByText("Erase it early, as the client asked").click();
  await page.getByRole("button", { name: "Erase", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Certificate of erasure" })).toBeVisible({ timeout: 30_000 });
  await expectAccessible(page, "a certificate");
  await page.getByRole("dialog").getByRole("button", { name: "Close" }).click();
  await find(page, "sandringham");
  await expect(page.getByText("No client matches that.")).toBeVisible();
});
