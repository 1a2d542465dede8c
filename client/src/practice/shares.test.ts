import { expect, test } from "vitest";
import { number, withMinus } from "./shares";

test("what lies below 0 has a minus, and a hyphen between words stays one", () => {
  expect(number(-0.625)).toBe("−0.63");
  expect(number(null)).toBe("–");
  expect(withMinus("-1.0 reps (-2.3 to 0.8), side-lying")).toBe("−1.0 reps (−2.3 to 0.8), side-lying");
});
