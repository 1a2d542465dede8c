import { Fragment, useState } from "react";
import { findRung } from "../api/queries";
import type { Library, SectorControl, Trial } from "../api/types";
import { Quiet, Small } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { markWords } from "./marks";
import { Opener, Table } from "../controls/DataTable";

/** Control by direction as numbers; each opens to the rungs it is made of, their weights, and the trials. */
export function ControlTable(props: { control: SectorControl[]; trials: Trial[]; library: Library }) {
  const [open, setOpen] = useState<string | null>(null);
  return (
    <section>
      <h2>Control by direction</h2>
      <Table>
        <thead>
          <tr>
            <th>Direction</th>
            <th>Held</th>
            <th>Trials</th>
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
                <td>{c.percent === null ? "not enough seen" : `${Math.round(c.percent)} %`}</td>
                <td>{c.trials.length}</td>
              </tr>
              {open === c.sector && <Parts control={c} trials={props.trials} library={props.library} />}
            </Fragment>
          ))}
        </tbody>
      </Table>
      <Small>
        Share of the demand that was held, over the rungs seen and implied: the sum of weight × held ÷ the sum
        of weights. Demands by the body model: static, by gravity alone.
      </Small>
    </section>
  );
}

function Parts(props: { control: SectorControl; trials: Trial[]; library: Library }) {
  return (props.control.parts ?? []).map((part, i) => {
    const trial = props.trials.find((t) => t.id === part.trialId);
    return (
      <tr key={i}>
        <td style={{ paddingLeft: 20 }}>
          {findRung(props.library, part.rungId).rung.name} <SideTag side={part.side} />
        </td>
        <td>{Math.round(part.value * 100)} %</td>
        <td>
          weight {Math.round(part.weight * 100)}
          <br />
          <Quiet>
            {trial
              ? `${trial.clean.reps} of ${trial.total} clean; marked: ${markWords(trial, props.library)}`
              : part.value > 0
                ? "follows from a harder one that was clean"
                : "follows from the one below that broke"}
          </Quiet>
        </td>
      </tr>
    );
  });
}
