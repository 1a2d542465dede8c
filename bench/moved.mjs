// Reads the tables that a bench run printed, keeps their figures as JSON, and says what moved by more than a quarter since the run
// that was kept before, in units of the machine itself: node bench/moved.mjs TABLES.md LAST.json [--keep]
import { existsSync, readFileSync, writeFileSync } from "node:fs";

const [tables, file, keep] = process.argv.slice(2);
const most = 0.25;
const machine = "the machine itself";

/** Title of the table and first cell of the row: the numbers after it. */
function figures(text) {
  const all = {};
  let title = "";
  let columns = [];
  let last = [];
  for (const line of text.split("\n")) {
    if (!line.startsWith("|")) continue;
    const cells = line.slice(1, -1).split("|").map((cell) => cell.trim());
    if (/^-+$/.test(cells[0])) {
      [title, ...columns] = last;
      continue;
    }
    const numbers = cells.slice(1).map((cell) => (cell === "" ? null : Number(cell)));
    if (title && numbers.some((n) => n !== null && Number.isFinite(n)))
      all[`${title}: ${cells[0]}`] = Object.fromEntries(columns.map((column, i) => [column, numbers[i]]));
    last = cells;
  }
  return all;
}

/** The title of the table that a figure stands in. */
const titleOf = (name) => name.slice(0, name.indexOf(": "));

const now = figures(readFileSync(tables, "utf8"));
const before = existsSync(file) ? JSON.parse(readFileSync(file, "utf8")).figures : {};
const speed = (run) => Object.entries(run).find(([name]) => name.startsWith(machine))?.[1]["median, ms"] ?? 1;
const share = speed(now) / speed(before);
const isTime = (column) => /\b(ms|s)$/.test(column);

const moved = Object.entries(now).flatMap(([name, columns]) =>
  Object.entries(columns).flatMap(([column, value]) => {
    const old = before[name]?.[column];
    if (!old || value === null || column === "runs" || name.startsWith(machine)) return [];
    const change = value / (isTime(column) ? share : 1) / old - 1;
    return Math.abs(change) > most ? [`  ${change > 0 ? "+" : ""}${(100 * change).toFixed(0)} %  ${name}, ${column}: ${old} → ${value}`] : [];
  }),
);
console.log(
  Object.keys(before).length === 0
    ? "\nNo run was kept before."
    : `\nSince the run that was kept, with times by the machine itself (${share.toFixed(2)} of then):\n${moved.join("\n") || "  nothing moved by more than 25 %"}`,
);
if (keep) {
  const kept = existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : {};
  const on = new Date().toISOString().slice(0, 10);
  // A table that was measured again takes the place of the one before; its rows may have other names now.
  const titles = new Set(Object.keys(now).map(titleOf));
  const others = Object.entries(kept.figures ?? {}).filter(([name]) => !titles.has(titleOf(name)));
  const measured = { ...kept.measured, ...Object.fromEntries([...titles].map((title) => [title, { on, machine: speed(now) }])) };
  writeFileSync(file, `${JSON.stringify({ measured, figures: { ...Object.fromEntries(others), ...now } }, null, 1)}\n`);
}
