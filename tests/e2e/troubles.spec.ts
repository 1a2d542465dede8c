import { expect, test } from "@playwright/test";
import { Build } from "./build";
import { station } from "./hands";
import { beginLegLowering } from "./screening";
import { begin, Clinic, type Tablet } from "./tablet";
import { possible, seeded, type Tapped, Troubled } from "./troubles";

// Every trouble in turn, and then as many as are wanted, mixed: no tap is lost, none is there twice, each under who tapped it.
const mixed = Number(process.env.PALAESTRA_TROUBLES ?? 10);
const seed = Number(process.env.PALAESTRA_TROUBLES_SEED ?? 25);

const ines = { name: "Ines Tarrow", email: "ines@saltmere.example", password: "lantern-quay-7" };
const bram = { name: "Bram Oakley", email: "bram@saltmere.example", password: "tide-table-4" };

const client = new Build();
client.make("first");
const clinic = new Clinic(5271, { PALAESTRA_CLIENT: client.folder });

test.beforeAll(() => clinic.open());
test.afterAll(async () => {
  await clinic.close();
  client.remove();
});

/** A tablet that both opened with a PIN, in a trial of a client. */
async function inATrial(name: RegExp) {
  const tablet = clinic.tablet();
  const page = await tablet.on();
  await begin(page, clinic.origin, bram.email, bram.password);
  await page.getByRole("button", { name: "Sign out" }).tap();
  await begin(page, clinic.origin, ines.email, ines.password);
  await page.getByRole("link", { name }).first().tap();
  await station(page, "Screen");
  await beginLegLowering(page);
  await expect(page.getByRole("group", { name: "Faults, by where they show" })).toBeVisible();
  const trial = page.url();
  await tablet.off();
  const troubled = new Troubled(clinic, client, tablet, [ines, bram], trial, ines);
  await troubled.on();
  return { troubled, tablet, visitId: /visits\/([^/]+)/.exec(trial)![1]! };
}

interface Mark {
  id: string;
  kind: string;
  at: string;
  by: string;
  fault: string;
}

async function atServer(visitId: string): Promise<Tapped[]> {
  const { events } = await clinic.ask<{ events: Mark[] }>(`/api/visits/${visitId}/events`);
  expect(new Set(events.map((e) => e.id)).size).toBe(events.length);
  return events
    .filter((e) => e.kind === "fault-marked")
    .sort((a, b) => (a.at < b.at ? -1 : 1))
    .map((e) => ({ fault: e.fault, by: e.by }));
}

async function allThere(troubled: Troubled, visitId: string) {
  await troubled.mend();
  await expect.poll(() => atServer(visitId), { timeout: 60_000 }).toEqual(troubled.tapped);
}

let tablet: Tablet;
test.afterEach(() => tablet.close());

test("each trouble in turn loses no tap, stores none twice, and files each under who tapped it", async () => {
  const begun = await inATrial(/Nerys Quill/);
  const { troubled: t, visitId } = begun;
  tablet = begun.tablet;
  const taps = async (count: number) => {
    for (let i = 0; i < count; i++) await t.tap();
  };
  const turns: [() => Promise<unknown>, () => Promise<unknown>][] = [
    [() => t.killServer(), () => t.startServer()],
    [() => t.killTablet(), () => Promise.resolve()],
    [() => t.fill(true), () => t.fill(false)],
    [() => t.hang(true), () => t.hang(false)],
    [() => t.secondTab(), () => t.closeTab()],
    [() => t.expire(), () => Promise.resolve()],
    [() => t.handOver(), () => t.handOver()],
    [() => t.update(), () => t.killTablet()],
  ];
  for (const [begins, ends] of turns) {
    await begins();
    await taps(3);
    await ends();
    await taps(2);
    await allThere(t, visitId);
  }
});

test("troubles mixed from a seed lose no tap, store none twice, and file each under who tapped it", async () => {
  test.setTimeout(600_000 + mixed * 20_000);
  const begun = await inATrial(/Fenwick Oduya/);
  const { troubled: t, visitId } = begun;
  tablet = begun.tablet;
  const random = seeded(seed);
  const done: string[] = [];
  try {
    for (let i = 0; i < mixed; i++) {
      const can = possible(t);
      const step = can[Math.floor(random() * can.length)]!;
      done.push(step.name);
      await step.do(t);
      for (let taps = 1 + Math.floor(random() * 3); taps > 0; taps--) await t.tap();
    }
    await allThere(t, visitId);
  } catch (failed) {
    throw new Error(`seed ${seed}, after: ${done.join(", ")}`, { cause: failed });
  }
  console.log(`${t.tapped.length} taps in ${mixed} troubles, seed ${seed}`);
});
