import { afterEach, describe, expect, it, vi } from "vitest";
import { compiled, declarations, saidIn, sentences } from "../../words.mjs";
import { ownParser, withOwn } from "./own";
import types from "./sentences.d.ts?raw";

const texts = sentences();
const sources = Object.entries(
  import.meta.glob<string>("../**/*.{ts,tsx}", { eager: true, query: "?raw", import: "default" }),
).filter(([path]) => !/\.test\.|sentences\.d\.ts/.test(path));

describe("the sentences of the screens", () => {
  it("are said somewhere, each of them", () => {
    const code = sources.map(([, source]) => source).join("\n");
    expect(Object.keys(texts).filter((id) => !code.includes(`"${id}"`))).toEqual([]);
  });

  it("stand in the file of the room that says them", () => {
    const elsewhere = sources.flatMap(([path, source]) => {
      const room = path.split("/")[1]!;
      const said = [...source.matchAll(/say(?:Rich)?\(\s*"([^".]+)\./g)].map((m) => m[1]!);
      return said.filter((theirs) => theirs !== room).map((theirs) => `${path}: ${theirs}`);
    });
    expect(elsewhere).toEqual([]);
  });

  it("are typed as they are written: npm run words", () => {
    expect(types).toBe(declarations(texts));
  });

  it("are named where one cannot be read", () => {
    expect(() => compiled({ "day.broken": "{n, plural, one {visit}" })).toThrow("day.broken");
  });
});

describe("the sentences of a module", () => {
  it("are those it names, and no other words in quotes", () => {
    const source = `say("day.now"); open("day.json"); const path = "./day.now"; say("day.nothing-of-the-kind");`;
    expect(saidIn(source, texts)).toEqual({ "day.now": texts["day.now"] });
  });

  it("come with it", async () => {
    const { say } = await import("./say");
    expect(say("day.now")).toBe(texts["day.now"]);
  });
});

describe("a clinic's own sentences", () => {
  const ours = compiled({ "day.count": "{n} visits", "day.none": "no visits" });
  afterEach(() => vi.restoreAllMocks());

  it("take the place of ours", async () => {
    const own = { "day.count": "{n} clients" };
    expect(withOwn(ours, own, await ownParser(own))).toEqual(
      compiled({ "day.count": "{n} clients", "day.none": "no visits" }),
    );
  });

  it("wait for the part of ours that they belong to", async () => {
    const own = { "plan.later": "later" };
    expect(withOwn(ours, own, await ownParser(own))).toEqual(ours);
  });

  it.each(["{n, plural, one {client}", "{days} clients"])("leave ours where they are %s", async (text) => {
    const told = vi.spyOn(console, "error").mockReturnValue();
    const own = { "day.count": text };
    expect(withOwn(ours, own, await ownParser(own))).toEqual(ours);
    expect(told).toHaveBeenCalledOnce();
  });
});
