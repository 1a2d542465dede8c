import { useState } from "react";
import styled from "styled-components";
import { faultThatMeans, useLibrary } from "../api/queries";
import type { Instrument, InstrumentSetup } from "../api/types";
import type { LiveTrialState } from "./liveTrial";
import { clock, type RecordEvent } from "./useCapture";
import { Button } from "../controls/Button";
import { Quiet } from "../controls/layout";
import { proposalsOf, repProposals, type Proposal, type RepProposal } from "./proposals";
import type { Loss, SeenRep } from "./useTrace";
import { say } from "../words/say";

/** While the trial runs there is room for one and a bit. What comes later comes below: nothing moves away under a finger. */
const List = styled.ul<{ $short: boolean }>`
  max-height: ${({ $short }) => ($short ? "128px" : "420px")};
  max-width: 420px;
  overflow-y: auto;
  li {
    padding-bottom: ${({ theme }) => theme.space(2)};
  }
`;

const LossGrid = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 4px;
  > :first-child,
  > span {
    grid-column: 1 / -1;
  }
`;

const RepGrid = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px;
`;

const stepMs = 200;

interface Props {
  trial: LiveTrialState;
  losses: Loss[];
  reps: SeenRep[];
  /** A rep is to take; 0: any time; null: reps are not counted here. */
  askedSeconds: number | null;
  setup: InstrumentSetup;
  faultName: (code: string) => string;
  record: RecordEvent;
  /** Said when nothing is left; nothing where it is not given. */
  nothing?: string;
}

/** What the instrument saw in this trial, to be kept, moved or dropped; nothing counts before it is kept. */
export function ProposedMarks(props: Props) {
  const [dropped, setDropped] = useState<ReadonlySet<number>>(new Set());
  const drop = (moment: number) => setDropped(new Set([...dropped, moment]));
  const losses = proposalsOf(props.losses, props.trial, new Map());
  const reps =
    props.askedSeconds === null ? [] : repProposals(props.reps, props.trial, props.askedSeconds, clock.now());
  const open = [
    ...losses.map((p) => ({ at: p.loss.onset, line: <LossLine {...props} proposal={p} onDrop={drop} /> })),
    ...reps.map((p) => ({ at: p.rep.start, line: <RepLine {...props} proposal={p} onDrop={drop} /> })),
  ].filter((p) => !dropped.has(p.at));
  if (open.length === 0) return props.nothing ? <Quiet>{props.nothing}</Quiet> : null;
  return (
    <List aria-label={say("capture.proposed-by-the-instrument")} $short={props.trial.endedAt === null}>
      {open
        .sort((a, b) => a.at - b.at)
        .map((p) => (
          <li key={p.at}>{p.line}</li>
        ))}
    </List>
  );
}

type LineProps<T> = Props & { proposal: T; onDrop: (moment: number) => void };

function LossLine({ proposal, onDrop, ...props }: LineProps<Proposal>) {
  const [moved, setMoved] = useState(0);
  const { trial, setup, record } = props;
  const { loss } = proposal;
  const name = props.faultName(loss.fault);
  const at = proposalsOf([loss], trial, new Map([[loss.onset, moved]]))[0] ?? proposal;
  const keep = () => {
    record(trial.trialId, "fault-marked", {
      fault: loss.fault,
      instrument: setup.id as Instrument,
      at: new Date(at.at).toISOString(),
    });
    onDrop(loss.onset);
  };
  return (
    <LossGrid>
      <Button $small onPress={keep}>
        {say("capture.mark-name", { name })}
      </Button>
      <span>
        {at.words}{" "}
        <Quiet>
          {Math.abs(loss.excursion).toFixed(0)} {unitOf(setup, loss)}
        </Quiet>
      </span>
      <Button
        $quiet
        $small
        aria-label={say("capture.name-earlier", { name })}
        onPress={() => setMoved(moved - stepMs)}
      >
        −0.2
      </Button>
      <Button
        $quiet
        $small
        aria-label={say("capture.name-later", { name })}
        onPress={() => setMoved(moved + stepMs)}
      >
        +0.2
      </Button>
      <Button
        $quiet
        $small
        aria-label={say("capture.name-not-a-fault", { name })}
        onPress={() => onDrop(loss.onset)}
      >
        {say("capture.no")}
      </Button>
    </LossGrid>
  );
}

function RepLine({ proposal, onDrop, trial, setup, record }: LineProps<RepProposal>) {
  const { data: library } = useLibrary();
  const rush = faultThatMeans(library, "rush");
  const { rep, kind } = proposal;
  const instrument = setup.id as Instrument;
  const keep = () => {
    if (kind === "rushed" && rush) {
      // In its midst, so that it belongs to this rep whether it was counted early or late.
      const at = new Date((rep.start + rep.end) / 2).toISOString();
      record(trial.trialId, "fault-marked", { fault: rush, instrument, at });
    } else {
      // A hold that runs by hand is the one this rep ends.
      const held = trial.target.hold > 0 && (trial.endedAt !== null || trial.holdSince === null);
      if (held) record(trial.trialId, "hold-started", { instrument, at: new Date(rep.top).toISOString() });
      const at = new Date(held ? rep.leaves : rep.end).toISOString();
      record(trial.trialId, "rep-done", { instrument, at });
    }
  };
  return (
    <RepGrid>
      <Button $small onPress={keep}>
        {kind === "rushed" ? say("capture.too-fast") : say("capture.count-rep")}, {proposal.words}
      </Button>
      <Button
        $quiet
        $small
        aria-label={kind === "rushed" ? say("capture.not-too-fast") : say("capture.not-a-rep")}
        onPress={() => onDrop(rep.start)}
      >
        {say("capture.no")}
      </Button>
    </RepGrid>
  );
}

const unitOf = (setup: InstrumentSetup, loss: Loss) =>
  setup.channels.find((c) => c.channel === loss.channel)?.unit ?? "";
