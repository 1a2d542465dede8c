import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import { escaping, known, leftOver, writePseudo } from "./pseudo";
import { Server } from "./server";

const own = mkdtempSync(path.join(tmpdir(), "palaestra-pseudo-"));
const server = new Server("demo", 5238, undefined, { PALAESTRA_OWN_CONTENT: own });

test.beforeAll(async () => {
  await writePseudo(own);
  await server.start();
});
test.afterAll(async () => {
  await server.close();
  rmSync(own, { recursive: true });
});

/** What a person reads or hears on the page: texts, names, hints. */
const shown = (page: Page) =>
  page.evaluate(() => {
    const texts: string[] = [];
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const parent = node.parentElement;
      if (!parent || parent.closest("script, style, code, kbd")) continue;
      // The lines of a drawn text are one text.
      const lines = Array.from(parent.closest("text")?.querySelectorAll("tspan") ?? []);
      texts.push(lines.length > 0 ? lines.map((line) => line.textContent).join(" ") : (node.textContent ?? ""));
    }
    for (const element of Array.from(document.querySelectorAll("[aria-label], [placeholder], [title], [alt]"))) {
      for (const name of ["aria-label", "placeholder", "title", "alt"]) {
        const text = element.getAttribute(name);
        if (text) texts.push(text);
      }
    }
    return texts.map((text) => text.replace(/\s+/g, " ").trim()).filter(Boolean);
  });

/** The text of a PDF. */
async function printed(pdf: Buffer) {
  const document = await getDocument({ data: new Uint8Array(pdf) }).promise;
  let text = "";
  for (let number = 1; number <= document.numPages; number++) {
    const { items } = await (await document.getPage(number)).getTextContent();
    text += items.map((item) => ("str" in item ? item.str + (item.hasEOL ? " " : "") : "")).join("");
  }
  return text.replace(/\s+/g, " ");
}

type Line = { name: string; episodeId: string; visitId: string };

test("nothing that is shown or printed was written elsewhere than in the words", async ({ page }) => {
  const data = known();
  const escaped = escaping(data);
  const wrong: Record<string, string[]> = {};
  const look = async (where: string) => {
    await page.goto(`${server.address}${where}`);
    await page.waitForLoadState("networkidle");
    const found = escaped(await shown(page));
    if (found.length > 0) wrong[where.replace(/[0-9a-f-]{36}/g, "…")] = found;
  };
  await look("/");
  await page.request.post(`${server.address}/api/sign-in`, {
    data: { email: "ines@saltmere.example", password: "lantern-quay-7" },
  });
  for (const where of ["/", "/new", "/library", "/library/rungs/B5", "/library/sheet", "/settings", "/settings?part=clinic", "/settings?part=backups", "/settings?part=eye", "/practice", "/account", "/overrides", "/clients", "/clients/new", "/clinic"])
    await look(where);
  const day = await (await page.request.get(`${server.address}/api/day`)).json();
  await look(`/clients/${day.visits[0].clientId}`);
  const lines: Line[] = [...day.visits, ...day.others];
  for (const { name, episodeId, visitId } of lines) {
    const base = `/episodes/${episodeId}/visits/${visitId}`;
    const all = /Nerys|Halla|Ottoline/.test(name);
    for (const view of ["ask", "findings", "plan", "decide"]) await look(`${base}/${view}`);
    if (!all) continue;
    for (const view of ["neutral", "screen", "session", "take-home", "letter", "progress", "replay", "plan/compare", "note", "chart", "discharge"])
      await look(`${base}/${view}`);
    for (const file of [`/api/episodes/${episodeId}/sheet.pdf?record=true`, `/api/visits/${visitId}/letter.pdf`]) {
      const answer = await page.request.get(`${server.address}${file}`);
      if (!answer.ok()) continue;
      const left = leftOver(await printed(await answer.body()), data);
      if (left.length > 0) wrong[file.replace(/[0-9a-f-]{36}/g, "…")] = left;
    }
  }
  // The page of the phone, which carries its words with it.
  for (const { name, episodeId } of lines) {
    const answer = await page.request.get(`${server.address}/api/episodes/${episodeId}/home.html`);
    if (!answer.ok()) continue;
    const file = path.join(own, "home.html");
    writeFileSync(file, await answer.body());
    await page.goto(`file://${file}`);
    await expect(page.locator("main.phone")).toBeVisible();
    const found = escaped(await shown(page));
    if (found.length > 0) wrong[`phone of ${name}`] = found;
  }
  expect(wrong).toEqual({});
});
