import { chromium } from "@playwright/test";
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox"] });
const at = "http://localhost:5077";
async function as(name, size = { width: 1280, height: 800 }) {
  const ctx = await browser.newContext({ viewport: size });
  const page = await ctx.newPage();
  await page.goto(at);
  await page.getByRole("button", { name: new RegExp(name) }).click();
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
  await page.getByRole("link", { name: "Library" }).waitFor();
  return page;
}
const shot = (page, n) => page.screenshot({ path: `/tmp/look/${n}.png` });
{
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(at); await page.getByText("Demo.").waitFor(); await shot(page, "signin");
  await page.goto(at + "/invitation"); await page.getByLabel("Code").waitFor(); await shot(page, "invitation");
}
{
  const page = await as("Ines");
  await page.waitForTimeout(1500);
  await page.goto(at + "/people"); await page.getByRole("heading", { name: "Accounts" }).waitFor(); await shot(page, "people");
  await page.getByLabel("Name").fill("Rosa Thorne"); await page.getByLabel("E-mail").fill("rosa@saltmere.example");
  await page.getByRole("region", { name: "Invite somebody" }).getByText("Trainer").click();
  await page.getByRole("button", { name: "Make a code" }).click();
  await page.getByText("Code for Rosa").waitFor(); await shot(page, "people-code");
  await page.goto(at + "/account"); await page.getByRole("heading", { name: "Your name" }).waitFor(); await page.waitForTimeout(500); await shot(page, "account");
  await page.setViewportSize({ width: 820, height: 1180 }); await page.goto(at + "/people"); await page.getByRole("heading", { name: "Accounts" }).waitFor(); await page.waitForTimeout(400); await shot(page, "people-820");
}
{
  const page = await as("Mina");
  await page.waitForTimeout(1200); await shot(page, "day-reception");
}
await browser.close();
