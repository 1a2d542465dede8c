import type { EndReason } from "../api/types";
import { Button } from "../controls/Button";
import { Stack } from "../controls/layout";
import { useTakeFocus } from "../controls/useTakeFocus";
import { say } from "../words/say";

const reasons: { reason: EndReason; words: string }[] = [
  { reason: "breaking-fault", words: say("capture.the-trunk-gave-way") },
  { reason: "pain", words: say("capture.pain") },
  { reason: "fatigue", words: say("capture.tired") },
  { reason: "stopped", words: say("capture.stopped-for-another-reason") },
];

/** Asked when a trial ends before what was asked is done. */
export function WhyEnded(props: { onEnd: (reason: EndReason) => void; onBack: () => void }) {
  const first = useTakeFocus<HTMLButtonElement>();
  return (
    <Stack $gap={3}>
      <h2>{say("capture.why-did-it-end")}</h2>
      {reasons.map((r, i) => (
        <Button key={r.reason} ref={i === 0 ? first : undefined} $quiet onPress={() => props.onEnd(r.reason)}>
          {r.words}
        </Button>
      ))}
      <Button $quiet $small onPress={props.onBack}>
        {say("capture.it-goes-on")}
      </Button>
    </Stack>
  );
}
