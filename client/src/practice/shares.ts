import type { Proportion } from "../api/types";
import { say } from "../words/say";

const percent = (share: number) => Math.round(share * 100);

/** "12 % (5 to 24)"; a dash where nothing is known yet. */
export const shareWords = (of: Proportion | null | undefined) =>
  of
    ? say("practice.share-within", { share: percent(of.value), low: percent(of.low), high: percent(of.high) })
    : "–";
