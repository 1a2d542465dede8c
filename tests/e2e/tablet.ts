import { type BrowserContext, chromium, expect, type Page } from "@playwright/test";
import { spawnSync } from "node:child_process";
import { createHash, X509Certificate } from "node:crypto";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { Server } from "./server";

export const pinOf = "482917";

/** A tablet that reaches the server by https under the clinic's name, with a profile that outlives its browser. */
export class Tablet {
  readonly profile = mkdtempSync(path.join(tmpdir(), "palaestra-tablet-"));
  private context: BrowserContext | null = null;

  constructor(
    readonly origin: string,
    private readonly trusted: string,
  ) {}

  /** Switches it on. */
  async on(size = { width: 1280, height: 800 }): Promise<Page> {
    this.context = await chromium.launchPersistentContext(this.profile, {
      executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
      viewport: size,
      hasTouch: true,
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--host-resolver-rules=MAP * 127.0.0.1",
        `--ignore-certificate-errors-spki-list=${this.trusted}`,
      ],
    });
    const page = this.context.pages()[0] ?? (await this.context.newPage());
    page.setDefaultTimeout(15_000);
    return page;
  }

  get browser() {
    return this.context!;
  }

  async off() {
    await this.context?.close();
    this.context = null;
  }

  /** As when the battery is pulled: no process of this browser gets another instruction. */
  async die() {
    spawnSync("pkill", ["-9", "-f", this.profile]);
    await new Promise((resolve) => setTimeout(resolve, 300));
    this.context = null;
  }

  async close() {
    await this.off();
    rmSync(this.profile, { recursive: true, force: true });
  }
}

/** A clinic by https, and as many tablets as are wanted. */
export class Clinic {
  readonly server: Server;
  readonly origin: string;
  private trusted = "";
  private readonly tablets: Tablet[] = [];

  constructor(port: number, more: Record<string, string> = {}, name = "clinic.example") {
    this.origin = `https://${name}:${port + 1}`;
    this.server = new Server("demo", port, undefined, { PALAESTRA_HTTPS_PORT: String(port + 1), ...more });
  }

  async open() {
    const certificate = new X509Certificate(this.server.certify(new URL(this.origin).hostname));
    const key = certificate.publicKey.export({ type: "spki", format: "der" });
    this.trusted = createHash("sha256").update(key).digest("base64");
    await this.server.start();
  }

  tablet() {
    const tablet = new Tablet(this.origin, this.trusted);
    this.tablets.push(tablet);
    return tablet;
  }

  async close() {
    for (const tablet of this.tablets) await tablet.close();
    await this.server.close();
  }

  /** What the server answers to somebody of the clinic, whatever the tablet knows. */
  async ask<T>(what: string, body?: unknown): Promise<T> {
    const { address } = this.server;
    const json = { "content-type": "application/json" };
    const signedIn = await fetch(`${address}/api/sign-in`, {
      method: "POST",
      headers: json,
      body: JSON.stringify({ email: "ines@saltmere.example", password: "lantern-quay-7" }),
    });
    const cookie = signedIn.headers.getSetCookie().map((c) => c.split(";")[0]).join("; ");
    const answer = await fetch(`${address}${what}`, {
      headers: { ...json, cookie },
      ...(body === undefined ? {} : { method: "POST", body: JSON.stringify(body) }),
    });
    expect(answer.ok).toBe(true);
    return (await answer.json()) as T;
  }
}

export const dayShown = (page: Page) => expect(page.getByRole("link", { name: "Library" })).toBeVisible();

/** Signs in, and gives the tablet a PIN. */
export async function begin(page: Page, origin: string, email = "ines@saltmere.example", password = "lantern-quay-7", pin = pinOf) {
  await page.goto(origin);
  await page.getByLabel("E-mail").fill(email);
  await page.getByLabel("Password").fill(password);
  await page.getByRole("button", { name: "Sign in", exact: true }).tap();
  await dayShown(page);
  await setPin(page, pin);
  await takenAlong(page);
}

/** From the day and back to it. */
export async function setPin(page: Page, pin: string) {
  await page.goto(new URL("/account", page.url()).href);
  const section = page.getByRole("region", { name: "PIN of a locked tablet" });
  await section.getByLabel("New PIN").fill(pin);
  await page.keyboard.press("Enter");
  // Kept here too, once the field is empty again.
  await expect(section.getByLabel("New PIN")).toHaveValue("");
  await expect(section.getByText(/opens with your PIN/)).toBeVisible();
  await page.goto(new URL("/", page.url()).href);
  await dayShown(page);
}

/** What came along is in the browser: page, library, drawings of both sides, today's visits. */
export const takenAlong = (page: Page) =>
  expect
    .poll(
      () =>
        page.evaluate(async () => {
          const kept = await navigator.serviceWorker.getRegistration();
          const content = await (await caches.open("content")).keys();
          const drawings = content.filter((r) => new URL(r.url).pathname === "/api/figures").length;
          const day = await new Promise<number>((resolve) => {
            const opening = indexedDB.open("palaestra-day");
            opening.onsuccess = () => {
              const rows = opening.result.transaction("day").objectStore("day").count();
              rows.onsuccess = () => resolve(rows.result);
            };
          });
          return `${kept?.active?.state} ${drawings} ${day}`;
        }),
      { timeout: 60_000 },
    )
    .toBe("activated 2 1");

export const pinField = (page: Page) => page.getByLabel("PIN", { exact: true });

/** Opens it without the server. */
export async function openAlone(page: Page, origin: string, pin = pinOf) {
  await page.goto(origin);
  await pinField(page).fill(pin);
  await page.getByRole("button", { name: "Open", exact: true }).tap();
}
