import type { Ends, Proportion } from "../api/types";
import { say } from "../words/say";

const percent = (share: number) => Math.round(share * 100);

/** "12 % (5 to 24)"; a dash where nothing is known yet. */
export const shareWords = (of: Proportion | null | undefined) =>
  of
    ? say("practice.share-within", { share: percent(of.value), low: percent(of.low), high: percent(of.high) })
    : "–";

/** "3 of 4"; a dash where there was none. */
export const countWords = (n: number, of: number) => (of === 0 ? "–" : say("practice.n-of-m", { n, m: of }));

/** Numbers below 0 with a minus, as elsewhere in print. */
export const withMinus = (words: string) => words.replace(/-(?=\d)/g, "−");

/** "0.62"; a dash where nothing is known yet. */
export const number = (value: number | null | undefined) =>
  value == null ? "–" : withMinus(value.toFixed(2));

/** "0.62 (0.41 to 0.80)". */
export const numberWithin = (value: number | null | undefined, ends: Ends | undefined) =>
  value != null && ends
    ? say("practice.number-within", { value: number(value), low: number(ends.low), high: number(ends.high) })
    : number(value);
