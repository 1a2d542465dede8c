// What a clinic of 100,000 visits bears: 30 tablets, five taps a second each, the day looked at beside. node bench/capacity.mjs [SECONDS]
// Every acknowledged tap is read back from the store afterwards; exits with 1 where one is missing or there twice.
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { clinicServer, gone } from "./large.mjs";
import { together } from "./tablets.mjs";

const seconds = Number(process.argv[2] ?? 600);
const [tablets, perSecond] = [30, 5];
const folder = mkdtempSync(path.join(tmpdir(), "palaestra-capacity-"));
const { server, get, post, day } = await clinicServer(folder, 5205, ["--taps"]);
const visits = day.visits.filter((visit) => !visit.closed).slice(0, tablets).map((visit) => visit.visitId);

const resident = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, "utf8"))[1]) / 1024;
const [took, looked, memory, sent] = [[], [], [], new Map()];
let over = false;

async function beside(every, work) {
  while (!over) {
    await work();
    await new Promise((resolve) => setTimeout(resolve, every));
  }
}

/** Ids of a visit's taps, straight from the file. */
const stored = (visitId) =>
  execFileSync("dotnet", ["bench/Palaestra.Bench/bin/Release/net10.0/Palaestra.Bench.dll", "taps-of", folder, visitId], { encoding: "utf8", maxBuffer: 1e9 })
    .split("\n")
    .filter(Boolean)
    .map((id) => id.toLowerCase());
const before = new Map(visits.map((visitId) => [visitId, stored(visitId).length]));

const looking = beside(500, async () => {
  const from = performance.now();
  await get("/api/day");
  looked.push(performance.now() - from);
});
const weighing = beside(5000, async () => memory.push(resident()));
await together(post, visits, tablets, perSecond, seconds, (visitId, events, ms) => {
  took.push(ms);
  sent.set(visitId, (sent.get(visitId) ?? []).concat(events.map((event) => event.id)));
});
over = true;
await Promise.all([looking, weighing]);
await gone(server);

let [lost, twice, count] = [0, 0, 0];
for (const [visitId, ids] of sent) {
  const all = stored(visitId);
  const held = new Set(all);
  const there = ids.filter((id) => held.has(id)).length;
  count += ids.length;
  lost += ids.length - there;
  // Whatever the file has beyond what was there and what was sent was kept a second time.
  twice += all.length - before.get(visitId) - there;
}

const at = (list, share) => list.toSorted((a, b) => a - b)[Math.floor(list.length * share)];
// The first minute fills what a server keeps; from there it should stay where it is.
const settled = memory.slice(Math.min(12, Math.floor(memory.length / 3)));
const grown = (settled.at(-1) / settled[0] - 1) * 100;
console.log(`\n| ${tablets} tablets, ${perSecond} taps a second each, 100,000 visits | median | 95th percentile | runs |\n|---|---|---|---|`);
console.log(`| a tap, ms | ${at(took, 0.5).toFixed(1)} | ${at(took, 0.95).toFixed(1)} | ${took.length} |`);
console.log(`| the day meanwhile, ms | ${at(looked, 0.5).toFixed(1)} | ${at(looked, 0.95).toFixed(1)} | ${looked.length} |`);
console.log(`| memory, MB | ${at(settled, 0.5).toFixed(0)} | ${at(settled, 0.95).toFixed(0)} | ${settled.length} |`);
console.log(`\n${count} taps acknowledged in ${seconds} s, ${lost} lost, ${twice} twice; memory ${grown >= 0 ? "+" : ""}${grown.toFixed(0)} % from the first minute to the end.`);
rmSync(folder, { recursive: true, force: true });
process.exit(lost + twice > 0 ? 1 : 0);
