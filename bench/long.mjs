// A server on a clinic with one long record: three years, a visit a week, taps of every set. Lived through the demo's own rules.
import { spawn } from "node:child_process";
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";

const visits = 150;

/** The demo's scenario with one client alone, who came every week and was screened anew every twelfth. */
function longScenario() {
  const scenario = JSON.parse(readFileSync("content/demo/scenario.json", "utf8"));
  const like = scenario.clients.find((client) => client.visits.some((visit) => visit.session));
  const screen = like.visits.find((visit) => visit.screen).screen;
  const week = (n) => {
    const told = { now: 3 + (n % 2), usual: 3 + (n % 3 === 0 ? 1 : 0), nextDay: 4, settled: 6 + (n % 4) };
    const visit = { daysAgo: 7 * (visits - 1 - n), time: "14:00" };
    if (n === 0) return { ...visit, screen };
    if (n === visits - 1) return { ...visit, checkIn: told };
    // A weak side every other week keeps the plan where it has sets to do.
    const session = { share: n % 2 ? 1 : 0.6, effort: 7 };
    return { ...visit, checkIn: told, session, ...(n % 12 === 0 ? { screen } : {}) };
  };
  return { ...scenario, clients: [{ ...like, name: "Long Record", minutesPerDay: 45, visits: Array.from({ length: visits }, (_, n) => week(n)) }] };
}

export async function longServer(port, client) {
  const address = `http://127.0.0.1:${port}`;
  const folder = mkdtempSync(path.join(tmpdir(), "palaestra-long-"));
  const content = path.join(folder, "shipped");
  cpSync("content", content, { recursive: true });
  writeFileSync(path.join(content, "demo", "scenario.json"), JSON.stringify(longScenario()));
  const server = spawn("dotnet", ["artifacts/server/Palaestra.Server.dll"], {
    stdio: ["ignore", "ignore", "inherit"],
    env: {
      ...process.env,
      PALAESTRA_MODE: "demo", PALAESTRA_DATA: path.join(folder, "data"), PALAESTRA_CONTENT: content, PALAESTRA_CLIENT: client, ASPNETCORE_URLS: address,
    },
  });
  while (server.exitCode === null && !(await fetch(`${address}/health`).then((r) => r.ok, () => false))) await new Promise((r) => setTimeout(r, 100));
  if (server.exitCode !== null) throw new Error("The server did not start.");
  const stop = async () => {
    const gone = new Promise((resolve) => server.once("exit", resolve));
    server.kill();
    await gone;
    rmSync(folder, { recursive: true, force: true });
  };
  return { address, data: path.join(folder, "data"), stop };
}
