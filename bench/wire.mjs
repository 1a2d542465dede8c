// In a real browser: what really goes over the wire, in how many requests, and when a page can be used, at the speed of a poor line.
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import path from "node:path";
import { demo } from "./demo.mjs";

const { chromium } = createRequire(path.resolve("tests/e2e/package.json"))("@playwright/test");
const { address, close } = await demo(5197);

const account = JSON.parse(readFileSync("content/demo/scenario.json", "utf8")).accounts[0];
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-gpu"] });

/** 1.6 Mbit/s down and up, 150 ms there and back: a poor line, as common practice in such measurements has it. */
const poor = { offline: false, downloadThroughput: 1_600_000 / 8, uploadThroughput: 1_600_000 / 8, latency: 150 };

const plain = { ...poor, downloadThroughput: -1, uploadThroughput: -1, latency: 0 };

/** A browser of its own with an empty cache, and a count of what goes over its wire. */
async function fresh({ line = poor, signedIn = false } = {}) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  if (signedIn) await context.request.post(`${address}/api/sign-in`, { data: { email: account.email, password: account.password } });
  const page = await context.newPage();
  const cdp = await context.newCDPSession(page);
  await cdp.send("Network.enable");
  await cdp.send("Network.emulateNetworkConditions", line);
  const asked = new Map();
  cdp.on("Network.requestWillBeSent", ({ requestId, request, type }) => asked.set(requestId, { url: request.url, type, bytes: 0, cached: false }));
  cdp.on("Network.requestServedFromCache", ({ requestId }) => Object.assign(asked.get(requestId) ?? {}, { cached: true }));
  cdp.on("Network.responseReceived", ({ requestId, response }) => {
    const one = asked.get(requestId);
    if (one) Object.assign(one, { cached: one.cached || response.fromDiskCache || response.fromPrefetchCache, status: response.status });
  });
  cdp.on("Network.loadingFinished", ({ requestId, encodedDataLength }) => Object.assign(asked.get(requestId) ?? {}, { bytes: encodedDataLength, done: true }));
  const count = () => {
    const wire = [...asked.values()].filter((one) => !one.cached && one.bytes > 0);
    const sum = (which) => wire.filter(which).reduce((all, one) => all + one.bytes, 0);
    return {
      requests: wire.length,
      bytes: sum(() => true),
      script: sum((one) => one.type === "Script" || one.url.endsWith(".js")),
      urls: wire.map((one) => `${new URL(one.url).pathname}${new URL(one.url).search} ${one.bytes}`),
    };
  };
  return { context, page, count, forget: () => asked.clear() };
}

const rows = [];
const kB = (bytes) => (bytes / 1000).toFixed(0);
function note(what, { bytes, script, requests }, times) {
  const ms = times ? Math.round([...times].sort((a, b) => a - b)[Math.floor(times.length / 2)]) : null;
  rows.push(`| ${what} | ${kB(bytes)} | ${kB(script)} | ${requests} | ${ms === null ? "" : (ms / 1000).toFixed(2)} |`);
}

const signInShown = (page) => page.getByRole("textbox", { name: "E-mail" }).waitFor();
const dayShown = (page) => page.getByRole("link", { name: /Maris Telleke/ }).first().waitFor();

/** The median of three, each with a browser of its own; counted when the page can be used. */
async function loaded(what, where, shown, options) {
  const times = [];
  let last;
  for (let i = 0; i < 3; i++) {
    const { context, page, count } = await fresh(options);
    const began = performance.now();
    await page.goto(address + where, { waitUntil: "commit" });
    await shown(page);
    times.push(performance.now() - began);
    last = count();
    await context.close();
  }
  note(what, last, times);
  if (process.env.WIRE_NAMES) console.error(what, last.urls);
}

// The first person after a start, on the clinic's own network.
{
  const { context, page, count, forget } = await fresh({ line: plain });
  await page.goto(address);
  await signInShown(page);
  await page.getByRole("textbox", { name: "E-mail" }).fill(account.email);
  await page.getByLabel("Password").fill(account.password);
  forget();
  const began = performance.now();
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
  await dayShown(page);
  note("from the sign-in to the day, server just started, no poor line", count(), [performance.now() - began]);
  await context.close();
}

await loaded("the sign-in page, nothing kept", "/", signInShown);
await loaded("the day, signed in, nothing kept", "/", dayShown, { signedIn: true });

// After the sign-in, as somebody types: what was fetched at rest meanwhile counts too.
{
  const { context, page, count, forget } = await fresh();
  await page.goto(address);
  await signInShown(page);
  await page.waitForLoadState("networkidle");
  forget();
  await page.getByRole("textbox", { name: "E-mail" }).fill(account.email);
  await page.getByLabel("Password").fill(account.password);
  const began = performance.now();
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
  await dayShown(page);
  note("from the sign-in to the day", count(), [performance.now() - began]);
  await page.waitForLoadState("networkidle");
  forget();
  const again = performance.now();
  await page.goto(address, { waitUntil: "commit" });
  await dayShown(page);
  const next = count();
  note("the day again, later", next, [performance.now() - again]);
  if (process.env.WIRE_NAMES) console.error("the day again", next.urls);
  await context.close();
}

// Any other page beyond what the day has loaded; nothing is fetched at rest here, so that each is seen alone.
{
  const stations = ["ask", "screen", "findings", "plan", "session", "decide", "take-home", "progress", "letter", "note", "chart"];
  const pages = ["/clients", "/library", "/settings", "/clinic", "/people", "/account"];
  const day = await (async () => {
    const { context, page } = await fresh({ line: plain, signedIn: true });
    await page.goto(address);
    await dayShown(page);
    const href = await page.getByRole("link", { name: /Maris Telleke/ }).first().getAttribute("href");
    await context.close();
    return href;
  })();
  const visit = day.split("/").slice(0, 5).join("/");
  let most = { script: 0, bytes: 0, requests: 0 };
  for (const where of [...pages, ...stations.map((station) => `${visit}/${station}`)]) {
    const { context, page, count, forget } = await fresh({ line: plain, signedIn: true });
    await page.addInitScript(() => {
      window.requestIdleCallback = () => 0;
    });
    await page.goto(address);
    await dayShown(page);
    await page.waitForLoadState("networkidle");
    forget();
    await page.evaluate((to) => {
      history.pushState(null, "", to);
      dispatchEvent(new PopStateEvent("popstate"));
    }, where);
    await page.waitForTimeout(1500);
    const beyond = count();
    const name = where.startsWith(visit) ? where.split("/").at(-1) : where;
    if (process.env.WIRE_NAMES) console.error(name, beyond.script);
    if (beyond.script > most.script) most = { ...beyond, name };
    await context.close();
  }
  rows.push(`| the heaviest other page beyond the day, its script at once | ${kB(most.bytes)} | ${kB(most.script)} | ${most.requests} | |`);
}

await browser.close();
await close();
console.log("\n| over the wire, 1.6 Mbit/s and 150 ms | kB | of it script, kB | requests | usable after, s |\n|---|---|---|---|---|");
console.log(rows.join("\n"));
