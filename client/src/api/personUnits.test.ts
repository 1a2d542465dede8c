import { describe, expect, it } from "vitest";
import { cmOf, feetOf, kgOf, poundsHeld, poundsOf } from "./personUnits";

describe("pounds, feet and inches", () => {
  // NIST Handbook 44, appendix C: 1 lb = 0.453 592 37 kg, 1 in = 2.54 cm; from memory.
  it("are those of the tables", () => {
    expect([kgOf(100), kgOf(150), cmOf({ feet: 5, inches: 0 }), cmOf({ feet: 5, inches: 10 })]).toEqual([
      45.4, 68, 152.4, 177.8,
    ]);
    expect([poundsOf(72), poundsHeld(8), feetOf(178)]).toEqual([159, 17.6, { feet: 5, inches: 10 }]);
  });

  it("never twelve inches beside feet", () => {
    // 182.8 cm are 71.97 inches.
    expect(feetOf(182.8)).toEqual({ feet: 6, inches: 0 });
  });

  it("come back as they were written, over all that is allowed", () => {
    for (let pounds = 55; pounds <= 552; pounds++) expect(poundsOf(kgOf(pounds))).toBe(pounds);
    for (let inches = 39; inches <= 91; inches++) {
      const height = { feet: Math.floor(inches / 12), inches: inches % 12 };
      expect(feetOf(cmOf(height))).toEqual(height);
    }
  });
});
