// A backup of a clinic of 100,000 visits with two million taps, sealed with a passphrase, while the day is looked at; and a look whether it is whole.
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { clinicServer, gone } from "./large.mjs";

const folder = mkdtempSync(path.join(tmpdir(), "palaestra-keeping-"));
const { server, get } = await clinicServer(folder, 5202, ["--taps"]);
const secret = path.join(folder, "..", "palaestra-keeping-secret");
writeFileSync(secret, "salt wind over the lagoon");
const file = `${folder}.tar.gz.pgp`;
const env = { ...process.env, PALAESTRA_DATA: folder, PALAESTRA_MODE: "serve" };

/** Runs a command and looks at the day until it ends. */
async function beside(...words) {
  const began = performance.now();
  const command = spawn("dotnet", ["artifacts/server/Palaestra.Server.dll", ...words, "--passphrase-file", secret], { env, stdio: "inherit" });
  let code = null;
  command.once("exit", (c) => (code = c));
  const day = [];
  while (code === null) {
    const from = performance.now();
    await get("/api/day");
    day.push(performance.now() - from);
    await new Promise((r) => setTimeout(r, 50));
  }
  if (code !== 0) throw new Error(`${words[0]} ended with ${code}`);
  day.sort((a, b) => a - b);
  const at = (share) => day[Math.floor(day.length * share)].toFixed(1);
  return `${((performance.now() - began) / 1000).toFixed(1)} | ${at(0.5)} | ${at(0.95)}`;
}

const size = (name) => `${(statSync(name).size / 1e6).toFixed(0)} MB`;
console.log(`\n| 100,000 visits, 2,000,000 taps (${size(path.join(folder, "palaestra.db"))}) | s | the day meanwhile, median ms | 95th percentile, ms |\n|---|---|---|---|`);
console.log(`| backup | ${await beside("backup", file)} |`);
console.log(`| look whether it (${size(file)}) is whole | ${await beside("backup", "--verify", file)} |`);
await gone(server);
for (const what of [folder, file, secret]) rmSync(what, { recursive: true, force: true });
