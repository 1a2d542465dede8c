import { useState } from "react";
import type { BareTrace } from "../api/types";
import { Button } from "../controls/Button";
import { NumberField } from "../controls/fields";
import { Row, Small, Stack } from "../controls/layout";
import { TraceChart } from "../figure/TraceChart";
import { say } from "../words/say";

/** A course without its band: when was control first lost, or did it hold? */
export function RateTrace(props: {
  trace: BareTrace;
  busy: boolean;
  /** None: it held. */
  onRate: (lost: number | null) => void;
}) {
  const { trace } = props;
  const [lost, setLost] = useState<number | null>(null);
  return (
    <Stack $gap={4}>
      <p>{say("practice.when-was-control-lost")}</p>
      <TraceChart
        view={{
          setup: trace.setup,
          from: 0,
          shown: trace.seconds,
          shapes: trace.shapes,
          reading: { neutral: null, losses: [], reps: [] },
        }}
        marks={lost === null ? [] : [{ at: lost, words: say("practice.lost-here"), told: true }]}
        label={say("practice.a-course-of", {
          channels: trace.setup.channels.map((c) => c.name).join(", "),
          seconds: trace.seconds,
        })}
        tick={(at) => say("practice.at-second", { at })}
        onPick={(at) => setLost(Math.round(at * 10) / 10)}
      />
      <Row $gap={4} style={{ alignItems: "flex-end" }}>
        <NumberField
          label={say("practice.lost-at-seconds")}
          value={lost}
          onChange={setLost}
          min={0}
          max={Math.floor(trace.seconds * 10) / 10}
          step={0.1}
        />
        <Button isDisabled={lost === null || props.busy} onPress={() => props.onRate(lost)}>
          {say("practice.it-was-lost-there")}
        </Button>
        <Button $quiet isDisabled={props.busy} onPress={() => props.onRate(null)}>
          {say("practice.it-held-whole")}
        </Button>
      </Row>
      <Small>{say("practice.no-band-no-name")}</Small>
    </Stack>
  );
}
