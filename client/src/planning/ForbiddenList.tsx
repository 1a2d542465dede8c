import { findRung } from "../api/queries";
import type { Library, PlanView } from "../api/types";
import { Ruled } from "../controls/layout";
import { capital } from "../controls/words";
import { say } from "../words/say";

/** What the precautions bar, by their reason. */
export function ForbiddenList({ view, library }: { view: PlanView; library: Library }) {
  if (view.forbidden.length === 0) return null;
  const byReason = Map.groupBy(view.forbidden, (f) => f.why);
  return (
    <Ruled>
      <h2>{say("planning.forbidden-for-this-client")}</h2>
      <ul>
        {[...byReason].map(([why, rungs]) => (
          <li key={why} style={{ marginTop: 8 }}>
            <strong>{capital(why)}</strong>
            <br />
            {rungs.map((f, i) => (
              <span key={f.rungId}>
                {i > 0 && " · "}
                <s>{findRung(library, f.rungId).rung.name}</s>
              </span>
            ))}
          </li>
        ))}
      </ul>
    </Ruled>
  );
}
