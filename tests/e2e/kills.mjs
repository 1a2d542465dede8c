// Kills the browser and the server at random points of a screen, again and again, and looks whether every mark that was
// acknowledged by the server or queued on the tablet is there in the end, none twice. Usage: node kills.mjs [kills] [seed]
import { spawn, spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { chromium } from "@playwright/test";

const kills = Number(process.argv[2] ?? 50);
let seed = Number(process.argv[3] ?? Date.now() % 100_000);
const port = 5197;
const root = path.resolve(import.meta.dirname, "../..");
const address = `http://127.0.0.1:${port}`;
const data = mkdtempSync(path.join(tmpdir(), "palaestra-kills-data-"));
const profile = mkdtempSync(path.join(tmpdir(), "palaestra-kills-tablet-"));
const account = { email: "edda@clinic.example", password: "three quiet words" };
console.log(`${kills} kills, seed ${seed}`);

/** The same numbers for the same seed (mulberry32, public domain). */
function random() {
  seed = (seed + 0x6d2b79f5) | 0;
  let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
  return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
}
const pick = (list) => list[Math.floor(random() * list.length)];
const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

let server = null;
// One that is left behind would answer the next run in its place.
process.on("exit", () => server?.kill("SIGKILL"));
async function startServer() {
  server = spawn("dotnet", [path.join(root, "artifacts/server/Palaestra.Server.dll")], {
    cwd: root,
    stdio: "ignore",
    env: {
      ...process.env,
      ASPNETCORE_URLS: address,
      PALAESTRA_MODE: "serve",
      PALAESTRA_DATA: data,
      PALAESTRA_CLIENT: path.join(root, "client/dist"),
    },
  });
  for (let i = 0; i < 300; i++) {
    if (await fetch(`${address}/health`).then((r) => r.ok, () => false)) return;
    await wait(100);
  }
  throw new Error("The server did not start.");
}
async function killServer() {
  const gone = new Promise((resolve) => server.once("exit", resolve));
  server.kill("SIGKILL");
  await gone;
  server = null;
}

let tablet = null;
let page = null;
let screenUrl = null;
async function startTablet() {
  tablet = await chromium.launchPersistentContext(profile, {
    executablePath: "/usr/bin/chromium",
    args: ["--no-sandbox"],
    viewport: { width: 820, height: 1180 },
  });
  page = tablet.pages()[0] ?? (await tablet.newPage());
  if (!screenUrl) return;
  // A browser that dies young has not written its cookies down: its user signs in again, at the same place.
  await page.request.post(`${address}/api/sign-in`, { data: account });
  await page.goto(screenUrl);
}
/** As when the battery is pulled: no process of this browser gets another instruction. */
async function killTablet() {
  spawnSync("pkill", ["-9", "-f", profile]);
  await wait(300);
  tablet = page = null;
}

/** Ids that are on the tablet for good: committed to its own store. */
const queued = () =>
  page.evaluate(
    () =>
      new Promise((resolve, reject) => {
        const opening = indexedDB.open("palaestra");
        opening.onerror = () => reject(opening.error);
        opening.onsuccess = () => {
          const all = opening.result.transaction("events").objectStore("events").getAllKeys();
          all.onsuccess = () => {
            opening.result.close();
            resolve(all.result);
          };
        };
      }),
  );
const acknowledged = async () => {
  const answer = await page.request.get(`${address}/api/visits/${/visits\/([^/]+)/.exec(screenUrl)[1]}/events`);
  return answer.ok() ? (await answer.json()).events.map((e) => e.id) : [];
};

async function openVisit() {
  const code = readFileSync(path.join(data, "first-admin-code"), "utf8").trim();
  await page.request.post(`${address}/api/first-administrator`, { data: { code, name: "Edda Marl", ...account } });
  const opened = await (
    await page.request.post(`${address}/api/clients`, {
      data: {
        name: "Wenna Sorrel",
        birthDate: "1984-05-17",
        complaint: "Aches after hauling nets.",
        pain: { now: 2, worst: 4, usual: 2 },
        settleHours: 1,
        wakesAtNight: false,
        precautions: [],
        dangerSigns: [],
        minutesPerDay: 20,
        policyId: "mastery-no-rise",
      },
    })
  ).json();
  await page.request.put(`${address}/api/visits/${opened.visitId}/battery`, {
    data: { taskIds: ["rung-B5", "leg-lowering", "bridge"], minutes: 15, missing: [], version: 0 },
  });
  screenUrl = `${address}/episodes/${opened.episodeId}/visits/${opened.visitId}/screen`;
  await page.goto(screenUrl);
}

/** One thing a practitioner does: mostly counting and marking, now and then ending, pausing, going back. */
async function tap() {
  const start = page.getByRole("button", { name: /^Start(, (left|right))?$/ });
  const why = page.getByRole("button", { name: "Control lost" });
  if (await why.isVisible()) return why.click({ timeout: 500 });
  if (await start.isVisible()) return start.click({ timeout: 500 });
  await page.keyboard.press(pick(["Space", "Space", "Space", "a", "w", "Shift+R", "z", "y", "c", "+", "]", "."]));
}

const expected = new Set();
const remember = async (ids) => (await ids.catch(() => [])).forEach((id) => expected.add(id));

await startServer();
await startTablet();
await openVisit();
let browserKills = 0;
let serverKills = 0;
for (let kill = 0; kill < kills; kill++) {
  const victims = pick([["tablet"], ["server"], ["tablet", "server"]]);
  const taps = 3 + Math.floor(random() * 12);
  const serverDies = victims.includes("server") ? Math.floor(random() * taps) : -1;
  for (let i = 0; i < taps; i++) {
    if (i === serverDies) {
      await remember(acknowledged());
      await killServer();
      serverKills++;
    }
    await tap().catch(() => {});
    await remember(queued());
    await wait(random() * 120);
  }
  if (server) await remember(acknowledged());
  if (victims.includes("tablet")) {
    await tap().catch(() => {});
    await killTablet();
    browserKills++;
  }
  if (!server) await startServer();
  if (!page) await startTablet();
  await page.waitForTimeout(300);
}

await page
  .getByText("saved", { exact: true })
  .waitFor({ timeout: 60_000 })
  .catch(async (problem) => {
    console.log(`At the end ${page.url()} says: ${(await page.locator("body").innerText()).slice(0, 600)}`);
    throw problem;
  });
await remember(queued());
const stored = await acknowledged();
const missing = [...expected].filter((id) => !stored.includes(id));
const twice = stored.length - new Set(stored).size;
const refused = await page.getByText(/not accepted/).count();
console.log(
  `${browserKills} kills of the browser, ${serverKills} of the server: ${expected.size} marks were acknowledged or queued, ` +
    `${stored.length} are stored; ${missing.length} missing, ${twice} twice, ${refused ? "some" : "none"} refused.`,
);
await tablet.close();
await killServer();
rmSync(data, { recursive: true, force: true });
rmSync(profile, { recursive: true, force: true });
process.exit(missing.length === 0 && twice === 0 && refused === 0 ? 0 : 1);
