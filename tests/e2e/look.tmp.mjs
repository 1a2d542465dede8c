import { chromium } from "@playwright/test";
const b = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox"] });
const w = Number(process.argv[2] ?? 1280), h = Number(process.argv[3] ?? 800);
const p = await b.newPage({ viewport: { width: w, height: h } });
p.on("console", (m) => m.type() === "error" && console.log("console", m.text()));
p.on("pageerror", (e) => console.log("pageerror", e.message));
await p.goto("http://localhost:5077/");
await p.getByLabel("E-mail").fill("ines@saltmere.example");
await p.getByLabel("Password").fill("lantern-quay-7");
await p.keyboard.press("Enter");
await p.waitForTimeout(3000);
await p.goto("http://localhost:5077/practice");
await p.waitForTimeout(1000);
await p.getByRole("button", { name: "Begin" }).click();
await p.getByRole("button", { name: "Show the first clip" }).waitFor();
const t0 = Date.now();
await p.keyboard.press("Space");
let shot = false, told = false, n = 0;
while (n < 12) {
  await p.waitForTimeout(3000);
  // a mark in every second clip
  const chip = p.locator("[aria-description]").first();
  if (n % 2 === 0 && await chip.count()) await chip.click();
  await p.getByRole("button", { name: /That is it|It held|Left/ }).first().waitFor({ timeout: 30000 });
  if (!shot && await p.getByText("Which side?").count()) { await p.screenshot({ path: `/tmp/clip/side-${w}.png` }); shot = true; }
  if (await p.getByRole("button", { name: "Left" }).count()) await p.keyboard.press("1"); else await p.keyboard.press("Space");
  await p.getByRole("button", { name: /Next clip|What it came to/ }).waitFor();
  if (!told && await p.getByText("dashed").count()) { await p.waitForTimeout(2500); await p.screenshot({ path: `/tmp/clip/told-${w}.png` }); told = true; }
  n++;
  await p.keyboard.press("Space");
}
console.log("12 clips", (Date.now() - t0) / 1000, "s");
await p.waitForTimeout(500);
await p.getByRole("button", { name: "End here" }).click();
await p.waitForTimeout(1000);
await p.screenshot({ path: `/tmp/clip/end-${w}.png` });
await p.goto("http://localhost:5077/practice");
await p.waitForTimeout(1500);
await p.screenshot({ path: `/tmp/clip/room2-${w}.png` });
await p.goto("http://localhost:5077/settings?part=eye");
await p.waitForTimeout(1500);
await p.screenshot({ path: `/tmp/clip/eye-${w}.png` });
await b.close();
