import { Fragment, useState } from "react";
import styled from "styled-components";
import { findRung } from "../api/queries";
import type { Ability, AbilityFindings, Library, Trial } from "../api/types";
import { Quiet, Small } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { capital } from "../controls/words";
import { markWords } from "./marks";
import { Opener, Table } from "../controls/DataTable";
import { say } from "../words/say";

const Line = styled.span`
  position: relative;
  display: block;
  width: 140px;
  height: 18px;
  background: ${({ theme }) => theme.colour.wash};
  span {
    position: absolute;
    top: 5px;
    height: 8px;
    background: ${({ theme }) => theme.colour.sand};
  }
  i {
    position: absolute;
    top: 0;
    width: 3px;
    height: 18px;
    background: ${({ theme }) => theme.colour.ink};
  }
`;

/** Where the client stands in each direction, with how sure that is; each opens to the trials behind it. */
export function AbilityTable(props: { abilities: AbilityFindings; trials: Trial[]; library: Library }) {
  const { abilities, library } = props;
  const [open, setOpen] = useState<string | null>(null);
  return (
    <section>
      <h2>{say("findings.where-the-client-stands")}</h2>
      <Table>
        <thead>
          <tr>
            <th>{say("findings.direction")}</th>
            <th>{say("findings.of-100")}</th>
            <th>{say("findings.range")}</th>
            <th>{say("findings.reps")}</th>
          </tr>
        </thead>
        <tbody>
          {abilities.all.map((a) => {
            const id = a.sector + a.side;
            return (
              <Fragment key={id}>
                <tr>
                  <th scope="row">
                    <Opener aria-expanded={open === id} onPress={() => setOpen(open === id ? null : id)}>
                      {capital(a.name)}
                    </Opener>
                    {(a.lowest || a.unclear) && (
                      <>
                        <br />
                        <Quiet>
                          {a.lowest ? say("findings.lowest") : say("findings.not-clearly-different-from-the")}
                        </Quiet>
                      </>
                    )}
                  </th>
                  <td>{Math.round(a.percent)}</td>
                  <td>
                    <Line aria-hidden="true">
                      <span style={{ left: `${a.percentLow}%`, width: `${a.percentHigh - a.percentLow}%` }} />
                      <i style={{ left: `${a.percent}%` }} />
                    </Line>
                    <Quiet>
                      {say("findings.percentlow-to-percenthigh", {
                        percentLow: Math.round(a.percentLow),
                        percentHigh: Math.round(a.percentHigh),
                      })}
                    </Quiet>
                  </td>
                  <td>{a.reps}</td>
                </tr>
                {open === id && <Behind ability={a} trials={props.trials} library={library} />}
              </Fragment>
            );
          })}
        </tbody>
      </Table>
      <NextRungs abilities={abilities} library={library} />
      <Small>{say("findings.from-the-easiest-to-the")}</Small>
    </section>
  );
}

function NextRungs({ abilities, library }: { abilities: AbilityFindings; library: Library }) {
  if (abilities.next.length === 0) return null;
  return (
    <>
      <h3 style={{ marginTop: 16 }}>{say("findings.one-rung-above-the-entry")}</h3>
      <ul>
        {abilities.next.map((n) => (
          <li key={n.ladderId + n.side}>
            {findRung(library, n.rungId).rung.name} <SideTag side={n.side} />: {n.words}
          </li>
        ))}
      </ul>
    </>
  );
}

function Behind({ ability, trials, library }: { ability: Ability; trials: Trial[]; library: Library }) {
  const here = trials.filter((t) => ability.trials.includes(t.id));
  const elsewhere = ability.trials.length - here.length;
  return (
    <>
      <tr>
        <td colSpan={4} style={{ paddingInlineStart: 20 }}>
          {say("findings.theta-rungs-of-load-low", {
            theta: ability.theta.toFixed(1),
            low: ability.low.toFixed(1),
            high: ability.high.toFixed(1),
            spread: ability.spread.toFixed(1),
          })}
        </td>
      </tr>
      {here.map((trial) => (
        <tr key={trial.id}>
          <td style={{ paddingInlineStart: 20 }}>
            {findRung(library, trial.rungId).rung.name} <SideTag side={trial.side} />
          </td>
          <td colSpan={3}>
            {say("findings.reps-of-total-clean-marked", {
              reps: trial.clean.reps,
              total: trial.total,
              trial: markWords(trial, library),
            })}
          </td>
        </tr>
      ))}
      {elsewhere > 0 && (
        <tr>
          <td colSpan={4} style={{ paddingInlineStart: 20 }}>
            {say("findings.elsewhere-of-sessions-and-other", {
              elsewhere:
                elsewhere === 1 ? say("findings.one-set") : say("findings.elsewhere-sets", { elsewhere }),
            })}
          </td>
        </tr>
      )}
    </>
  );
}
