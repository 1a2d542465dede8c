import type { CaptureEvent } from "../api/types";
import { Button } from "../controls/Button";
import { Quiet, Row } from "../controls/layout";
import type { discardedOf } from "./discarded";
import type { RecordEvent } from "./useCapture";
import { say } from "../words/say";

/** Trials that do not count, struck through, with a way to count each again. */
export function Discarded(props: {
  list: ReturnType<typeof discardedOf>;
  nameOf: (start: Extract<CaptureEvent, { kind: "trial-started" }>) => string;
  record: RecordEvent;
}) {
  return props.list.map(({ start, discard }) => (
    <Row key={discard.id} $between>
      <Quiet>
        <s>{props.nameOf(start)}</s> {say("capture.does-not-count")}
      </Quiet>
      <Button $quiet $small onPress={() => props.record(discard.trialId, "undone", { undoes: discard.id })}>
        {say("capture.count-it-again")}
      </Button>
    </Row>
  ));
}
