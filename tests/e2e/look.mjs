import { chromium } from "@playwright/test";
const [, , size, out, ...paths] = process.argv;
const [width, height] = size.split("x").map(Number);
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox"] });
const page = await browser.newPage({ viewport: { width, height } });
const base = "http://localhost:5077";
await page.request.post(base + "/api/sign-in", { data: { email: "ines@saltmere.example", password: "lantern-quay-7" } });
const day = await (await page.request.get(base + "/api/day")).json();
const lines = [...day.visits, ...day.others];
let n = 0;
for (const p of paths) {
  const [who, view] = p.split(":");
  const line = lines.find((l) => l.name.includes(who));
  const url = line ? `/episodes/${line.episodeId}/visits/${line.visitId}/${view}` : p;
  await page.goto(base + url);
  await page.waitForLoadState("networkidle");
  if (process.env.CLICK) for (const c of process.env.CLICK.split("|")) { await page.getByText(c, { exact: true }).first().click(); await page.waitForTimeout(400); }
  if (process.env.PDF) await page.pdf({ path: `${out}-${n}.pdf`, preferCSSPageSize: true });
  await page.screenshot({ path: `${out}-${n++}.png`, fullPage: !!process.env.FULL });
}
await browser.close();
