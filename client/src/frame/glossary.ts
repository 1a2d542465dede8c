import { say } from "../words/say";

/** A word of the trade or of this product, and one line that says what it means. docs/glossary.md is the same list. */
export interface Entry {
  term: string;
  means: string;
}

export const glossary = {
  activation: { term: say("frame.term-activation"), means: say("frame.means-activation") },
  "clean-work": { term: say("frame.term-clean-work"), means: say("frame.means-clean-work") },
  "compensation-fault": {
    term: say("frame.term-compensation-fault"),
    means: say("frame.means-compensation-fault"),
  },
  contraindicated: { term: say("frame.term-contraindicated"), means: say("frame.means-contraindicated") },
  control: { term: say("frame.term-control"), means: say("frame.means-control") },
  cue: { term: say("frame.term-cue"), means: say("frame.means-cue") },
  direction: { term: say("frame.term-direction"), means: say("frame.means-direction") },
  dose: { term: say("frame.term-dose"), means: say("frame.means-dose") },
  episode: { term: say("frame.term-episode"), means: say("frame.means-episode") },
  flare: { term: say("frame.term-flare"), means: say("frame.means-flare") },
  "home-programme": { term: say("frame.term-home-programme"), means: say("frame.means-home-programme") },
  irritability: { term: say("frame.term-irritability"), means: say("frame.means-irritability") },
  ladder: { term: say("frame.term-ladder"), means: say("frame.means-ladder") },
  "level-rung": { term: say("frame.term-level-rung"), means: say("frame.means-level-rung") },
  "measurement-error": {
    term: say("frame.term-measurement-error"),
    means: say("frame.means-measurement-error"),
  },
  modification: { term: say("frame.term-modification"), means: say("frame.means-modification") },
  neutral: { term: say("frame.term-neutral"), means: say("frame.means-neutral") },
  peg: { term: say("frame.term-peg"), means: say("frame.means-peg") },
  policy: { term: say("frame.term-policy"), means: say("frame.means-policy") },
  precaution: { term: say("frame.term-precaution"), means: say("frame.means-precaution") },
  probe: { term: say("frame.term-probe"), means: say("frame.means-probe") },
  "red-flag": { term: say("frame.term-red-flag"), means: say("frame.means-red-flag") },
  "reference-pain": { term: say("frame.term-reference-pain"), means: say("frame.means-reference-pain") },
  screen: { term: say("frame.term-screen"), means: say("frame.means-screen") },
  "trunk-ring": { term: say("frame.term-trunk-ring"), means: say("frame.means-trunk-ring") },
} satisfies Record<string, Entry>;

export type TermName = keyof typeof glossary;
