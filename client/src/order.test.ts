import { describe, expect, it } from "vitest";

/** Rooms of the client, lowest first: each knows only those before it, and features know no other feature. */
const rooms = ["words", "api", "theme", "controls", "figure", "capture", "frame"];

const sources = import.meta.glob<string>("./**/*.{ts,tsx}", {
  eager: true,
  query: "?raw",
  import: "default",
});

const roomOf = (path: string) => (path.split("/").length > 2 ? path.split("/")[1]! : "");
const rank = (room: string) => (rooms.includes(room) ? rooms.indexOf(room) : rooms.length);

/** Where an import of a file leads, from the folder of the client's sources on. */
function target(path: string, spec: string) {
  const parts = path.split("/").slice(0, -1);
  for (const part of spec.split("/")) {
    if (part === "..") parts.pop();
    else if (part !== ".") parts.push(part);
  }
  return parts.join("/");
}

function wrong(path: string, source: string) {
  const mine = roomOf(path);
  return [...source.matchAll(/(?:from|import\() ?"(\.[^"]+)"/g)]
    .map((m) => target(path, m[1]!))
    .filter((to) => {
      const theirs = roomOf(`${to}.ts`);
      if (theirs === "" || theirs === mine) return false;
      return rank(theirs) >= rank(mine);
    })
    .map((to) => `${path} → ${to}`);
}

describe("the rooms of the client", () => {
  it("know only those before them", () => {
    const found = Object.entries(sources)
      .filter(([path]) => roomOf(path) !== "" && roomOf(path) !== "given" && !path.includes(".test."))
      .flatMap(([path, source]) => wrong(path, source));
    expect(found).toEqual([]);
  });

  it("would tell a feature that looks into another", () => {
    const line = `import { Peg } from "../findings/LaddersBoard";`;
    expect(wrong("./progression/PegLadder.tsx", line)).toEqual([
      "./progression/PegLadder.tsx → ./findings/LaddersBoard",
    ]);
  });
});
