import type { Library, Trial } from "../api/types";
import { seconds } from "../controls/words";
import { instrumentNames } from "../capture/instrumentNames";
import { say } from "../words/say";

/** What was marked in a trial: "low back arches (rep 3, 1.2 s)". */
export function markWords(trial: Trial, library: Library) {
  const words = trial.marks.map((m) => {
    const fault = library.faults.find((f) => f.code === m.fault)?.name ?? m.fault;
    const stays = m.persists ? say("findings.from-then-on") : "";
    const told = m.seenBy
      ? say("findings.told-by-the-instrumentnames", { instrumentNames: instrumentNames[m.seenBy] })
      : "";
    return say("findings.fault-in-rep", {
      fault,
      rep: m.rep,
      second: m.second === null ? "" : `, ${seconds(m.second ?? 0)}`,
      stays,
      told,
    });
  });
  return words.length === 0 ? say("findings.nothing") : words.join("; ");
}
