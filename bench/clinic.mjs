// The day, and finding a client, in a clinic of 5,000 clients and 100,000 visits, over HTTP on the loopback address.
import { execFileSync, spawn } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";

const address = "http://127.0.0.1:5201";
const folder = mkdtempSync(path.join(tmpdir(), "palaestra-clinic-"));

async function start() {
  const server = spawn("dotnet", ["artifacts/server/Palaestra.Server.dll"], {
    stdio: ["ignore", "ignore", "inherit"],
    env: { ...process.env, PALAESTRA_MODE: "demo", PALAESTRA_DATA: folder, ASPNETCORE_URLS: address },
  });
  for (let tries = 0; tries < 4000; tries++) {
    if (await fetch(`${address}/health`).then((r) => r.ok, () => false)) return server;
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
  throw new Error("The server did not start.");
}

const gone = (server) => new Promise((resolve) => { server.once("exit", resolve); server.kill(); });

await gone(await start());
execFileSync("dotnet", ["bench/Palaestra.Bench/bin/Release/net10.0/Palaestra.Bench.dll", "fill", folder], { stdio: "inherit" });
const server = await start();
const { email, password } = JSON.parse(readFileSync("content/demo/scenario.json", "utf8")).accounts[0];
const signIn = await fetch(`${address}/api/sign-in`, {
  method: "POST",
  headers: { "content-type": "application/json" },
  body: JSON.stringify({ email, password }),
});
const cookie = signIn.headers.getSetCookie().map((c) => c.split(";")[0]).join("; ");
const get = async (what) => (await fetch(address + what, { headers: { cookie } })).json();

// After so many records changed at once, each look at the day goes through some of them.
const began = performance.now();
let day = await get("/api/day");
while (day.behind > 0) day = await get("/api/day");
const looked = (performance.now() - began) / 1000;

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
