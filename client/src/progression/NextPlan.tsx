import { Fragment } from "react";
import { findRung } from "../api/queries";
import type { Library, Plan } from "../api/types";
import { Note, Quiet, Small } from "../controls/layout";
import { doseWords, spellWords } from "../controls/words";
import { say } from "../words/say";

/** The plan that these decisions make: order, positions, minutes and what to look at. */
export function NextPlan(props: { plan: Plan; library: Library }) {
  const next = props.plan;
  return (
    <section aria-label={say("progression.the-plan-this-makes")}>
      <p style={{ fontSize: "0.875rem", lineHeight: 1.3, padding: "4px 0" }}>
        <strong>{say("progression.next-plan")}</strong>{" "}
        {next.items.map((item, i) => {
          const { rung } = findRung(props.library, item.rungId);
          return (
            <Fragment key={item.id}>
              {i > 0 && " · "}
              {rung.name.toLowerCase()}{" "}
              <Quiet>
                {item.spell?.kind === "rest" ? spellWords(item.spell)[0] : doseWords(item.doses[0]!.dose)}
              </Quiet>
            </Fragment>
          );
        })}
      </p>
      {next.warnings.length > 0 && (
        <Note>
          {next.warnings.map((w) => (
            <Small key={(w.itemId ?? "") + w.ruleId + w.words}>{w.words}</Small>
          ))}
        </Note>
      )}
    </section>
  );
}
