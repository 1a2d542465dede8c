import styled from "styled-components";
import { findRung } from "../api/queries";
import type { GaveWay, Library, ScreenFindings, Side, SideScore, TaskFinding } from "../api/types";
import { SideTag } from "../controls/SideTag";
import { capital } from "../controls/words";
import { RungFigure } from "../figure/FigureView";
import { say } from "../words/say";
import { valueWords } from "./TaskTable";

const List = styled.ul`
  display: grid;
`;

const Line = styled.li`
  display: grid;
  grid-template-columns: 92px minmax(0, 5fr) minmax(76px, 3fr) minmax(76px, 3fr) minmax(0, 5fr);
  align-items: center;
  column-gap: ${({ theme }) => theme.space(3)};
  min-height: 62px;
  border-top: 1px solid ${({ theme }) => theme.colour.rule};
  line-height: 1.2;
  &:last-child {
    border-bottom: 1px solid ${({ theme }) => theme.colour.rule};
  }
  @media (max-width: 37.5em) {
    grid-template-columns: 64px minmax(0, 1fr) minmax(0, 1fr);
    padding: ${({ theme }) => theme.space(1)} 0;
    > h2 {
      grid-column: 2 / -1;
    }
    > :nth-child(1) {
      grid-row: 1 / 4;
    }
    > :last-child {
      grid-column: 2 / -1;
    }
  }
`;

const Name = styled.h2`
  font-size: 1rem;
`;

const Bar = styled.div<{ $side: Side }>`
  height: 12px;
  background: ${({ theme }) => theme.colour.wash};
  i {
    display: block;
    height: 100%;
    background: ${({ theme, $side }) =>
      $side === "left" ? theme.colour.sea : $side === "right" ? theme.colour.bark : theme.colour.slate};
    forced-color-adjust: none;
  }
`;

const Value = styled.p<{ $side: Side }>`
  margin-top: 3px;
  font-size: 0.875rem;
  font-weight: 700;
  color: ${({ theme, $side }) =>
    $side === "left" ? theme.colour.sea : $side === "right" ? theme.colour.bark : theme.colour.slate};
`;

const Remark = styled.p`
  font-size: 0.875rem;
`;

/** Of the tasks those first where the sides differ beyond error, then where something gave way, then the rest as screened. */
export function mostTelling(findings: ScreenFindings): TaskFinding[] {
  const rank = (t: TaskFinding) => (t.weaker ? 0 : gaveWayIn(t, findings).length > 0 ? 1 : 2);
  return findings.tasks.toSorted((a, b) => rank(a) - rank(b));
}

const gaveWayIn = (task: TaskFinding, findings: ScreenFindings) => {
  const trials = [task.left, task.right, task.both].flatMap((score) => (score ? [score.trialId] : []));
  return findings.gaveWay.filter((g) => trials.includes(g.trialId));
};

/** Tasks at a glance: what each side came to, side by side, and what was seen; the weaker side only beyond error. */
export function TaskRows(props: { tasks: TaskFinding[]; findings: ScreenFindings; library: Library }) {
  return (
    <List aria-label={say("findings.tasks")}>
      {props.tasks.map((task) => (
        <Task key={`${task.taskId} ${task.variant} ${task.rungId}`} task={task} {...props} />
      ))}
    </List>
  );
}

function Task(props: { task: TaskFinding; findings: ScreenFindings; library: Library }) {
  const { task, library } = props;
  const { rung } = findRung(library, task.rungId);
  const scores = [task.left, task.right, task.both].flatMap((score) => (score ? [score] : []));
  const most = Math.max(1e-9, ...scores.map((score) => score.value ?? 0));
  return (
    <Line>
      <RungFigure
        rungId={rung.id}
        side={task.weaker ?? (rung.sides === "each" ? "left" : "both")}
        width={92}
        height={56}
      />
      <Name>{task.name ?? rung.name}</Name>
      {task.both && !task.left && !task.right ? (
        <Score side="both" task={task} score={task.both} most={most} />
      ) : (
        <>
          <Score side="left" task={task} score={task.left} most={most} />
          <Score side="right" task={task} score={task.right} most={most} />
        </>
      )}
      <Seen task={task} gaveWay={gaveWayIn(task, props.findings)} />
    </Line>
  );
}

function Score(props: { side: Side; task: TaskFinding; score: SideScore | null; most: number }) {
  const { side, task, score } = props;
  if (!score) return <span />;
  const share =
    task.measure === "reps" ? score.cleanReps / Math.max(1, score.reps) : (score.value ?? 0) / props.most;
  return (
    <div style={side === "both" ? { gridColumn: "span 2" } : undefined}>
      <Bar $side={side} aria-hidden>
        <i style={{ width: `${100 * Math.min(1, share)}%` }} />
      </Bar>
      <Value $side={side}>
        {side !== "both" && <SideTag side={side} />} {valueWords(task, score)}
      </Value>
    </div>
  );
}

function Seen({ task, gaveWay }: { task: TaskFinding; gaveWay: GaveWay[] }) {
  const first = gaveWay[0];
  const other = gaveWay.find((g) => g.side !== first?.side && g.fault === first?.fault);
  return (
    <Remark>
      {task.weaker && (
        <strong>
          {say("findings.side-weaker-beyond-error", {
            side: task.weaker,
            differencePercent: Math.round(task.differencePercent ?? 0),
          })}
          <br />
        </strong>
      )}
      {first
        ? `${capital(first.words)}${other ? say("findings.side-too", { side: other.side }) : ""}`
        : task.weaker
          ? null
          : task.left && task.right
            ? say("findings.not-told-apart")
            : null}
    </Remark>
  );
}
