import { Fragment, useState, type ReactNode } from "react";
import styled from "styled-components";
import { findRung } from "../api/queries";
import type { Library, NormShown, ScreenFindings, SideScore, TaskFinding, Trial } from "../api/types";
import { Quiet, Small } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { Source } from "../controls/Source";
import { seconds } from "../controls/words";
import { markWords } from "./marks";
import { NormBand } from "./NormBand";
import { Opener, Table } from "../controls/DataTable";
import { say } from "../words/say";

/** What a side came to, in the task's own unit. */
export function valueWords(finding: TaskFinding, score: SideScore): string {
  switch (finding.measure) {
    case "seconds":
      return seconds(score.value ?? 0);
    case "degrees":
      return `${score.value ?? 0}°`;
    case "centimetres":
      if (score.value == null) return say("findings.none-clean");
      return say("findings.score-cm-percentofleg", {
        score: score.value,
        percentOfLeg:
          score.percentOfLeg == null
            ? ""
            : say("findings.percentofleg-of-leg", { percentOfLeg: Math.round(score.percentOfLeg) }),
      });
    case "yes-no":
      return score.value === 1 ? say("findings.stayed-level") : say("findings.gave-way");
    case "effort":
      return score.value == null
        ? say("findings.not-told")
        : say("findings.score-of-5", { score: score.value });
    case "kilograms": {
      const held =
        score.value == null ? say("findings.none-clean") : say("findings.score-kg", { score: score.value });
      return score.brokeAt == null
        ? held
        : say("findings.held-broke-at-brokeat-kg", { held, brokeAt: score.brokeAt });
    }
    default:
      return say("findings.cleanreps-of-reps", { cleanReps: score.cleanReps, reps: score.reps });
  }
}

/** Every task with its sides, beside what others reached; each opens to its trials and marks. */
export function TaskTable(props: {
  findings: ScreenFindings;
  trials: Trial[];
  library: Library;
  /** What else there is of a trial. */
  more?: (trial: Trial) => ReactNode;
}) {
  const { findings, library } = props;
  const [open, setOpen] = useState<string | null>(null);
  return (
    <section>
      <h2>{say("findings.tasks")}</h2>
      <Table>
        <thead>
          <tr>
            <th>{say("findings.task")}</th>
            <th>
              <SideTag side="left" />
            </th>
            <th>
              <SideTag side="right" />
            </th>
            <th>{say("findings.behind")}</th>
          </tr>
        </thead>
        <tbody>
          {findings.tasks.map((t) => {
            const key = `${t.taskId} ${t.variant} ${t.rungId}`;
            return (
              <Fragment key={key}>
                <tr>
                  <th scope="row">
                    <Opener aria-expanded={open === key} onPress={() => setOpen(open === key ? null : key)}>
                      {t.name ?? findRung(library, t.rungId).rung.name}
                    </Opener>
                  </th>
                  {t.both && !t.left && !t.right ? (
                    <td colSpan={2}>{valueWords(t, t.both)}</td>
                  ) : (
                    <>
                      <td>{t.left ? valueWords(t, t.left) : "–"}</td>
                      <td>{t.right ? valueWords(t, t.right) : "–"}</td>
                    </>
                  )}
                  <td>
                    {t.differencePercent == null
                      ? "–"
                      : t.weaker
                        ? `${t.weaker}, ${Math.round(t.differencePercent)} %`
                        : say("findings.even")}
                  </td>
                </tr>
                <Beside finding={t} />
                {open === key && (
                  <Trials finding={t} trials={props.trials} library={library} more={props.more} />
                )}
              </Fragment>
            );
          })}
        </tbody>
      </Table>
      <Ratios findings={findings} />
    </section>
  );
}

const Cell = styled.td`
  && {
    padding-inline-start: 16px;
  }
`;

function Beside({ finding }: { finding: TaskFinding }) {
  const norms = finding.norms ?? [];
  const sum =
    finding.measure === "effort" && finding.left?.value != null && finding.right?.value != null
      ? finding.left.value + finding.right.value
      : null;
  if (norms.length === 0 && !finding.difference && sum === null) return null;
  return (
    <tr>
      <Cell colSpan={4}>
        {sum !== null && (
          <p>
            {say("findings.both-sides-together", { sum })}{" "}
            <Source text={say("findings.sum-as-in-mens-et")} memory />
          </p>
        )}
        {norms.map((norm, i) => (
          <NormLine key={i} norm={norm} finding={finding} />
        ))}
        {finding.difference && (
          <p>
            {finding.difference.attention && <strong>{say("findings.worth-attention")} </strong>}
            {finding.difference.words}{" "}
            <Source text={finding.difference.source} memory={finding.difference.memory} />
          </p>
        )}
      </Cell>
    </tr>
  );
}

function NormLine({ norm, finding }: { norm: NormShown; finding: TaskFinding }) {
  const score = norm.side === "left" ? finding.left : norm.side === "right" ? finding.right : finding.both;
  return (
    <div style={{ marginBottom: 6 }}>
      {norm.low !== null && norm.high !== null && score?.value != null && (
        <NormBand
          low={norm.low ?? 0}
          high={norm.high ?? 0}
          mean={norm.mean ?? 0}
          value={score.value}
          faint={!norm.inside}
        />
      )}
      <span>
        {norm.side !== "both" && <SideTag side={norm.side} />} {norm.words}{" "}
        <Source text={norm.source} memory={norm.memory} />
      </span>
    </div>
  );
}

function Trials(props: {
  finding: TaskFinding;
  trials: Trial[];
  library: Library;
  more?: (trial: Trial) => ReactNode;
}) {
  const { finding } = props;
  const own = props.trials.filter(
    (t) =>
      t.rungId === finding.rungId &&
      (finding.taskId === null || (t.taskId === finding.taskId && t.variant === finding.variant)),
  );
  return own.map((t) => (
    <tr key={t.id}>
      <td style={{ paddingInlineStart: 20 }}>
        <SideTag side={t.side} /> {t.load != null && say("findings.load-kg", { load: t.load })}
      </td>
      <td colSpan={3}>
        {say("findings.trial-line", {
          reps: t.clean.reps,
          total: t.total,
          cued:
            t.clean.cuedReps > 0
              ? say("findings.cuedreps-more-after-a-cue", { cuedReps: t.clean.cuedReps })
              : "",
          held: t.target.hold > 0 ? say("findings.seconds-clean", { seconds: seconds(t.clean.seconds) }) : "",
          range: t.clean.reach
            ? say("findings.clean-range-degrees", {
                degrees:
                  t.clean.reach.degrees === null
                    ? `${Math.round((t.clean.reach.share ?? 0) * 100)} %`
                    : `${t.clean.reach.degrees}°`,
              })
            : "",
          marks: markWords(t, props.library),
          painBefore: t.painBefore ?? "–",
          after: t.painPeak !== null ? ` → ${t.painPeak}` : "",
          during: t.painAfter !== null ? say("findings.after-painafter", { painAfter: t.painAfter }) : "",
          instruments:
            (t.instruments?.length ?? 0) > 0
              ? say("findings.by-instruments", { instruments: t.instruments!.join(", ") })
              : "",
        })}
        {t.by && <Quiet> · {t.by}</Quiet>}
        {props.more?.(t)}
      </td>
    </tr>
  ));
}

function Ratios({ findings }: { findings: ScreenFindings }) {
  if (!findings.ratios || findings.ratios.length === 0) return null;
  return (
    <>
      <h3 style={{ marginTop: 16 }}>{say("findings.ratios")}</h3>
      {findings.ratios.map((r) => (
        <p key={r.id}>
          <strong>
            {r.name}: {r.value.toFixed(2)}
          </strong>{" "}
          {r.low != null &&
            r.high != null &&
            `${say("findings.low-to-high", { low: r.low.toFixed(2), high: r.high.toFixed(2) })} `}
          {r.attention && <strong>{say("findings.worth-attention-2")}</strong>} {r.words}{" "}
          <Source text={r.source} memory={r.memory} />
        </p>
      ))}
      <Small>{say("findings.shown-not-judged-where-the")}</Small>
    </>
  );
}
