import { findRung } from "../api/queries";
import type { Library, Trial } from "../api/types";
import { Note } from "../controls/layout";
import { say } from "../words/say";

/** Trials whose taps came more than a day off their own time: kept, and said, since nobody knows their order for certain. */
export function ClockOff(props: { trials: Trial[]; clockOff: string[]; library: Library }) {
  const off = props.trials.filter((t) => props.clockOff.includes(t.id));
  if (off.length === 0) return null;
  return (
    <Note>
      {say("frame.clock-off", {
        trials: off.map((t) => findRung(props.library, t.rungId).rung.name).join(", "),
      })}
    </Note>
  );
}
