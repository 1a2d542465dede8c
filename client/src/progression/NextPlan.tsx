import { Fragment } from "react";
import { findRung } from "../api/queries";
import type { DecideView, Library } from "../api/types";
import { Note, Quiet, Small } from "../controls/layout";
import { doseWords } from "../controls/words";

/** The plan that agreeing makes: order, positions, minutes and what to look at. */
export function NextPlan(props: { view: DecideView; library: Library; overridden: boolean }) {
  const { next } = props.view;
  if (!next) return null;
  return (
    <section aria-label="The plan this makes">
      <p>
        <strong>Next plan{props.overridden && ", agreeing with all"}:</strong>{" "}
        {next.items.map((item, i) => {
          const { rung } = findRung(props.library, item.rungId);
          return (
            <Fragment key={item.id}>
              {i > 0 && " · "}
              {rung.name.toLowerCase()} <Quiet>{doseWords(item.doses[0]!.dose)}</Quiet>
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
