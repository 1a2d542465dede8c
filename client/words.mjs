import { readdirSync, readFileSync, writeFileSync } from "node:fs";
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

/** The sentences that a module names. @param {string} source @param {Record<string, string>} texts */
export const saidIn = (source, texts) =>
  Object.fromEntries(
    [...source.matchAll(/"([a-z-]+\.[a-z0-9-]+)"/g)]
      .map((m) => m[1])
      .filter((id) => id in texts)
      .map((id) => [id, texts[id]]),
  );

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
