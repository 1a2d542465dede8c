import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import styled from "styled-components";
import { api, got, ProblemError } from "../api/client";
import { keys } from "../api/queries";
import type { DeviceView } from "../api/types";
import type { LiveTrialState } from "./liveTrial";
import type { RecordEvent } from "./useCapture";
import { Button } from "../controls/Button";
import { Small, Stack } from "../controls/layout";
import { ProposedMarks } from "./ProposedMarks";
import type { Watched } from "./useWatched";
import { say } from "../words/say";

const Word = styled.strong<{ $lost: boolean }>`
  padding: ${({ theme }) => theme.space(2)} ${({ theme }) => theme.space(3)};
  border-radius: 3px;
  font: 800 1.5rem/1.1 ${({ theme }) => theme.font.display};
  background: ${({ theme, $lost }) => ($lost ? theme.colour.clay : theme.colour.wash)};
  color: ${({ theme, $lost }) => ($lost ? theme.colour.sheet : theme.colour.ink)};
`;

/** What the watched instrument says, in big words, with its neutral and the marks it proposes. */
export function InstrumentControls(props: {
  watched: Watched;
  trial: LiveTrialState;
  record: RecordEvent;
  faultName: (code: string) => string;
  askedSeconds: number | null;
}) {
  const { name, device, state } = props.watched;
  if (!device) return <Small role="status">{say("capture.name-is-not-there-capture", { name })}</Small>;
  return (
    <Stack $gap={2} role="group" aria-label={device.setup.name}>
      <Word $lost={state.lost} role="status">
        {words(state.connected, state.neutral !== null, state.lost)}
      </Word>
      <ProposedMarks
        trial={props.trial}
        losses={state.losses}
        reps={state.reps}
        askedSeconds={props.askedSeconds}
        setup={device.setup}
        faultName={props.faultName}
        record={props.record}
      />
      <TakeNeutral device={device} taken={state.neutral !== null} />
    </Stack>
  );
}

function words(connected: boolean, neutral: boolean, lost: boolean) {
  if (!connected) return say("capture.connection-lost");
  if (!neutral) return say("capture.no-neutral-yet");
  return lost ? say("capture.control-lost") : say("capture.in-the-band");
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
        {waiting
          ? say("capture.lie-still-3-s")
          : taken
            ? say("capture.take-neutral-anew")
            : say("capture.take-neutral")}
      </Button>
      {take.error && !waiting && (
        <Small role="alert">{problem?.fields[0]?.message ?? take.error.message}</Small>
      )}
    </>
  );
}
