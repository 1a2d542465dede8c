// Writes the tables of docs/performance.md from the figures that were kept, with what was aimed at: node bench/report.mjs [LAST.json]
import { readFileSync, writeFileSync } from "node:fs";

const { figures, measured } = JSON.parse(readFileSync(process.argv[2] ?? "bench/last.json", "utf8"));
const aims = JSON.parse(readFileSync("bench/aims.json", "utf8"));
const document = "docs/performance.md";
const [begin, end] = ["<!-- begin: bench/report.mjs -->", "<!-- end -->"];

const rows = Object.entries(figures).map(([name, columns]) => ({
  title: name.slice(0, name.indexOf(": ")),
  row: name.slice(name.indexOf(": ") + 2),
  columns,
}));

/** What a row was aimed at, and whether it got there; empty where nothing was. */
function aimOf({ row, columns }) {
  const aim = aims.find((one) => row.startsWith(one.row) && columns[one.column] !== undefined);
  if (!aim) return "";
  const value = columns[aim.column];
  return `${aim.column} ≤ ${aim.most}${value > aim.most ? " **missed**" : ""}`;
}

const shown = (value) => (value === null || value === undefined ? "" : String(value));

function table(title) {
  const own = rows.filter((row) => row.title === title);
  const columns = [...new Set(own.flatMap((row) => Object.keys(row.columns)))];
  const { on, machine } = measured[title];
  const lines = own.map((row) => `| ${[row.row, ...columns.map((c) => shown(row.columns[c])), aimOf(row)].join(" | ")} |`);
  return [
    `Measured on ${on}, the machine itself at ${machine} ms:`,
    "",
    `| ${[title, ...columns, "aim"].join(" | ")} |`,
    `|${"---|".repeat(columns.length + 2)}`,
    ...lines,
    "",
  ].join("\n");
}

const text = readFileSync(document, "utf8");
const tables = [...new Set(rows.map((row) => row.title))].map(table).join("\n");
const [head, tail] = [text.slice(0, text.indexOf(begin)), text.slice(text.indexOf(end))];
writeFileSync(document, `${head}${begin}\n\n${tables}${tail}`);
