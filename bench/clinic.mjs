// The day, and finding a client, in a clinic of 5,000 clients and 100,000 visits, over HTTP on the loopback address.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { clinicServer, gone } from "./large.mjs";

const folder = mkdtempSync(path.join(tmpdir(), "palaestra-clinic-"));
const { server, get, day, looked } = await clinicServer(folder, 5201);

async function times(what, runs = 200) {
  const all = [];
  for (let i = 0; i < runs; i++) {
    const from = performance.now();
    await get(what);
    all.push(performance.now() - from);
  }
  all.sort((a, b) => a - b);
  return `${all[Math.floor(runs / 2)].toFixed(1)} | ${all[Math.floor(runs * 0.95)].toFixed(1)} | ${runs}`;
}

console.log(`\n${day.visits.length} visits today, ${day.pileCount} on the pile; looking through all records once took ${looked.toFixed(0)} s`);
console.log("| 5,000 clients, 100,000 visits | median, ms | 95th percentile, ms | runs |\n|---|---|---|---|");
console.log(`| the day | ${await times("/api/day")} |`);
console.log(`| clients found by name | ${await times("/api/clients?words=4711")} |`);
await gone(server);
rmSync(folder, { recursive: true, force: true });
