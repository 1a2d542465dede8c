import { chromium, expect, test } from "@playwright/test";
import { createHash, X509Certificate } from "node:crypto";
import { askNewClient, becomeFirst, expectAccessible } from "./hands";
import { Server } from "./server";

const name = "clinic.example";
const port = 5187;
const server = new Server("serve", 5186, undefined, { PALAESTRA_HTTPS_PORT: String(port) });

test.afterAll(() => server.close());

/** A browser that finds the clinic's name at this machine and trusts one key: that of the clinic's certificate. */
const tablet = (trusted: string) =>
  chromium.launch({
    executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
    args: [
      "--no-sandbox",
      "--disable-gpu",
      `--host-resolver-rules=MAP * 127.0.0.1`,
      `--ignore-certificate-errors-spki-list=${trusted}`,
    ],
  });

test("a tablet works over https under the clinic's own name, and another key is not taken", async () => {
  const certificate = new X509Certificate(server.certify(name));
  const key = certificate.publicKey.export({ type: "spki", format: "der" });
  await server.start();

  const browser = await tablet(createHash("sha256").update(key).digest("base64"));
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`https://${name}:${port}`);
    expect(await page.evaluate(() => window.isSecureContext)).toBe(true);
    await expect(page.getByText("This connection is not encrypted.")).toHaveCount(0);
    await becomeFirst(page, server.firstCode());
    await expect(page.getByRole("heading", { name: "No clients yet" })).toBeVisible();
    const [cookie] = (await page.context().cookies()).filter((c) => c.name === "palaestra");
    expect(cookie).toMatchObject({ secure: true, httpOnly: true, sameSite: "Strict" });
    await page.getByRole("button", { name: "New client" }).first().click();
    await askNewClient(page, "Wenna Sorrel");
    await page.getByRole("button", { name: "Open the episode" }).click();
    await expect(page.getByRole("heading", { name: "Neutral" })).toBeVisible();

    // Plain http under that name: what is off stands on the door.
    const open = await (await browser.newContext()).newPage();
    await open.goto(`http://${name}:5186`);
    await expect(open.getByText("This connection is not encrypted.")).toBeVisible();
    await expectAccessible(open, "sign in over plain http");
  } finally {
    await browser.close();
  }

  const stranger = await tablet(createHash("sha256").update("some other key").digest("base64"));
  try {
    const page = await stranger.newPage();
    await expect(page.goto(`https://${name}:${port}`)).rejects.toThrow(/ERR_CERT_AUTHORITY_INVALID/);
  } finally {
    await stranger.close();
  }
});
