// In a real browser: how long until the contact sheet shows all its drawings and answers a tap, on a server that runs.
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import path from "node:path";
import { demo } from "./demo.mjs";

const { chromium } = createRequire(path.resolve("tests/e2e/package.json"))("@playwright/test");
const { address, close } = await demo(5195);
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-gpu"] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const { email, password } = JSON.parse(readFileSync("content/demo/scenario.json", "utf8")).accounts[0];
await page.goto(address);
await page.request.post(`${address}/api/sign-in`, { data: { email, password } });

const times = [];
for (let i = 0; i < 7; i++) {
  const began = performance.now();
  await page.goto(`${address}/library/sheet`);
  await page.waitForFunction(() => document.querySelectorAll("li svg").length > 90);
  await page.locator("label").filter({ hasText: "320 px" }).click();
  await page.waitForFunction(() => document.querySelector("li div")?.clientWidth === 320);
  times.push(performance.now() - began);
}

// From a key to the picture that shows it: the strip of reps changes, and the frame after that is on the screen.
await page.goto(address);
await page.getByRole("link", { name: /Maris Telleke/ }).first().click();
await page.getByRole("link", { name: "Screen", exact: true }).click();
await page.getByRole("button", { name: "Begin the screen" }).click();
await page.getByRole("button", { name: "Do Opposite arm and leg now" }).click();
await page.getByRole("button", { name: /^Start/ }).click();
await page.getByRole("group", { name: "Faults, by where they show" }).waitFor();
const taps = await page.evaluate(async () => {
  const told = () => document.querySelector('main [role="status"]')?.textContent + document.querySelectorAll("kbd").length + document.body.innerText.length + document.querySelector('[aria-label^="Faults"]').innerText;
  const times = [];
  for (let i = 0; i < 60; i++) {
    await new Promise((resolve) => setTimeout(resolve, 60));
    const before = told();
    const began = performance.now();
    document.body.dispatchEvent(new KeyboardEvent("keydown", { key: "a", bubbles: true }));
    while (told() === before) {
      if (performance.now() - began > 2000) throw new Error("A tap was not shown.");
      await new Promise((resolve) => requestAnimationFrame(resolve));
    }
    await new Promise((resolve) => requestAnimationFrame(resolve));
    times.push(performance.now() - began);
  }
  return times;
});

// From a step of the slider to the plan that follows from it: the minutes in words come at once, the plan after an answer.
await page.goto(address);
await page.getByRole("link", { name: /Nerys Quill/ }).first().click();
await page.getByRole("link", { name: "Plan", exact: true }).click();
await page.getByRole("button", { name: "Propose again from the findings" }).click();
await page.getByRole("slider", { name: "Minutes a day" }).focus();
const steps = [];
for (let i = 0; i < 30; i++) {
  const key = i % 20 < 10 ? "ArrowLeft" : "ArrowRight";
  const answered = page.waitForResponse((r) => r.url().endsWith("/plan/propose"), { timeout: 1500 }).catch(() => null);
  const began = performance.now();
  await page.keyboard.press(key);
  if (await answered) {
    await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))));
    steps.push(performance.now() - began);
  }
  await new Promise((resolve) => setTimeout(resolve, 120));
}
await browser.close();
await close();
const [first, ...later] = times;
later.sort((a, b) => a - b);
console.log("\n| in the browser | ms |\n|---|---|");
console.log(`| contact sheet, all drawings there and a tap answered, first time after a start | ${first.toFixed(0)} |`);
console.log(`| the same later, median of ${later.length}, page loaded anew each time | ${later[Math.floor(later.length / 2)].toFixed(0)} |`);
taps.sort((a, b) => a - b);
console.log(`| a fault tapped in a live trial until it is on the screen, median of ${taps.length} | ${taps[Math.floor(taps.length / 2)].toFixed(0)} |`);
console.log(`| the same, slowest of twenty | ${taps[Math.floor(taps.length * 0.95)].toFixed(0)} |`);
steps.sort((a, b) => a - b);
console.log(`| a step of the minutes' slider until the new plan is on the screen, median of ${steps.length} | ${steps[Math.floor(steps.length / 2)].toFixed(0)} |`);
console.log(`| the same, slowest of twenty | ${steps[Math.floor(steps.length * 0.95)].toFixed(0)} |`);
