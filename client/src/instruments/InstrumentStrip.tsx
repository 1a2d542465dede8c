import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import styled from "styled-components";
import { api, got, ProblemError } from "../api/client";
import { keys } from "../api/queries";
import type { DeviceView, Instrument } from "../api/types";
import { changeSettings, useLiveSettings } from "../capture/liveSettings";
import type { LiveTrialState } from "../capture/liveTrial";
import { signalLost } from "../capture/signals";
import type { RecordEvent } from "../capture/useCapture";
import { Button } from "../controls/Button";
import { Quiet, Row, Small } from "../controls/layout";
import { ProposedMarks } from "./ProposedMarks";
import { StandIn } from "./StandIn";
import { TraceCanvas } from "./TraceCanvas";
import { useTrace } from "./useTrace";

const Strip = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 176px;
  gap: ${({ theme }) => theme.space(2)} ${({ theme }) => theme.space(4)};
  border-top: 2px solid ${({ theme }) => theme.colour.rule};
  padding-top: ${({ theme }) => theme.space(2)};
`;

const Trace = styled.div<{ $channels: number }>`
  height: ${({ $channels }) => ($channels > 1 ? 132 : 96)}px;
  border: 1px solid ${({ theme }) => theme.colour.rule};
  background: ${({ theme }) => theme.colour.sheet};
`;

const Word = styled.strong<{ $lost: boolean }>`
  display: block;
  padding: ${({ theme }) => theme.space(2)};
  border-radius: 3px;
  font: 800 22px/1.1 ${({ theme }) => theme.font.display};
  background: ${({ theme, $lost }) => ($lost ? theme.colour.clay : "transparent")};
  color: ${({ theme, $lost }) => ($lost ? theme.colour.sheet : theme.colour.ink)};
`;

export const useInstruments = () =>
  useQuery({
    queryKey: keys.instruments,
    queryFn: () => got(api.GET("/api/instruments")),
    refetchInterval: 3000,
  });

/** The instrument this tablet watches, beside the figure; nothing where none is picked. */
export function InstrumentStrip(props: {
  trial: LiveTrialState;
  record: RecordEvent;
  faultName: (code: string) => string;
}) {
  const { instrument } = useLiveSettings();
  const { data } = useInstruments();
  const device = data?.find((d) => d.device === instrument);
  if (!instrument) return null;
  if (!device) {
    return <Small role="status">{instrument} is not there. Capture goes on by eye.</Small>;
  }
  return <Watched key={device.device} {...props} device={device} />;
}

function Watched(props: {
  trial: LiveTrialState;
  record: RecordEvent;
  faultName: (code: string) => string;
  device: DeviceView;
}) {
  const { trial, record, device } = props;
  const { samples, state } = useTrace(device.device, device.setup.rate);
  const { lossTone } = useLiveSettings();
  const kind = device.setup.id as Instrument;
  const wasLost = useRef(false);
  useEffect(() => {
    if (state.lost && !wasLost.current && lossTone) signalLost();
    wasLost.current = state.lost;
  }, [state.lost, lossTone]);
  const used = trial.instruments.includes(kind);
  const measures = state.neutral !== null && trial.ended === null;
  useEffect(() => {
    if (measures && !used) record(trial.trialId, "instrument-used", { instrument: kind });
  }, [measures, used, kind, record, trial.trialId]);
  return (
    <Strip aria-label={device.setup.name}>
      <Trace $channels={device.setup.channels.length}>
        <TraceCanvas samples={samples} setup={device.setup} neutral={state.neutral} losses={state.losses} />
      </Trace>
      <div>
        <Word $lost={state.lost} role="status">
          {words(state.connected, state.neutral !== null, state.lost)}
        </Word>
        <TakeNeutral device={device} taken={state.neutral !== null} />
      </div>
      <ProposedMarks
        trial={trial}
        losses={state.losses}
        setup={device.setup}
        faultName={props.faultName}
        record={record}
      />
      <Row $gap={2} style={{ gridColumn: "1 / -1" }}>
        <Button $quiet $small aria-pressed={lossTone} onPress={() => changeSettings({ lossTone: !lossTone })}>
          {lossTone ? "Tone on" : "Tone off"}
        </Button>
        <StandIn device={device} />
        <Quiet>
          {device.setup.where.toLowerCase()}
          {state.battery !== null && ` · battery ${Math.round(100 * state.battery)} %`}
          {state.neutral && ` · ${state.reps} reps seen`}
        </Quiet>
      </Row>
    </Strip>
  );
}

function words(connected: boolean, neutral: boolean, lost: boolean) {
  if (!connected) return "Connection lost";
  if (!neutral) return "No neutral yet";
  return lost ? "Control lost" : "In the band";
}

/** Three quiet seconds; what was not quiet is told. */
function TakeNeutral({ device, taken }: { device: DeviceView; taken: boolean }) {
  const queries = useQueryClient();
  const [waiting, setWaiting] = useState(false);
  const take = useMutation({
    mutationFn: () =>
      got(api.POST("/api/instruments/{device}/neutral", { params: { path: { device: device.device } } })),
    onSettled: () => {
      setWaiting(false);
      void queries.invalidateQueries({ queryKey: keys.instruments });
    },
  });
  const { mutate } = take;
  useEffect(() => {
    if (!waiting) return;
    const timer = setTimeout(mutate, 3000);
    return () => clearTimeout(timer);
  }, [waiting, mutate]);
  const problem = take.error instanceof ProblemError ? take.error : null;
  return (
    <>
      <Button $quiet={taken} $small isDisabled={waiting} onPress={() => setWaiting(true)}>
        {waiting ? "Lie still, 3 s …" : taken ? "Take neutral anew" : "Take neutral"}
      </Button>
      {take.error && !waiting && <Small role="alert">{problem?.message ?? take.error.message}</Small>}
    </>
  );
}
