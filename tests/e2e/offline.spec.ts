import { expect, type Page, test } from "@playwright/test";
import { readdirSync, readFileSync, statSync } from "node:fs";
import path from "node:path";
import { expectAccessible, station } from "./hands";
import { doTrial, sayWhy, startButton } from "./screening";
import { checkIn, wholeSession } from "./sessionHands";
import { begin, Clinic, dayShown, openAlone, pinField, pinOf, setPin, type Tablet, takenAlong } from "./tablet";

const clinic = new Clinic(5268);

test.beforeAll(() => clinic.open());
test.afterAll(() => clinic.close());
test.beforeEach(async () => {
  await clinic.server.kill();
  await clinic.server.start();
});

interface Visit {
  visitId: string;
  episodeId: string;
  name: string;
}

const visitOf = async (name: string) =>
  (await clinic.ask<{ visits: Visit[] }>("/api/day")).visits.find((visit) => visit.name === name)!;

interface Event {
  id: string;
  kind: string;
  by: string;
  trialId: string;
}

const eventsOf = async (visit: Visit) =>
  (await clinic.ask<{ events: Event[] }>(`/api/visits/${visit.visitId}/events`)).events;

const openClient = (page: Page, name: RegExp) => page.getByRole("link", { name }).first().tap();
const kept = (page: Page, words: RegExp | string) => expect(page.getByRole("status").filter({ hasText: words })).toBeVisible();
const stored = (page: Page) =>
  expect(page.getByRole("status").filter({ hasText: /^saved$/ })).toBeVisible({ timeout: 60_000 });

test("from a cold start without the server a practitioner screens and runs a session, and everything is there afterwards", async () => {
  const [maris, asa] = [await visitOf("Maris Telleke"), await visitOf("Asa Lindqvarn")];
  test.setTimeout(900_000);
  const tablet = clinic.tablet();
  await begin(await tablet.on(), clinic.origin);
  await tablet.off();
  await clinic.server.kill();

  const page = await tablet.on();
  await page.goto(clinic.origin);
  await expect(page.getByRole("heading", { name: "The server is away" })).toBeVisible();
  await expectAccessible(page, "a tablet that opens by its PIN");
  await pinField(page).fill(pinOf);
  await page.getByRole("button", { name: "Open", exact: true }).tap();
  await kept(page, "server away");

  // A whole screen, by touch: every task once, on both sides.
  await openClient(page, /Maris Telleke/);
  await station(page, "Screen");
  await page.getByRole("button", { name: "Begin the screen" }).tap();
  const tried = page.getByRole("heading", { name: "Every task tried once" });
  let trials = 0;
  for (; trials < 30; trials++) {
    await expect(startButton(page).or(tried)).toBeVisible();
    if (await tried.isVisible()) break;
    await startButton(page).tap();
    await expect(page.getByRole("group", { name: "Faults, by where they show" })).toBeVisible();
    await doTrial(page, "touch", trials % 4 > 0);
    await sayWhy(page);
  }
  expect(trials).toBeGreaterThan(10);
  for (const name of ["Findings", "Plan", "Decide"]) {
    await station(page, name);
    await expect(page.getByRole("heading", { name: `${name}: waits for the server` })).toBeVisible();
  }
  await expectAccessible(page, "a view that waits for the server");

  // A later visit: asked, and every set done. More pain than usual: half the session, until somebody weighs it.
  await page.getByRole("link", { name: "The day" }).first().tap();
  await openClient(page, /Asa Lindqvarn/);
  await station(page, "Session");
  await checkIn(page, "6", "3", "the same day");
  await page.getByRole("button", { name: "Start the session" }).tap();
  const advice = page.getByRole("region", { name: "Before the first set" });
  await expect(advice).toContainText("nobody has weighed these answers yet");
  await expect(advice.getByRole("checkbox", { name: /^Half the session/ })).toBeChecked();
  await expectAccessible(page, "a session without the server");
  const sets = await wholeSession(page);
  expect(sets).toBeGreaterThan(5);
  const [, waiting] = /(\d+) kept; server away/.exec(await page.getByRole("status").filter({ hasText: "kept" }).innerText())!;

  // Once more from cold: all of it is still there.
  await tablet.off();
  const again = await tablet.on();
  await openAlone(again, clinic.origin);
  await kept(again, `${waiting} kept; server away`);
  await openClient(again, /Asa Lindqvarn/);
  await expect(again.getByRole("heading", { name: "Since last time" })).toHaveCount(0);

  // Back in the network.
  await clinic.server.start();
  await stored(again);
  const screened = (await eventsOf(maris)).filter((e) => e.kind === "trial-started");
  expect(screened.length).toBe(trials);
  const done = await eventsOf(asa);
  for (const kind of ["trial-started", "trial-ended"])
    expect(done.filter((e) => e.kind === kind).length, kind).toBe(sets);
  for (const events of [await eventsOf(maris), done]) {
    expect(new Set(events.map((e) => e.id)).size).toBe(events.length);
    expect(new Set(events.map((e) => e.by))).toEqual(new Set(["Ines Tarrow"]));
  }
  const session = await clinic.ask<{ painNow: number; advice: { lines: { ruleId: string }[] } }>(
    `/api/visits/${asa.visitId}/session`,
  );
  expect(session.painNow).toBe(6);
  // Weighed now, by the server.
  await expect(again.getByText("nobody has weighed these answers yet")).toHaveCount(0);
  await station(again, "Decide");
  await expect(again.getByRole("heading", { name: /waits for the server/ })).toHaveCount(0);
});

test("a red flag told without the server closes what comes after it at once, and reaches the server first", async () => {
  const visit = await visitOf("Fenwick Oduya");
  const tablet = clinic.tablet();
  const page = await tablet.on();
  await begin(page, clinic.origin);
  await clinic.server.kill();
  await openClient(page, /Fenwick Oduya/);
  await station(page, "Session");
  await page.getByText("Fever, or feeling ill, together with the back pain").tap();
  await page.getByRole("button", { name: "Record the red flag" }).tap();
  await expect(page.getByRole("heading", { name: /red flag/i })).toBeVisible();
  await station(page, "Screen");
  await expect(page.getByRole("button", { name: /^(Begin the screen|Start)/ })).toHaveCount(0);
  await kept(page, "1 kept; server away");
  await tablet.off();

  const again = await tablet.on();
  await openAlone(again, clinic.origin);
  await openClient(again, /Fenwick Oduya/);
  await station(again, "Session");
  await expect(again.getByRole("button", { name: "Start", exact: true })).toHaveCount(0);
  await clinic.server.start();
  await stored(again);
  const episode = await clinic.ask<{ closed: boolean; dangerReports: { notedBy: string }[] }>(
    `/api/episodes/${visit.episodeId}`,
  );
  expect(episode.closed).toBe(true);
  expect(episode.dangerReports.map((r) => r.notedBy)).toEqual(["Ines Tarrow"]);
});

test("what is asked without the server is kept; another precaution holds the screen until the server has weighed it", async () => {
  const visit = await visitOf("Maris Telleke");
  const tablet = clinic.tablet();
  const page = await tablet.on();
  await begin(page, clinic.origin);
  await clinic.server.kill();

  // The same precautions: the screen goes on.
  await openClient(page, /Maris Telleke/);
  await ask(page, "Stiff after long rows.");
  await page.getByRole("button", { name: "Save and continue" }).tap();
  await kept(page, "1 kept; server away");
  await expect(startButton(page).or(page.getByRole("button", { name: "Begin the screen" }))).toBeVisible();
  await tablet.off();

  // From cold it stands there; what is told now bars something, and only the server knows what.
  const again = await tablet.on();
  await openAlone(again, clinic.origin);
  await openClient(again, /Maris Telleke/);
  await ask(again, "Stiff after long rows, and sore.", "Stiff after long rows.");
  await again.getByText("Sore wrist").tap();
  await again.getByRole("button", { name: "Save and continue" }).tap();
  await kept(again, "1 kept; server away");
  await station(again, "Screen");
  await expect(again.getByText("Nothing is screened or done before the server has weighed it")).toBeVisible();
  await expectAccessible(again, "a screen that is held");

  await clinic.server.start();
  await stored(again);
  const { intake } = await clinic.ask<{ intake: { complaint: string; precautions: { id: string }[] } }>(
    `/api/episodes/${visit.episodeId}`,
  );
  expect(intake.complaint).toBe("Stiff after long rows, and sore.");
  expect(intake.precautions.length).toBeGreaterThan(1);
  await expect(again.getByText("Nothing is screened or done before the server has weighed it")).toHaveCount(0);
});

async function ask(page: Page, complaint: string, stands?: string) {
  await station(page, "Ask");
  const none = page.getByLabel("Asked: none of these");
  if (!(await none.isChecked())) await page.getByText("Asked: none of these").tap();
  await page.getByRole("tab", { name: /What hurts/ }).tap();
  const field = page.getByLabel("Main complaint");
  if (stands) await expect(field).toHaveValue(stands);
  await field.fill(complaint);
}

test("five wrong PINs close the tablet until somebody signs in, and lose no tap", async () => {
  const visit = await visitOf("Nerys Quill");
  const before = (await eventsOf(visit)).length;
  const tablet = clinic.tablet();
  const page = await tablet.on();
  await begin(page, clinic.origin);
  await clinic.server.kill();
  await openClient(page, /Nerys Quill/);
  await station(page, "Session");
  await page.getByRole("button", { name: "Start", exact: true }).tap();
  await kept(page, "1 kept; server away");
  await tablet.off();

  const again = await tablet.on();
  await again.goto(clinic.origin);
  for (const wrong of ["111112", "111113", "111114", "111115"]) {
    await pinField(again).fill(wrong);
    await again.getByRole("button", { name: "Open", exact: true }).tap();
    await expect(again.getByText("Not the right PIN.")).toBeVisible();
    await expect(pinField(again)).toHaveValue("");
  }
  await pinField(again).fill("111116");
  await again.getByRole("button", { name: "Open", exact: true }).tap();
  await expect(again.getByText(/Only a PIN that was used on this tablet before/)).toBeVisible();
  await again.reload();
  await expect(pinField(again)).toHaveCount(0);
  await expect(again.getByText(/Only a PIN that was used on this tablet before/)).toBeVisible();

  // The sign-in still goes on: the server opens it, and the tap is sent.
  await clinic.server.start();
  await dayShown(again);
  await expect.poll(async () => (await eventsOf(visit)).length).toBe(before + 1);
});

test("a forgotten PIN is set anew where the sign-in goes on, and one that was set on another tablet ends the one kept here", async () => {
  const [mine, other] = [clinic.tablet(), clinic.tablet()];
  let page = await mine.on();
  await page.goto(clinic.origin);
  await page.getByLabel("E-mail").fill("ines@saltmere.example");
  await page.getByLabel("Password").fill("lantern-quay-7");
  await page.getByRole("button", { name: "Sign in", exact: true }).tap();
  await dayShown(page);
  // Somebody with no PIN here is told what that means.
  const none = () => page.getByRole("link", { name: "Give it a PIN" });
  await expect(none()).toBeVisible();
  await setPin(page, pinOf);
  await takenAlong(page);
  await expect(none()).toHaveCount(0);
  await mine.off();

  // Forgotten: the sign-in opens the day, and sets another.
  page = await mine.on();
  await page.goto(clinic.origin);
  await dayShown(page);
  await setPin(page, "731946");
  await takenAlong(page);
  await mine.off();
  await clinic.server.kill();
  page = await mine.on();
  await openAlone(page, clinic.origin);
  await expect(page.getByText("Not the right PIN.")).toBeVisible();
  await openAlone(page, clinic.origin, "731946");
  await dayShown(page);

  // On another tablet: known here as soon as the server is heard.
  await clinic.server.start();
  const elsewhere = await other.on();
  await begin(elsewhere, clinic.origin, "ines@saltmere.example", "lantern-quay-7", "608215");
  await other.off();
  await page.goto(clinic.origin);
  await expect(none()).toBeVisible();
  await mine.off();
  await clinic.server.kill();
  page = await mine.on();
  await page.goto(clinic.origin);
  await expect(page.getByText(/Only a PIN that was used on this tablet before/)).toBeVisible();
  await expect(pinField(page)).toHaveCount(0);
});

/** Where any of these words lies readable in a folder, in either way a browser writes text. */
function readable(folder: string, words: string[]): string[] {
  const found: string[] = [];
  for (const name of readdirSync(folder, { recursive: true }) as string[]) {
    const file = path.join(folder, name);
    if (!statSync(file, { throwIfNoEntry: false })?.isFile()) continue;
    const bytes = readFileSync(file);
    for (const word of words)
      for (const encoding of ["utf8", "utf16le"] as const)
        if (bytes.includes(Buffer.from(word, encoding))) found.push(`${word} (${encoding}) in ${name}`);
  }
  return found;
}

test("after the sign-out nothing of a client is readable on the tablet, and what was not sent, a red flag too, reaches the server under who it is of", async () => {
  const visit = await visitOf("Ottoline Brask");
  const ill = (await clinic.ask<{ episodeId: string }[]>("/api/clients?words=Sandringham"))[0]!;
  const plannedAt = `${(await clinic.ask<{ date: string }>("/api/day")).date}T12:00:00Z`;
  await clinic.ask(`/api/episodes/${ill.episodeId}/visits`, { plannedAt, minutes: 10, anyway: true });
  const before = await eventsOf(visit);
  const tablet: Tablet = clinic.tablet();
  const page = await tablet.on();
  await begin(page, clinic.origin);
  const names = (await clinic.ask<{ visits: Visit[] }>("/api/day")).visits.map((v) => v.name);
  // Half a client, typed and left.
  await page.getByRole("button", { name: "New client" }).tap();
  await page.getByLabel("Name", { exact: true }).fill("Hesper Quoyle");
  await page.waitForTimeout(1000);
  await page.goBack();
  await openClient(page, /Ottoline Brask/);
  await station(page, "Ask");
  await station(page, "Session");
  await clinic.server.kill();
  await checkIn(page, "4", "3", "the same day");
  await page.getByRole("button", { name: "Start the session" }).tap();
  await page.getByRole("button", { name: "Start", exact: true }).tap();
  await page.getByRole("button", { name: "More pain" }).tap();
  await page.getByRole("button", { name: "Leave", exact: true }).tap();
  await page.getByRole("menuitem", { name: "Session", exact: true }).tap();
  await openAlone(page, clinic.origin);
  await openClient(page, /Ivo Sandringham/);
  await station(page, "Session");
  await page.getByText("Fever, or feeling ill, together with the back pain").tap();
  await page.getByRole("button", { name: "Record the red flag" }).tap();
  await kept(page, "4 kept; server away");
  await openAlone(page, clinic.origin);
  await page.getByRole("button", { name: "Sign out" }).tap();
  await expect(page.getByLabel("Password")).toBeVisible();
  // The browser writes down what it has a moment later.
  await page.waitForTimeout(3000);
  await tablet.off();
  const told = ["Hesper Quoyle", '"painNow":', '"kind":"pain-marked"', `check-in ${visit.visitId}`, '"dangerSigns":["'];
  expect(readable(tablet.profile, [...names, ...told])).toEqual([]);

  // Somebody else is next: what Ines tapped is hers.
  await clinic.server.start();
  const next = await tablet.on();
  await next.goto(clinic.origin);
  await next.getByLabel("E-mail").fill("bram@saltmere.example");
  await next.getByLabel("Password").fill("tide-table-4");
  await next.getByRole("button", { name: "Sign in", exact: true }).tap();
  await dayShown(next);
  await kept(next, "1 of another sign-in kept");
  const fresh = (await eventsOf(visit)).filter((e) => before.every((b) => b.id !== e.id));
  expect(fresh.map((e) => e.kind)).toContain("trial-started");
  expect(new Set(fresh.map((e) => e.by))).toEqual(new Set(["Ines Tarrow"]));

  // A red flag of hers does not wait for her either.
  const flagged = () => clinic.ask<{ dangerReports: { signId: string; notedBy: string }[] }>(`/api/episodes/${ill.episodeId}`);
  expect((await flagged()).dangerReports.find((r) => r.signId === "fever-ill")?.notedBy).toBe("Ines Tarrow");

  // What she answered waits for herself.
  await next.getByRole("button", { name: "Sign out" }).tap();
  await next.getByLabel("E-mail").fill("ines@saltmere.example");
  await next.getByLabel("Password").fill("lantern-quay-7");
  await next.getByRole("button", { name: "Sign in", exact: true }).tap();
  const answered = () => clinic.ask<{ painNow: number | null }>(`/api/visits/${visit.visitId}/session`);
  await expect.poll(async () => (await answered()).painNow).toBe(4);
  await stored(next);
});

// Last: what it books comes before what the other tests look for.
test("a day of sixty visits comes along, and any of them opens without the server", async () => {
  const { date, visits } = await clinic.ask<{ date: string; visits: Visit[] }>("/api/day");
  // Every quarter of an hour of a long day, for those who come today anyway.
  for (let i = 0; visits.length + i < 60; i++) {
    const hour = String(6 + Math.floor(i / 4)).padStart(2, "0");
    const plannedAt = `${date}T${hour}:${String((i % 4) * 15 + 2).padStart(2, "0")}:00Z`;
    const { episodeId } = visits[i % visits.length]!;
    await clinic.ask(`/api/episodes/${episodeId}/visits`, { plannedAt, minutes: 10, anyway: true });
  }
  const tablet = clinic.tablet();
  const page = await tablet.on();
  const loads: number[] = [];
  page.on("response", async (answer) => {
    if (answer.url().endsWith("/api/day/tablet")) loads.push((await answer.request().sizes()).responseBodySize);
  });
  await begin(page, clinic.origin);
  await tablet.off();
  await clinic.server.kill();
  const again = await tablet.on();
  const asked = Date.now();
  await again.goto(clinic.origin);
  await expect(pinField(again)).toBeVisible();
  const typed = Date.now();
  await pinField(again).fill(pinOf);
  await pinField(again).press("Enter");
  await dayShown(again);
  console.log(
    `sixty visits: ${Math.max(...loads) / 1000} kB over the wire; PIN asked for after ${typed - asked} ms, open after ${Date.now() - typed} ms more`,
  );
  await expect(again.getByRole("heading", { name: /60 visits/ })).toBeVisible();
  await again.getByRole("link", { name: /Asa Lindqvarn/ }).last().tap();
  await expect(again.getByRole("navigation", { name: "Steps of the visit" })).toBeVisible();
});
