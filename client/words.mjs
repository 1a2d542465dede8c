import { existsSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import { parse } from "@formatjs/icu-messageformat-parser";
import { names } from "./src/words/names.mjs";

export const folder = `${import.meta.dirname}/../content/words/en/screens/`;
const types = `${import.meta.dirname}/src/words/sentences.d.ts`;

/** Files of the sentences, one for each room of the client. */
export const files = () =>
  readdirSync(folder)
    .filter((name) => name.endsWith(".json"))
    .sort();

/** Every sentence of the screens by its id, as it is written. */
export const sentences = () =>
  Object.assign({}, ...files().map((name) => JSON.parse(readFileSync(folder + name, "utf8"))));

function parsed(id, text) {
  try {
    return parse(text, { captureLocation: false });
  } catch (error) {
    throw new Error(`${id} cannot be read (${error.message}): ${text}`);
  }
}

/** Every sentence parsed when the client is built. @param {Record<string, string>} texts */
export const compiled = (texts) =>
  Object.fromEntries(Object.entries(texts).map(([id, text]) => [id, parsed(id, text)]));

const extensions = ["", ".ts", ".tsx", ".mjs"];

/** The files a module imports at once: not those it asks for later by import(), and no types. */
function imported(file, source) {
  const names = [...source.matchAll(/^(?:import|export)\s(?!type\b)[^;]*?from\s+"(\.[^"]+)"/gm)].map(
    (m) => m[1],
  );
  return names
    .flatMap((name) => extensions.map((extension) => path.resolve(path.dirname(file), name + extension)))
    .filter((there) => path.extname(there) !== "" && existsSync(there));
}

/**
 * The ids that a module names, or one it imports at once, or one that does: what has to be there before it can speak.
 * @param {string} file @param {Record<string, string>} texts @returns {Set<string>}
 */
export function saidFrom(file, texts, seen = new Set()) {
  if (seen.has(file)) return new Set();
  seen.add(file);
  const source = readFileSync(file, "utf8");
  const mine = [...source.matchAll(/"([a-z-]+\.[a-z0-9-]+)"/g)].map((m) => m[1]).filter((id) => id in texts);
  return new Set([...mine, ...imported(file, source).flatMap((there) => [...saidFrom(there, texts, seen)])]);
}

/** The types by which a sentence that is missing, or said with other values than it names, does not compile. */
export function declarations(texts) {
  const lines = Object.entries(compiled(texts))
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([id, elements]) => {
      const asked = names(elements);
      return `  "${id}": [${asked.length ? `values: Values<${asked.map((n) => `"${n}"`).join(" | ")}>` : ""}];`;
    });
  return `// Made by "npm run words" from content/words/en/screens.
import type { Values } from "./values";

export interface Sentences {
${lines.join("\n")}
}
`;
}

if (process.argv[1] === import.meta.filename) writeFileSync(types, declarations(sentences()));
