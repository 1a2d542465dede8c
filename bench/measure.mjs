// Time from start to ready, and answer times of the computing endpoints over HTTP on the loopback address.
import { spawn } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";

const port = 5193;
const address = `http://127.0.0.1:${port}`;
const folder = mkdtempSync(path.join(tmpdir(), "palaestra-bench-"));
const rows = [];

async function start() {
  const began = performance.now();
  const server = spawn("dotnet", ["artifacts/server/Palaestra.Server.dll"], {
    stdio: ["ignore", "ignore", "inherit"],
    env: { ...process.env, PALAESTRA_MODE: "demo", PALAESTRA_DATA: folder, ASPNETCORE_URLS: address },
  });
  for (let tries = 0; tries < 2000; tries++) {
    if (await fetch(`${address}/health`).then((r) => r.ok, () => false)) return { server, ms: performance.now() - began };
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
  throw new Error("The server did not start.");
}

async function stop(server) {
  const gone = new Promise((resolve) => server.once("exit", resolve));
  server.kill();
  await gone;
}

const spread = (times) => {
  const sorted = [...times].sort((a, b) => a - b);
  return { median: sorted[Math.floor(sorted.length / 2)], p95: sorted[Math.floor(sorted.length * 0.95)] };
};

const note = (what, times, bare) => {
  const { median, p95 } = spread(times);
  rows.push(`| ${what} | ${median.toFixed(1)} | ${p95.toFixed(1)} | ${times.length} | ${bare === undefined ? "" : bare.toFixed(2)} |`);
};

/** Beside an answer: reading and writing its own JSON, the least that any server of it would do. */
function bareJson(answer) {
  const times = Array.from({ length: 30 }, () => {
    const began = performance.now();
    JSON.stringify(JSON.parse(answer));
    return performance.now() - began;
  });
  return spread(times).median;
}

const first = await start();
note("start to ready, filling the demo", [first.ms]);
await stop(first.server);
const starts = [];
for (let i = 0; i < 5; i++) {
  const { server, ms } = await start();
  starts.push(ms);
  await stop(server);
}
note("start to ready, demo already filled", starts);

const scenario = JSON.parse(readFileSync("content/demo/scenario.json", "utf8"));
const { email, password } = scenario.accounts[0];
let cookie;

async function signIn() {
  const answer = await fetch(`${address}/api/sign-in`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ email, password }),
  });
  cookie = answer.headers.getSetCookie().map((c) => c.split(";")[0]).join("; ");
}

async function ask(method, where, body) {
  const answer = await fetch(address + where, {
    method,
    headers: { cookie, "content-type": "application/json" },
    body: body && JSON.stringify(body),
  });
  if (!answer.ok) throw new Error(`${where} answered ${answer.status}: ${await answer.text()}`);
  return answer.headers.get("content-type")?.includes("json") ? answer.json() : answer.arrayBuffer();
}

async function time(what, method, where, body, count = 200) {
  let answer;
  for (let i = 0; i < 20; i++) answer = await ask(method, where, body);
  const times = [];
  for (let i = 0; i < count; i++) {
    const began = performance.now();
    await ask(method, where, body);
    times.push(performance.now() - began);
  }
  note(what, times, answer instanceof ArrayBuffer ? undefined : bareJson(JSON.stringify(answer)));
}

const sheetOf = async () => (await ask("GET", "/api/day")).visits.find((v) => v.name === "Nerys Quill").episodeId;

/** What is asked for the first time after a start: once a start. */
const firsts = { day: [], sheet: [], later: [] };
for (let i = 0; i < 5; i++) {
  const { server } = await start();
  const began = performance.now();
  await signIn();
  await ask("GET", "/api/day");
  firsts.day.push(performance.now() - began);
  const episode = await sheetOf();
  // Every other start it is asked for at once, else when the server has had time to make it ready.
  if (i % 2) await new Promise((resolve) => setTimeout(resolve, 6000));
  const from = performance.now();
  await ask("GET", `/api/episodes/${episode}/sheet.pdf`);
  firsts[i % 2 ? "later" : "sheet"].push(performance.now() - from);
  await stop(server);
}
note("from the sign-in to the day's data, first of a start", firsts.day);
note("first sheet as PDF, at once after a start", firsts.sheet);
note("first sheet as PDF, six seconds after it", firsts.later);

const { server } = await start();
await signIn();
const example = (name) => JSON.parse(readFileSync(`docs/examples/${name}.json`, "utf8"));
const findings = await ask("POST", "/api/compute/findings", example("findings"));
await time("findings of a screen of 8 trials", "POST", "/api/compute/findings", example("findings"));
await time("a plan from them", "POST", "/api/compute/plan", { ...example("plan"), findings });
await time("decisions for one exercise, with counterfactuals", "POST", "/api/compute/decide", example("decide"));
await time("the day, all clients of the demo", "GET", "/api/day");
await time("the load of a rung with a shorter range", "POST", "/api/compute/load", example("load"));
await time("one drawing", "GET", "/api/figures/D4?side=left&frame=end");
const nerys = await sheetOf();
await time("a sheet as PDF", "GET", `/api/episodes/${nerys}/sheet.pdf`);
await time("a calendar feed", "GET", `/api/episodes/${nerys}/calendar.ics`);
await stop(server);
rmSync(folder, { recursive: true, force: true });

console.log("\n| what | median, ms | 95th percentile, ms | runs | its JSON read and written, ms |\n|---|---|---|---|---|");
console.log(rows.join("\n"));
