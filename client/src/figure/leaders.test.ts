import { describe, expect, it } from "vitest";
import { cheapest } from "./leaders";

/** Every way to give rows columns of their own, and the least that one costs. */
function leastByTrying(cost: number[][], row = 0, taken: number[] = []): number {
  if (row === cost.length) return 0;
  return Math.min(
    ...cost[row]!.map((c, column) =>
      taken.includes(column) ? Infinity : c + leastByTrying(cost, row + 1, [...taken, column]),
    ),
  );
}

const numbers = (seed: number) => () => (seed = (seed * 48271) % 2147483647) / 2147483647;

describe("the cheapest assignment", () => {
  it.each(Array.from({ length: 60 }, (_, i) => i + 1))(
    "is as cheap as the best that trying finds, seed %i",
    (seed) => {
      const next = numbers(seed);
      const rows = 1 + Math.floor(next() * 6);
      const columns = rows + Math.floor(next() * 2);
      // Few different costs: ties are the rule.
      const cost = Array.from({ length: rows }, () =>
        Array.from({ length: columns }, () => Math.floor(next() * (seed % 2 ? 4 : 1000))),
      );
      const columnOf = cheapest(cost);
      expect(new Set(columnOf).size).toBe(rows);
      expect(columnOf.reduce((sum, column, row) => sum + cost[row]![column]!, 0)).toBe(leastByTrying(cost));
    },
  );

  it("of nothing is nothing", () => expect(cheapest([])).toEqual([]));
});
