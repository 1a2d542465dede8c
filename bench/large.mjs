// A server on a clinic of 5,000 clients and 100,000 visits, looked through once.
import { execFileSync, spawn } from "node:child_process";
import { readFileSync } from "node:fs";

export const gone = (server) => new Promise((resolve) => { server.once("exit", resolve); server.kill(); });

async function start(folder, address) {
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

/** @param words more for the filling: "--taps" */
export async function clinicServer(folder, port, words = []) {
  const address = `http://127.0.0.1:${port}`;
  await gone(await start(folder, address));
  execFileSync("dotnet", ["bench/Palaestra.Bench/bin/Release/net10.0/Palaestra.Bench.dll", "fill", folder, ...words], { stdio: "inherit" });
  const server = await start(folder, address);
  const { email, password } = JSON.parse(readFileSync("content/demo/scenario.json", "utf8")).accounts[0];
  const signIn = await fetch(`${address}/api/sign-in`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ email, password }),
  });
  const cookie = signIn.headers.getSetCookie().map((c) => c.split(";")[0]).join("; ");
  const post = (what, body) =>
    fetch(address + what, {
      method: "POST",
      headers: { cookie, "content-type": "application/json" },
      body: JSON.stringify(body),
    });
  /** Tells of each visit with news until it is stopped. */
  const listen = async (tell) => {
    const stop = new AbortController();
    const { body } = await fetch(`${address}/api/live`, { headers: { cookie }, signal: stop.signal });
    void (async () => {
      for await (const chunk of body.pipeThrough(new TextDecoderStream()))
        for (const [, visitId] of chunk.matchAll(/"visitId":"([^"]+)"/g)) tell(visitId);
    })().catch(() => {});
    return () => stop.abort();
  };
  const get = async (what) => (await fetch(address + what, { headers: { cookie } })).json();
  // After so many records changed at once, each look at the day goes through some of them.
  const began = performance.now();
  let day = await get("/api/day");
  while (day.behind > 0) day = await get("/api/day");
  return { server, get, post, listen, day, looked: (performance.now() - began) / 1000 };
}
