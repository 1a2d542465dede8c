import { mkdirSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import path from "node:path";

const root = path.resolve(import.meta.dirname, "../..");
const words = path.join(root, "content/words/en");
const client = path.join(root, "client/node_modules/@formatjs/icu-messageformat-parser");

const accents: Record<string, string> = { a: "á", e: "é", i: "í", o: "ó", u: "ú", A: "Á", E: "É", I: "Í", O: "Ó", U: "Ú" };

const accented = (text: string) => text.replace(/[aeiouAEIOU]/g, (letter) => accents[letter]!);

/** Texts of a Liquid sentence: what stands outside its tags, and what its tags say themselves. */
const liquid = (sentence: string) =>
  sentence
    .split(/(\{\{.*?\}\}|\{%.*?%\})/s)
    .map((part, i) =>
      i % 2 === 0
        ? accented(part)
        : part.replace(/((?:one|other|join): )"([^"]*)"/g, (_, name, text) => `${name}"${accented(text)}"`),
    )
    .join("");

type Element = { type: number; value: string; children?: Element[]; options?: Record<string, { value: Element[] }> };

/** Texts of a sentence of the screens, in all its branches. */
function icu(elements: Element[]) {
  for (const element of elements) {
    if (element.type === 0) element.value = accented(element.value);
    if (element.children) icu(element.children);
    for (const option of Object.values(element.options ?? {})) icu(option.value);
  }
}

const jsonOf = (folder: string) => readdirSync(folder).filter((name) => name.endsWith(".json"));
const read = (file: string) => JSON.parse(readFileSync(file, "utf8"));

/** Content of a clinic that says every sentence with accents: what has none on a screen did not come from the words. */
export async function writePseudo(folder: string) {
  const { parse } = await import(path.join(client, "index.js"));
  const { printAST } = await import(path.join(client, "printer.js"));
  const own = path.join(folder, "words/en");
  mkdirSync(path.join(own, "screens"), { recursive: true });
  const write = (name: string, texts: Record<string, string>, change: (text: string) => string) =>
    writeFileSync(
      path.join(own, name),
      JSON.stringify(Object.fromEntries(Object.entries(texts).map(([id, text]) => [id, change(text)]))),
    );
  for (const name of jsonOf(words)) write(name, read(path.join(words, name)), liquid);
  for (const name of jsonOf(path.join(words, "screens"))) {
    write(`screens/${name}`, read(path.join(words, "screens", name)), (text) => {
      const elements = parse(text, { captureLocation: false });
      icu(elements);
      return printAST(elements);
    });
  }
}

function texts(value: unknown): string[] {
  if (typeof value === "string") return [value];
  if (value === null || typeof value !== "object") return [];
  return Object.values(value).flatMap(texts);
}

const near = (locale: string, options: Intl.DateTimeFormatOptions, count: number) =>
  Array.from({ length: count }, (_, i) => new Date(2026, count === 12 ? i : 0, 1 + (count === 12 ? 0 : i))).map((day) =>
    new Intl.DateTimeFormat(locale, options).format(day),
  );

/** What the content says beside the words, what people of the demo are called and said, dates and units. */
export function known() {
  const content = path.join(root, "content");
  const data = [
    ...jsonOf(content).map((name) => read(path.join(content, name))),
    ...jsonOf(path.join(content, "ladders")).map((name) => read(path.join(content, "ladders", name))),
    ...jsonOf(path.join(content, "demo")).map((name) => read(path.join(content, "demo", name))),
    // What made-up values say in examples.
    read(path.join(content, "words/samples.json")),
  ];
  const dates = (["long", "short"] as const).flatMap((style) => [
    ...near("en-GB", { month: style }, 12),
    ...near("en-GB", { weekday: style }, 7),
  ]);
  // Names of rungs are shown in parts, too, and units of one thing.
  const all = data.flatMap(texts).flatMap((text) => [text, ...text.split(/(?<=[.!?]) |, /), text.replace(/s$/, "")]);
  const people = (read(path.join(content, "demo/scenario.json")).clients as { name: string }[]).flatMap(({ name }) => name.split(" "));
  return [...new Set([...all, ...people, ...dates])]
    .map((text) => text.replace(/[.:]$/, "").trim())
    .filter((text) => /[A-Za-z]{2}/.test(text))
    .sort((a, b) => b.length - a.length);
}

/** What the controls' own library says, in the browser's language. */
const ofTheControls = /Click to start dragging\.|(In|De)crease|Selected Date|Show suggestions|^(day|month|year|hour|minute), *$/g;

/** Ids of rules, addresses and folders. */
const ids = /\b[A-Z]{1,2}-[A-Z-]+|https?:\S+|\/\S+/g;

const word = /(?<!\p{L})(?=[a-z]*[aeiou])[a-z]{3,}(?!\p{L})/giu;

const givens = new WeakMap<string[], RegExp>();

/** All that is known as one expression: made once, since it is long. */
function givenOf(known: string[]) {
  const phrases = () => known.map((one) => one.replace(/[.*+?^${}()|[\]\\]/g, "\\$&"));
  const given = givens.get(known) ?? new RegExp(`(?<!\\p{L})(?:${phrases().join("|")})(?!\\p{L})`, "giu");
  givens.set(known, given);
  return given;
}

/** Words without an accent in a text that are nobody's. */
export function leftOver(text: string, known: string[]) {
  const plain = text.replace(ofTheControls, "");
  // Most of what is shown has none: what is known is sought in the rest.
  if (plain.search(word) < 0) return [];
  return [...plain.replace(givenOf(known), "").replace(ids, "").matchAll(word)].map(([w]) => w);
}

/** @returns which texts have such words: they did not come from the words. What was looked at on another page is not again. */
export function escaping(known: string[]) {
  const seen = new Map<string, boolean>();
  const escapes = (text: string) => {
    const found = seen.get(text) ?? leftOver(text, known).length > 0;
    seen.set(text, found);
    return found;
  };
  return (shown: string[]) => [...new Set(shown)].filter(escapes);
}
