import { useState } from "react";
import styled from "styled-components";
import type { Instrument, InstrumentSetup } from "../api/types";
import type { LiveTrialState } from "../capture/liveTrial";
import type { RecordEvent } from "../capture/useCapture";
import { Button } from "../controls/Button";
import { Quiet } from "../controls/layout";
import { proposalsOf, type Proposal } from "./proposals";
import type { Loss } from "./useTrace";

const List = styled.ul`
  max-height: 190px;
  overflow-y: auto;
  li {
    display: grid;
    grid-template-columns: 1fr 1fr 1fr;
    gap: 4px;
    padding-bottom: ${({ theme }) => theme.space(2)};
  }
  li > :first-child,
  li > span {
    grid-column: 1 / -1;
  }
`;

const stepMs = 200;

/** What the instrument saw in this trial, to be kept, moved or dropped; nothing counts before it is kept. */
export function ProposedMarks(props: {
  trial: LiveTrialState;
  losses: Loss[];
  setup: InstrumentSetup;
  faultName: (code: string) => string;
  record: RecordEvent;
}) {
  const { trial, setup, record } = props;
  const [answered, setAnswered] = useState<ReadonlySet<number>>(new Set());
  const [moved, setMoved] = useState<ReadonlyMap<number, number>>(new Map());
  const open = proposalsOf(props.losses, trial, moved).filter((p) => !answered.has(p.loss.onset));
  const answer = (p: Proposal) => setAnswered(new Set([...answered, p.loss.onset]));
  const move = (p: Proposal, by: number) =>
    setMoved(new Map([...moved, [p.loss.onset, (moved.get(p.loss.onset) ?? 0) + by]]));
  const keep = (p: Proposal) => {
    record(trial.trialId, "fault-marked", {
      fault: p.loss.fault,
      instrument: setup.id as Instrument,
      at: new Date(p.at).toISOString(),
    });
    answer(p);
  };
  if (open.length === 0) return null;
  return (
    <List aria-label="Proposed by the instrument">
      {open.map((p) => {
        const name = props.faultName(p.loss.fault);
        return (
          <li key={p.loss.onset}>
            <Button $small onPress={() => keep(p)}>{`Mark: ${name}`}</Button>
            <span>
              {p.words}{" "}
              <Quiet>
                {Math.abs(p.loss.excursion).toFixed(0)} {unitOf(setup, p.loss)}
              </Quiet>
            </span>
            <Button $quiet $small aria-label={`${name}: earlier`} onPress={() => move(p, -stepMs)}>
              −0.2
            </Button>
            <Button $quiet $small aria-label={`${name}: later`} onPress={() => move(p, stepMs)}>
              +0.2
            </Button>
            <Button $quiet $small aria-label={`${name}: not a fault`} onPress={() => answer(p)}>
              No
            </Button>
          </li>
        );
      })}
    </List>
  );
}

const unitOf = (setup: InstrumentSetup, loss: Loss) =>
  setup.channels.find((c) => c.channel === loss.channel)?.unit ?? "";
