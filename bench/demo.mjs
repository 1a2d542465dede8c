// A demo of its own for a measurement, in a folder that is thrown away; one that runs already where its address is given.
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";

/** @param {number} port @returns {Promise<{address: string, close: () => Promise<void>}>} */
export async function demo(port, given = process.argv[2]) {
  if (given) return { address: given, close: async () => {} };
  const address = `http://127.0.0.1:${port}`;
  const folder = mkdtempSync(path.join(tmpdir(), "palaestra-bench-"));
  const server = spawn("dotnet", ["artifacts/server/Palaestra.Server.dll"], {
    stdio: ["ignore", "ignore", "inherit"],
    env: { ...process.env, PALAESTRA_MODE: "demo", PALAESTRA_DATA: folder, PALAESTRA_CLIENT: path.resolve("client/dist"), ASPNETCORE_URLS: address },
  });
  while (!(await fetch(`${address}/health`).then((r) => r.ok, () => false))) await new Promise((r) => setTimeout(r, 50));
  const close = async () => {
    const gone = new Promise((resolve) => server.once("exit", resolve));
    server.kill();
    await gone;
    rmSync(folder, { recursive: true, force: true });
  };
  return { address, close };
}
