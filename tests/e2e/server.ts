import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { cpSync, existsSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";

const root = path.resolve(import.meta.dirname, "../..");
const dll = path.join(root, "artifacts/server/Palaestra.Server.dll");

/** The real server as its own process, which a test may kill and start again. */
export class Server {
  private process: ChildProcess | null = null;
  readonly folder = mkdtempSync(path.join(tmpdir(), "palaestra-e2e-"));
  readonly address: string;

  constructor(
    private readonly mode: "demo" | "serve",
    port: number,
    private readonly instruments?: number,
    private readonly more: Record<string, string> = {},
  ) {
    this.address = `http://127.0.0.1:${port}`;
  }

  async start() {
    this.beginFilled();
    this.process = spawn("dotnet", [dll], {
      cwd: root,
      stdio: "inherit",
      env: {
        ...process.env,
        ASPNETCORE_URLS: this.address,
        PALAESTRA_MODE: this.mode,
        PALAESTRA_DATA: this.folder,
        PALAESTRA_CLIENT: path.join(root, "client/dist"),
        ...(this.instruments ? { PALAESTRA_INSTRUMENTS: `127.0.0.1:${this.instruments}` } : {}),
        ...this.more,
      },
    });
    // A host shared with others may take its time.
    for (let i = 0; i < 900; i++) {
      const ready = await fetch(`${this.address}/health`).then(
        (r) => r.ok,
        () => false,
      );
      if (ready) return;
      if (this.process.exitCode !== null) throw new Error("The server ended before it was ready.");
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    throw new Error("The server did not start.");
  }

  /** With the demo that was filled for all, unless there is one already or other content makes another. */
  private beginFilled() {
    const filled = process.env.PALAESTRA_E2E_FILLED;
    const begun = existsSync(path.join(this.folder, "demo-day.txt"));
    if (this.mode !== "demo" || !filled || begun || "PALAESTRA_OWN_CONTENT" in this.more) return;
    cpSync(filled, this.folder, { recursive: true });
  }

  /** The clinic's own certificate, made by the command, for these names. */
  certify(...names: string[]) {
    execFileSync("dotnet", [dll, "certificate", ...names], {
      cwd: root,
      env: { ...process.env, PALAESTRA_DATA: this.folder },
    });
    return readFileSync(path.join(this.folder, "certificates/server.crt"));
  }

  /** As somebody at the machine reads it; nothing once it was used. */
  firstCode() {
    const file = path.join(this.folder, "first-admin-code");
    return existsSync(file) ? readFileSync(file, "utf8").trim() : "";
  }

  /** As when the plug is pulled. */
  kill() {
    return this.end("SIGKILL");
  }

  /** As when it is told to stop. */
  stop() {
    return this.end("SIGTERM");
  }

  private async end(signal: NodeJS.Signals) {
    const { process } = this;
    this.process = null;
    if (!process || process.exitCode !== null) return;
    const gone = new Promise((resolve) => process.once("exit", resolve));
    process.kill(signal);
    await gone;
  }

  /** As when the machine is too busy to answer: what is asked hangs until it goes on. */
  hang(hangs: boolean) {
    this.process!.kill(hangs ? "SIGSTOP" : "SIGCONT");
  }

  async close() {
    if (this.process) await this.kill();
    for (const folder of [this.folder, `${this.folder}-backups`])
      rmSync(folder, { recursive: true, force: true });
  }
}

/** The simulated instruments as their own process, as the demo starts them. */
export class StandIns {
  private process: ChildProcess | null = null;

  constructor(private readonly port: number) {}

  start() {
    const dll = path.join(root, "artifacts/instruments/Palaestra.Instruments.dll");
    this.process = spawn("dotnet", [dll, String(this.port)], { stdio: "ignore" });
  }

  stop() {
    this.process?.kill("SIGKILL");
    this.process = null;
  }
}
