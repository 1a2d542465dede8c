import { say } from "../words/say";

/** What became of a visit that did not take place. */
export const calledOffWords = { cancelled: say("frame.cancelled"), missed: say("frame.missed") } as const;
