// One client's long record: reading all of it beside the bare rows, and every page of its last visit in a real browser.
import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import path from "node:path";
import { longServer } from "./long.mjs";

const { chromium } = createRequire(path.resolve("tests/e2e/package.json"))("@playwright/test");
const { address, data, stop } = await longServer(5204, path.resolve("client/dist"));
const account = JSON.parse(readFileSync("content/demo/scenario.json", "utf8")).accounts[0];

execFileSync("dotnet", ["bench/Palaestra.Bench/bin/Release/net10.0/Palaestra.Bench.dll", "record", data], { stdio: "inherit" });

const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-gpu"] });
const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
await context.request.post(`${address}/api/sign-in`, { data: { email: account.email, password: account.password } });
const page = await context.newPage();
await page.addInitScript(() => {
  window.waitedFor = 0;
  const asked = window.fetch;
  window.fetch = async (...words) => {
    window.waitedFor++;
    try {
      return await asked(...words);
    } finally {
      window.waitedFor--;
    }
  };
});
await page.goto(address);
const link = page.getByRole("link", { name: /Long Record/ }).first();
await link.waitFor();
const visit = (await link.getAttribute("href")).split("/").slice(0, 5).join("/");

/** From the press of a link until nothing of the page changes any more and no answer is waited for; half a second of quiet is the end. */
const settled = (where) =>
  page.evaluate(async (to) => {
    const quiet = 500;
    const began = performance.now();
    let last = began;
    const changes = new MutationObserver(() => (last = performance.now()));
    changes.observe(document.body, { subtree: true, childList: true, characterData: true });
    history.pushState(null, "", to);
    dispatchEvent(new PopStateEvent("popstate"));
    while (performance.now() - last < quiet) {
      if (window.waitedFor > 0) last = performance.now();
      await new Promise((resolve) => setTimeout(resolve, 10));
    }
    changes.disconnect();
    return last - began;
  }, where);

console.log("\n| a page of the long record, in the browser until it stands still | median, ms | slowest, ms | runs |\n|---|---|---|---|");
const stations = ["ask", "chart", "screen", "findings", "plan", "session", "decide", "take-home", "progress", "note", "letter", "discharge", "amendments", "replay"];
for (const station of stations) {
  const times = [];
  for (let i = 0; i < 6; i++) {
    await settled("/clients");
    const ms = await settled(`${visit}/${station}`);
    // The first time the page's own script is loaded too, which bench wire measures.
    if (i > 0) times.push(ms);
  }
  times.sort((a, b) => a - b);
  console.log(`| ${station} | ${times[2].toFixed(0)} | ${times[4].toFixed(0)} | ${times.length} |`);
}
await browser.close();
await stop();
