// Takes the pictures of docs/screenshots from a demo of its own: ./palaestra pictures
import { chromium } from "@playwright/test";
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";

const root = path.resolve(import.meta.dirname, "../..");
const address = "http://127.0.0.1:5194";
const folder = mkdtempSync(path.join(tmpdir(), "palaestra-pictures-"));
const server = spawn("dotnet", [path.join(root, "artifacts/server/Palaestra.Server.dll")], {
  cwd: root,
  stdio: "inherit",
  env: {
    ...process.env,
    PALAESTRA_MODE: "demo",
    PALAESTRA_DATA: folder,
    PALAESTRA_CLIENT: path.join(root, "client/dist"),
    ASPNETCORE_URLS: address,
  },
});
for (let i = 0; i < 300; i++) {
  if (await fetch(`${address}/health`).then((r) => r.ok, () => false)) break;
  await new Promise((resolve) => setTimeout(resolve, 100));
}

const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
  args: ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update", "--disable-sync"],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const rest = () => page.waitForTimeout(700);
const shot = async (name, options = {}) => {
  await rest();
  await page.screenshot({ path: path.join(root, "docs/screenshots", `${name}.png`), ...options });
};
// The first cards are pictures of the same screens.
const card = (name) =>
  page.screenshot({ path: path.join(root, "client/src/frame/cards", `${name}.jpg`), type: "jpeg", quality: 60 });
const station = (name) =>
  page.getByRole("navigation", { name: "Steps of the visit" }).getByRole("link", { name, exact: true }).click();
const open = async (name) => {
  await page.goto(address);
  await page.getByRole("link", { name }).first().click();
  await page.getByRole("navigation", { name: "Steps of the visit" }).waitFor();
};
const pick = (group, choice) =>
  page.getByRole("radiogroup", { name: group }).locator("label").filter({ hasText: choice }).click();

try {
  await page.goto(address);
  await page.getByRole("button", { name: /Ines Tarrow/ }).waitFor();
  await page.getByRole("button", { name: /Ines Tarrow/ }).click();
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
  await page.getByRole("img", { name: /Bridge/ }).first().waitFor();
  await page.getByRole("button", { name: "Not now" }).click();
  await shot("day");
  await open(/Tobiah Wren/);
  await shot("danger-sign");
  await open(/Maris Telleke/);
  await shot("ask");
  await station("Neutral");
  await pick(/Resting shape/, /large arch/);
  await shot("neutral");
  await page.getByRole("button", { name: "Save and screen" }).click();
  await page.getByRole("button", { name: "Begin the screen" }).waitFor();
  await rest();
  await shot("battery");
  await page.getByRole("button", { name: "Begin the screen" }).click();
  await page.getByRole("button", { name: "Do Leg lowering now" }).click();
  await open(/Asa Lindqvarn/);
  await station("Screen");
  await page.getByRole("button", { name: "Begin the screen" }).click();
  await page.getByRole("button", { name: "Do Opposite arm and leg now" }).click();
  await page.getByRole("button", { name: /^Start/ }).click();
  await rest();
  for (let rep = 0; rep < 2; rep++) {
    await page.keyboard.press("Space");
    // The hold counts by itself; a press right after it would be taken for that.
    await page.waitForTimeout(4300);
  }
  await page.keyboard.press("Space");
  await page.waitForTimeout(2100);
  await page.keyboard.press("w");
  await page.screenshot({ path: path.join(root, "docs/screenshots/screen-live.png") });
  await card("screen");
  await page.keyboard.press(".");
  await open(/Asa Lindqvarn/);
  await page.getByRole("link", { name: "Body chart" }).click();
  for (const [kind, view, x, y, far] of [
    ["Ache", /^From behind/, 0.56, 0.4, 0.06],
    ["Burning", /^From behind/, 0.62, 0.53, 0.05],
    ["Pins and needles", /^From behind/, 0.65, 0.64, 0.03],
  ]) {
    await pick("What it feels like", kind);
    const body = await page.getByRole("img", { name: view }).boundingBox();
    const at = (turn) => [
      body.x + body.width * (x + far * Math.cos(turn)),
      body.y + body.height * (y + far * 0.7 * Math.sin(turn)),
    ];
    await page.mouse.move(...at(0));
    await page.mouse.down();
    for (let i = 0; i <= 24; i++) await page.mouse.move(...at((i / 24) * 2 * Math.PI));
    await page.mouse.up();
    await rest();
  }
  await shot("chart");
  await open(/Brannoc Velde/);
  await station("Findings");
  await shot("findings", { fullPage: true });
  await card("findings");
  await open(/Nerys Quill/);
  await station("Session");
  await shot("session");
  await open(/Halla Wintering/);
  await station("Decide");
  await page.getByRole("button", { name: /: evidence, and what would change it$/ }).first().click();
  await shot("decide");
  await card("decide");
  await open(/Ottoline Brask/);
  await station("Plan");
  await page.getByRole("button", { name: "Propose again from the findings" }).click();
  await page.getByRole("slider", { name: "Minutes a day" }).waitFor();
  await shot("plan");
  await card("plan");
  await station("Take home");
  await shot("take-home", { fullPage: true });
  await open(/Nerys Quill/);
  await page.getByRole("link", { name: "Library" }).click();
  await page.locator("ol svg").first().waitFor();
  await shot("library");
  await page.getByRole("link", { name: "Leg reach, arms still" }).click();
  await page.getByText("How hard it is").waitFor();
  await shot("rung", { fullPage: true });
  await page.goto(`${address}/practice`);
  await page.getByRole("button", { name: "Begin", exact: true }).click();
  await page.getByRole("button", { name: "Show the first clip" }).click();
  await page.waitForTimeout(2500);
  await shot("practice");
  await page.getByRole("button", { name: "End here" }).click();
  await page.goto(`${address}/settings`);
  await page.getByRole("heading", { name: "Policies" }).waitFor();
  await shot("settings");
  await open(/Sunniva Achterby/);
  await page.getByRole("link", { name: "Progress" }).click();
  await page.getByRole("heading", { name: "How it goes" }).waitFor();
  await shot("progress", { fullPage: true });
  await page.getByRole("link", { name: "Letter" }).click();
  await page.getByRole("heading", { name: "What was done" }).waitFor();
  await shot("letter", { fullPage: true });
  await page.goto(`${address}/people`);
  const invite = page.getByRole("region", { name: "Invite somebody" });
  await invite.getByLabel("Name").fill("Rosa Thorne");
  await invite.getByLabel("E-mail").fill("rosa@saltmere.example");
  await invite.getByText("Trainer").click();
  await invite.getByRole("button", { name: "Make a code" }).click();
  await page.getByText("Code for Rosa Thorne").waitFor();
  await shot("people");
} finally {
  await browser.close();
  server.kill();
  await new Promise((resolve) => server.once("exit", resolve));
  rmSync(folder, { recursive: true, force: true });
}
