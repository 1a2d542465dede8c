import { Fragment, useState } from "react";
import { findRung } from "../api/queries";
import type { Library, SectorControl, Trial } from "../api/types";
import { Quiet, Small } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { markWords } from "./marks";
import { Opener, Table } from "../controls/DataTable";
import { say } from "../words/say";

/** Control by direction as numbers; each opens to the rungs it is made of, their weights, and the trials. */
export function ControlTable(props: { control: SectorControl[]; trials: Trial[]; library: Library }) {
  const [open, setOpen] = useState<string | null>(null);
  return (
    <section>
      <h2>{say("findings.control-by-direction")}</h2>
      <Table>
        <thead>
          <tr>
            <th>{say("findings.direction")}</th>
            <th>{say("findings.held")}</th>
            <th>{say("findings.trials")}</th>
          </tr>
        </thead>
        <tbody>
          {props.control.map((c) => (
            <Fragment key={c.sector}>
              <tr>
                <th scope="row">
                  {c.parts ? (
                    <Opener
                      aria-expanded={open === c.sector}
                      onPress={() => setOpen(open === c.sector ? null : c.sector)}
                    >
                      {c.name}
                    </Opener>
                  ) : (
                    c.name
                  )}
                </th>
                <td>{c.percent === null ? say("findings.not-enough-seen") : `${Math.round(c.percent)} %`}</td>
                <td>{c.trials.length}</td>
              </tr>
              {open === c.sector && <Parts control={c} trials={props.trials} library={props.library} />}
            </Fragment>
          ))}
        </tbody>
      </Table>
      <Small>{say("findings.share-of-the-demand-that")}</Small>
    </section>
  );
}

function Parts(props: { control: SectorControl; trials: Trial[]; library: Library }) {
  return (props.control.parts ?? []).map((part, i) => {
    const trial = props.trials.find((t) => t.id === part.trialId);
    return (
      <tr key={i}>
        <td style={{ paddingInlineStart: 20 }}>
          {findRung(props.library, part.rungId).rung.name} <SideTag side={part.side} />
        </td>
        <td>{Math.round(part.value * 100)} %</td>
        <td>
          {say("findings.weight-weight", { weight: Math.round(part.weight * 100) })}
          <br />
          <Quiet>
            {trial
              ? say("findings.reps-of-total-clean-marked", {
                  reps: trial.clean.reps,
                  total: trial.total,
                  trial: markWords(trial, props.library),
                })
              : part.value > 0
                ? say("findings.follows-from-a-harder-one")
                : say("findings.follows-from-the-one-below")}
          </Quiet>
        </td>
      </tr>
    );
  });
}
