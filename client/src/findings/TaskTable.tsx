import { Fragment, useState, type ReactNode } from "react";
import styled from "styled-components";
import { findRung } from "../api/queries";
import type { Library, NormShown, ScreenFindings, SideScore, TaskFinding, Trial } from "../api/types";
import { Quiet, Small } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { seconds } from "../controls/words";
import { markWords } from "./marks";
import { NormBand } from "./NormBand";
import { Opener, Table } from "../controls/DataTable";

/** What a side came to, in the task's own unit. */
export function valueWords(finding: TaskFinding, score: SideScore): string {
  switch (finding.measure) {
    case "seconds":
      return seconds(score.value ?? 0);
    case "degrees":
      return `${score.value ?? 0}°`;
    case "centimetres":
      if (score.value == null) return "none clean";
      return `${score.value} cm${score.percentOfLeg == null ? "" : `, ${Math.round(score.percentOfLeg)} % of leg`}`;
    case "yes-no":
      return score.value === 1 ? "stayed level" : "gave way";
    case "effort":
      return score.value == null ? "not told" : `${score.value} of 5`;
    case "kilograms": {
      const held = score.value == null ? "none clean" : `${score.value} kg`;
      return score.brokeAt == null ? held : `${held}, broke at ${score.brokeAt} kg`;
    }
    default:
      return `${score.cleanReps} of ${score.reps}`;
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
      <h2>Tasks</h2>
      <Table>
        <thead>
          <tr>
            <th>Task</th>
            <th>
              <SideTag side="left" />
            </th>
            <th>
              <SideTag side="right" />
            </th>
            <th>Behind</th>
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
                        : "even"}
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
    padding-left: 16px;
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
            Both sides together {sum} of 10. <Quiet>{sourceWords("Sum as in Mens et al. 2001", true)}</Quiet>
          </p>
        )}
        {norms.map((norm, i) => (
          <NormLine key={i} norm={norm} finding={finding} />
        ))}
        {finding.difference && (
          <p>
            {finding.difference.attention && <strong>Worth attention: </strong>}
            {finding.difference.words}{" "}
            <Quiet>{sourceWords(finding.difference.source, finding.difference.memory)}</Quiet>
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
        <Quiet>{sourceWords(norm.source, norm.memory)}</Quiet>
      </span>
    </div>
  );
}

const sourceWords = (source: string, memory: boolean) => `${source}${memory ? "; figures from memory" : ""}.`;

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
      <td style={{ paddingLeft: 20 }}>
        <SideTag side={t.side} /> {t.load !== null && `${t.load} kg`}
      </td>
      <td colSpan={3}>
        {t.clean.reps} of {t.total} clean
        {t.clean.cuedReps > 0 && `, ${t.clean.cuedReps} more after a cue`}
        {t.target.hold > 0 && `, ${seconds(t.clean.seconds)} clean`}
        {t.clean.reach &&
          `, clean range ${t.clean.reach.degrees === null ? `${Math.round((t.clean.reach.share ?? 0) * 100)} %` : `${t.clean.reach.degrees}°`}`}
        ; marked: {markWords(t, props.library)}; pain {t.painBefore ?? "–"}
        {t.painPeak !== null && ` → ${t.painPeak}`}
        {t.painAfter !== null && `, after ${t.painAfter}`}
        {(t.instruments?.length ?? 0) > 0 && `; by ${t.instruments!.join(", ")}`}
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
      <h3 style={{ marginTop: 16 }}>Ratios</h3>
      {findings.ratios.map((r) => (
        <p key={r.id}>
          <strong>
            {r.name}: {r.value.toFixed(2)}
          </strong>{" "}
          {r.low != null && r.high != null && `(${r.low.toFixed(2)} to ${r.high.toFixed(2)}) `}
          {r.attention && <strong>· worth attention</strong>} {r.words}{" "}
          <Quiet>{sourceWords(r.source, r.memory)}</Quiet>
        </p>
      ))}
      <Small>Shown, not judged, where the client is outside the group that was studied.</Small>
    </>
  );
}
