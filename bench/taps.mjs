// Taps of many tablets in a clinic of 100,000 visits and 2,000,000 taps, and in one long record; over HTTP on the loopback address.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { clinicServer, gone } from "./large.mjs";
import { begin, rep, send as sendTo, together } from "./tablets.mjs";

const [tablets, perSecond, seconds, long] = [30, 5, 60, 10_000];
const folder = mkdtempSync(path.join(tmpdir(), "palaestra-taps-"));
const { server, post, listen, day } = await clinicServer(folder, 5203, ["--taps"]);

const send = (visitId, events) => sendTo(post, visitId, events);
const at = (sorted, share) => sorted[Math.floor(sorted.length * share)].toFixed(1);
const row = (name, all) => {
  const sorted = all.toSorted((a, b) => a - b);
  console.log(`| ${name} | ${at(sorted, 0.5)} | ${at(sorted, 0.95)} | ${all.length} |`);
};

console.log("\n| a tap | median, ms | 95th percentile, ms | runs |\n|---|---|---|---|");
const visits = day.visits.filter((visit) => !visit.closed).slice(0, tablets).map((visit) => visit.visitId);

// What another tablet hears, from the tap to the news.
const heardAt = new Map();
const stop = await listen((visitId) => heardAt.get(visitId)?.(performance.now()));

const all = [];
await together(post, visits, tablets, perSecond, seconds, (visitId, events, ms, opens) => opens || all.push(ms));
row(`${tablets} tablets, ${perSecond} a second each, ${seconds} s`, all);

const heard = [];
for (let n = 0; n < 100; n++) {
  const visitId = visits[n % visits.length];
  const trial = begin(visitId);
  const news = new Promise((resolve) => heardAt.set(visitId, resolve));
  const from = performance.now();
  await send(visitId, trial.events);
  heard.push((await news) - from);
  heardAt.delete(visitId);
}
row("from the tap to another tablet", heard);
stop();

const visitId = visits[0];
for (const length of [100, long]) {
  for (let n = 0; n * 400 < length; n++) {
    const trial = begin(visitId);
    await send(visitId, [...trial.events, ...Array.from({ length: Math.min(399, length - n * 400) }, () => rep(trial.trialId))]);
  }
  const trial = begin(visitId);
  await send(visitId, trial.events);
  const taps = [];
  for (let n = 0; n < 300; n++) taps.push(await send(visitId, [rep(trial.trialId)]));
  row(`one after the other, after ${length} events of the episode`, taps);
}
await gone(server);
rmSync(folder, { recursive: true, force: true });
