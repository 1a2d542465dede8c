import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { expect, test } from "@playwright/test";
import { enter, expectAccessible } from "./hands";
import { Server } from "./server";

// A client's whole record out of the demo, and in again.
const server = new Server("demo", 5264);
const folder = mkdtempSync(path.join(tmpdir(), "palaestra-record-"));

test.beforeAll(() => server.start());
test.afterAll(async () => {
  await server.close();
  rmSync(folder, { recursive: true, force: true });
});

test("a record is made as a file, is there already when it comes back, and is refused when it was changed", async ({ page }) => {
  await enter(page, server, /Ines Tarrow/);
  await page.goto(`${server.address}/clients`);
  await page.getByRole("link", { name: "Brannoc Velde" }).click();
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "Make the file" }).click();
  const file = path.join(folder, "record.zip");
  const saved = await download;
  expect(saved.suggestedFilename()).toMatch(/^Brannoc Velde, record, .+\.zip$/);
  await saved.saveAs(file);

  await page.goto(`${server.address}/clients`);
  await page.getByRole("button", { name: "Take in a record" }).click();
  const dialog = page.getByRole("dialog");
  await expectAccessible(page, "taking in a record");
  const give = async (name: string) => {
    const chooser = page.waitForEvent("filechooser");
    await dialog.getByRole("button", { name: "Choose the file" }).click();
    await (await chooser).setFiles(name);
  };
  const cut = path.join(folder, "cut.zip");
  writeFileSync(cut, readFileSync(file).subarray(0, 5000));
  await give(cut);
  await expect(dialog.getByText(/it is cut off/)).toBeVisible();
  await give(file);
  await expect(dialog.getByText("All of this record was here already.")).toBeVisible();
  await dialog.getByRole("button", { name: "Open the client" }).click();
  await expect(page.getByRole("heading", { name: /Brannoc Velde/ })).toBeVisible();
});
