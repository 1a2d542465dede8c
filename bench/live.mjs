// Instruments live, by a bridge of our own that knows when each sample was measured: how long until it is sent on by the server,
// until it stands on the screen, and how many pictures a second are drawn; with one instrument and with twenty at once.
import { spawn } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import path from "node:path";

const { chromium } = createRequire(path.resolve("tests/e2e/package.json"))("@playwright/test");
const rate = 100;
const batchMs = 50;
const devices = 20;
const port = 5206;
const address = `http://127.0.0.1:${port}`;

// The bridge: every device measures all the time; what was measured in the last 50 ms is sent together, as radios do.
const lines = new Set();
let connected;
const heard = new Promise((resolve) => (connected = resolve));
const began = Date.now();
let sent = 0;
let step = Infinity;
let back = Infinity;
const bridge = createServer((socket) => {
  socket.setNoDelay(true);
  for (let i = 1; i <= devices; i++) {
    socket.write(JSON.stringify({ kind: "device", device: `tilt-${i}`, is: "tilt", rate, channels: ["pitch", "roll", "yaw"], battery: 1 }) + "\n");
  }
  sent = Math.floor(((Date.now() - began) * rate) / 1000);
  lines.add(socket);
  socket.on("error", () => lines.delete(socket));
  socket.on("close", () => lines.delete(socket));
  connected();
}).listen(5207, "127.0.0.1");
const noise = () => 0.2 * (Math.random() + Math.random() - 1);
const ticking = setInterval(() => {
  const until = Math.floor(((Date.now() - began) * rate) / 1000);
  if (until <= sent) return;
  for (const socket of lines) {
    for (let i = 1; i <= devices; i++) {
      const values = [];
      for (let n = sent; n < until; n++) {
        const lost = i === 1 && n >= step && n < back;
        values.push([Number(((lost ? 9 : 0) + noise()).toFixed(3)), Number(noise().toFixed(3)), Number(noise().toFixed(3))]);
      }
      socket.write(JSON.stringify({ kind: "samples", device: `tilt-${i}`, first: sent, values }) + "\n");
    }
  }
  sent = until;
}, batchMs);
const momentOf = (ordinal) => began + (1000 * ordinal) / rate;

const folder = mkdtempSync(path.join(tmpdir(), "palaestra-bench-"));
const server = spawn("dotnet", ["artifacts/server/Palaestra.Server.dll"], {
  stdio: ["ignore", "ignore", "inherit"],
  env: {
    ...process.env,
    PALAESTRA_MODE: "demo",
    PALAESTRA_DATA: folder,
    PALAESTRA_CLIENT: path.resolve("client/dist"),
    PALAESTRA_INSTRUMENTS: "127.0.0.1:5207",
    ASPNETCORE_URLS: address,
  },
});
const sleep = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
while (!(await fetch(`${address}/health`).then((r) => r.ok, () => false))) await sleep(50);
await heard;

const { email, password } = JSON.parse(readFileSync("content/demo/scenario.json", "utf8")).accounts[0];
const signIn = await fetch(`${address}/api/sign-in`, {
  method: "POST",
  headers: { "content-type": "application/json" },
  body: JSON.stringify({ email, password }),
});
const cookie = signIn.headers.getSetCookie().map((c) => c.split(";")[0]).join("; ");
const spread = (times) => {
  const sorted = [...times].sort((a, b) => a - b);
  const at = (share) => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))];
  return `${at(0.5).toFixed(0)} | ${at(0.95).toFixed(0)} | ${sorted.at(-1).toFixed(0)} | ${sorted.length}`;
};
const rows = [];

// Twenty watchers, one a device, each with its neutral taken: what a clinic with twenty rooms would be.
await sleep(3500);
for (let i = 1; i <= devices; i++) {
  const taken = await fetch(`${address}/api/instruments/tilt-${i}/neutral`, { method: "POST", headers: { cookie, "content-type": "application/json" }, body: "{}" });
  if (!taken.ok) throw new Error(`Neutral of tilt-${i}: ${await taken.text()}`);
}
const stop = new AbortController();
const ages = [];
let missed = 0;
async function watch(device) {
  const answer = await fetch(`${address}/api/instruments/${device}/stream`, { headers: { cookie }, signal: stop.signal });
  const reader = answer.body.pipeThrough(new TextDecoderStream()).getReader();
  let text = "";
  let seen = 0;
  for (;;) {
    const { value, done } = await reader.read().catch(() => ({ done: true }));
    if (done) return;
    text += value;
    const parts = text.split("\n\n");
    text = parts.pop();
    for (const part of parts) {
      const data = JSON.parse(/^data: (.*)$/m.exec(part)[1]);
      if (data.values.length === 0) continue;
      // The oldest of a batch has waited longest.
      const now = Date.now();
      const first = momentOf(Math.round((Date.parse(data.at) - began) / (1000 / rate)));
      if (++seen > 20) ages.push(now - first);
      if (!data.connected) missed++;
    }
  }
}
const cpu = () => readFileSync(`/proc/${server.pid}/stat`, "utf8").split(" ").slice(13, 15).map(Number).reduce((a, b) => a + b, 0) / 100;
const watching = Array.from({ length: devices }, (_, i) => watch(`tilt-${i + 1}`));
await sleep(2000);
const cpuBefore = cpu();
await sleep(20_000);
const cpuShare = (cpu() - cpuBefore) / 20;
rows.push(`| ${devices} instruments at once, each watched: oldest sample of a batch until its watcher has it | ${spread(ages)} |`);

// One of them in the browser beside the other nineteen watchers.
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-gpu"] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.addInitScript(() => localStorage.setItem("palaestra.live", JSON.stringify({ instrument: "tilt-1" })));
await page.goto(address);
await page.request.post(`${address}/api/sign-in`, { data: { email, password } });
await page.goto(address);
await page.getByRole("link", { name: /Maris Telleke/ }).first().click();
await page.getByRole("link", { name: "Screen", exact: true }).click();
await page.getByRole("button", { name: "Begin the screen" }).click();
await page.getByRole("button", { name: "Do Opposite arm and leg now" }).click();
await page.getByRole("button", { name: /^Start/ }).first().click();
await page.getByText("In the band").waitFor();

async function inBrowser(what) {
  await sleep(3000);
  const frames = await page.evaluate(
    () =>
      new Promise((resolve) => {
        let count = 0;
        const from = performance.now();
        requestAnimationFrame(function next() {
          count++;
          if (performance.now() - from < 5000) requestAnimationFrame(next);
          else resolve((1000 * count) / (performance.now() - from));
        });
      }),
  );
  const shown = [];
  const words = [];
  for (let i = 0; i < 25; i++) {
    step = sent + 60 + Math.floor(Math.random() * 10);
    back = step + 150;
    const seen = page.evaluate(async () => {
      const canvas = document.querySelector("main canvas");
      const pen = canvas.getContext("2d");
      const dark = () => {
        // Ink in the upper eighth of the last pixels: the line has gone beyond the band.
        const part = pen.getImageData(canvas.width - 4, 0, 4, Math.floor(canvas.height / 8)).data;
        for (let p = 0; p < part.length; p += 4) if (part[p] < 80 && part[p + 3] > 200) return true;
        return false;
      };
      const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));
      while (!dark()) await frame();
      const line = Date.now();
      while (!document.body.innerText.includes("Control lost")) await frame();
      return { line, word: Date.now() };
    });
    const { line, word } = await seen;
    shown.push(line - momentOf(step));
    words.push(word - momentOf(step));
    await page.getByText("In the band").waitFor();
    await sleep(700 + Math.random() * 200);
  }
  rows.push(`| ${what}: a sample until it is drawn on the screen | ${spread(shown)} |`);
  rows.push(`| ${what}: leaving the band until “Control lost” stands there | ${spread(words)} |`);
  return frames;
}
const framesAll = await inBrowser(`one in the browser beside the ${devices}`);
stop.abort();
await Promise.all(watching);
const framesOne = await inBrowser("one in the browser alone");
await browser.close();
clearInterval(ticking);
server.kill();
await new Promise((resolve) => server.once("exit", resolve));
bridge.close();
for (const socket of lines) socket.destroy();
rmSync(folder, { recursive: true, force: true });
console.log("\n| instruments live, 100 Hz, three channels, sent in batches of 50 ms | median, ms | 95th percentile, ms | slowest, ms | runs |\n|---|---|---|---|---|");
console.log(rows.join("\n"));
console.log(`\nThe server took ${(100 * cpuShare).toFixed(0)} % of one core for ${devices} instruments; ${missed} parts came from a lost connection.`);
console.log(`Pictures a second in the browser: ${framesOne.toFixed(1)} alone, ${framesAll.toFixed(1)} beside the others.`);
