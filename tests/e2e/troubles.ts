import { expect, type Page } from "@playwright/test";
import type { Build } from "./build";
import { type Clinic, pinField, pinOf, type Tablet } from "./tablet";

export interface Account {
  name: string;
  email: string;
  password: string;
}

/** The same numbers for the same seed (mulberry32, public domain). */
export function seeded(from: number) {
  let seed = from;
  return () => {
    seed = (seed + 0x6d2b79f5) | 0;
    let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** What was tapped, in order, and by whom. */
export interface Tapped {
  fault: string;
  by: string;
}

/** Neither costs a rep: a trial goes on for as long as is wanted. */
const faults = { "breath-hold": "holds breath", rush: "rushed" } as const;
type Fault = keyof typeof faults;

/** The browser's store refuses, as a full one does, in every page that comes. */
const refusesWhenFull = () => {
  const put = IDBObjectStore.prototype.put;
  IDBObjectStore.prototype.put = function (...row: Parameters<typeof put>) {
    if (sessionStorage.getItem("full") && this.name === "events") throw new DOMException("full", "QuotaExceededError");
    return put.apply(this, row);
  };
};

/** A tablet in a live trial, to which everything happens that can happen to one. */
export class Troubled {
  readonly tapped: Tapped[] = [];
  private pages: Page[] = [];
  private builds = 0;
  up = true;
  hung = false;
  full = false;
  /** The sign-in is gone, and nobody may have noticed yet. */
  expired = false;

  constructor(
    private readonly clinic: Clinic,
    private readonly client: Build,
    private readonly tablet: Tablet,
    private readonly accounts: readonly Account[],
    private readonly trial: string,
    private here: Account,
  ) {}

  get page() {
    return this.pages.at(-1)!;
  }

  get twoTabs() {
    return this.pages.length > 1;
  }

  async on() {
    await this.tablet.on();
    await this.tablet.browser.addInitScript(refusesWhenFull);
    this.pages = [this.tablet.browser.pages()[0]!];
    await this.page.goto(this.trial);
    await this.ready();
  }

  private chip = (fault: Fault) => this.page.getByRole("button", { name: new RegExp(`^${faults[fault]}`) }).first();

  /** Whatever stands before the trial is answered, by whoever is here. */
  async ready() {
    const { page } = this;
    const covers = [
      page.getByRole("dialog", { name: "Sign in again" }),
      page.getByRole("dialog", { name: "Locked" }),
      page.getByRole("heading", { name: "The server is away" }),
      page.getByRole("heading", { name: "Sign in", exact: true }),
      // A browser that dies young may not have written down which trial was its own.
      page.getByRole("button", { name: "Continue it here" }),
    ];
    for (const end = Date.now() + 60_000; Date.now() < end; ) {
      const shown = await Promise.all(covers.map((cover) => cover.isVisible()));
      const which = shown.indexOf(true);
      try {
        if (which === 4) await covers[which]!.tap({ timeout: 1000 });
        else if (which === 1 || which === 2) await this.openByPin();
        else if (which >= 0) await this.signIn(this.here);
        else if (await this.chip("rush").isVisible()) return;
      } catch {
        // What was there a moment ago has gone by itself.
      }
      await page.waitForTimeout(100);
    }
    throw new Error(`Nothing can be tapped: ${await page.locator("body").innerText()}`);
  }

  private async openByPin() {
    await pinField(this.page).fill(pinOf, { timeout: 1000 });
    await this.page.getByRole("button", { name: "Open", exact: true }).tap({ timeout: 1000 });
    await expect(pinField(this.page)).toHaveCount(0, { timeout: 10_000 });
  }

  private async signIn({ email, password }: Account) {
    await this.page.getByLabel("E-mail").fill(email, { timeout: 1000 });
    await this.page.getByLabel("Password").fill(password, { timeout: 1000 });
    await this.page.getByRole("button", { name: /^(Sign in|Take it over)$/ }).tap({ timeout: 1000 });
    await expect(this.page.getByLabel("Password")).toHaveCount(0, { timeout: 10_000 });
    this.expired = false;
  }

  async tap() {
    const fault = this.tapped.length % 3 === 0 ? "breath-hold" : "rush";
    for (let again = 0; ; again++) {
      await this.ready();
      try {
        await this.chip(fault).tap({ timeout: 3000 });
        break;
      } catch (covered) {
        if (again === 5) throw covered;
      }
    }
    this.tapped.push({ fault, by: this.here.name });
  }

  /** The words of the mark that tells what is stored. */
  async told() {
    return (await this.page.getByRole("status").allInnerTexts()).join(" ");
  }

  /** What was tapped outlives the page: the hand that tapped has come down, and nothing says otherwise. */
  private async atRest() {
    await this.page.waitForTimeout(600);
    await expect.poll(() => this.told()).not.toContain("only on this page");
  }

  async killServer() {
    await this.clinic.server.kill();
    this.up = this.hung = false;
  }

  async startServer() {
    await this.clinic.server.start();
    this.up = true;
  }

  async update() {
    await this.killServer();
    this.client.make(`next${++this.builds}`);
    await this.startServer();
  }

  hang(hangs: boolean) {
    this.clinic.server.hang(hangs);
    this.hung = hangs;
    return Promise.resolve();
  }

  async killTablet() {
    await this.atRest();
    await this.tablet.die();
    await this.on();
  }

  async secondTab() {
    this.pages.push(await this.tablet.browser.newPage());
    await this.page.goto(this.trial);
    await this.ready();
  }

  async otherTab() {
    this.pages.reverse();
    await this.page.bringToFront();
    await this.ready();
  }

  async closeTab() {
    await this.atRest();
    await this.pages.pop()!.close();
    await this.page.bringToFront();
    await this.ready();
  }

  async fill(full: boolean) {
    for (const page of this.pages)
      await page.evaluate((now) => (now ? sessionStorage.setItem("full", "1") : sessionStorage.removeItem("full")), full);
    this.full = full;
    if (!full) await expect.poll(() => this.told()).not.toContain("only on this page");
  }

  /** The sign-in has ended, as one does that nobody used. */
  async expire() {
    await this.tablet.browser.clearCookies();
    this.expired = true;
  }

  /** Left alone, locked, and taken over by somebody else; what runs goes on. */
  async handOver() {
    const next = this.accounts.find((a) => a.name !== this.here.name)!;
    await this.ready();
    await this.page.evaluate(() => localStorage.setItem("palaestra-touched", "1"));
    await this.page.getByRole("dialog", { name: "Locked" }).getByRole("button", { name: "Somebody else" }).tap();
    await this.signIn(next);
    this.here = next;
    await this.ready();
    await expect.poll(() => this.told(), { timeout: 30_000 }).toContain("saved");
  }

  /** All is well again, and all of it is at the server. */
  async mend() {
    if (this.hung) await this.hang(false);
    if (!this.up) await this.startServer();
    if (this.full) await this.fill(false);
    const told = async () => {
      await this.ready();
      return this.told();
    };
    await expect.poll(told, { timeout: 90_000 }).toMatch(/\bsaved\b/);
  }
}

type Step = (t: Troubled) => Promise<unknown>;

/**
 * What can begin or end, and when it can. Where nothing is stored, no page is closed: it says so. Without the server nobody signs in:
 * a tablet that has noticed that the sign-in ended stays closed until then.
 */
const steps: { name: string; can: (t: Troubled) => boolean; do: Step }[] = [
  { name: "server killed", can: (t) => t.up && !t.expired, do: (t) => t.killServer() },
  { name: "server back", can: (t) => !t.up, do: (t) => t.startServer() },
  { name: "update", can: () => true, do: (t) => t.update() },
  { name: "hangs", can: (t) => t.up && !t.hung && !t.expired, do: (t) => t.hang(true) },
  { name: "goes on", can: (t) => t.hung, do: (t) => t.hang(false) },
  { name: "tablet killed", can: (t) => !t.full, do: (t) => t.killTablet() },
  { name: "second tab", can: (t) => !t.twoTabs && !t.full, do: (t) => t.secondTab() },
  { name: "other tab", can: (t) => t.twoTabs, do: (t) => t.otherTab() },
  { name: "tab closed", can: (t) => t.twoTabs && !t.full, do: (t) => t.closeTab() },
  { name: "full", can: (t) => !t.full, do: (t) => t.fill(true) },
  { name: "room again", can: (t) => t.full, do: (t) => t.fill(false) },
  { name: "sign-in ended", can: (t) => t.up && !t.hung && !t.full, do: (t) => t.expire() },
  { name: "handed over", can: (t) => t.up && !t.hung && !t.full && !t.expired, do: (t) => t.handOver() },
];

export const possible = (t: Troubled) => steps.filter((step) => step.can(t));
