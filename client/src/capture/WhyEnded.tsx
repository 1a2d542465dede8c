import type { EndReason } from "../api/types";
import { Button } from "../controls/Button";
import { Stack } from "../controls/layout";
import { useTakeFocus } from "../controls/useTakeFocus";

const reasons: { reason: EndReason; words: string }[] = [
  { reason: "breaking-fault", words: "The trunk gave way" },
  { reason: "pain", words: "Pain" },
  { reason: "fatigue", words: "Tired" },
  { reason: "stopped", words: "Stopped for another reason" },
];

/** Asked when a trial ends before what was asked is done. */
export function WhyEnded(props: { onEnd: (reason: EndReason) => void; onBack: () => void }) {
  const first = useTakeFocus<HTMLButtonElement>();
  return (
    <Stack $gap={3}>
      <h2>Why did it end?</h2>
      {reasons.map((r, i) => (
        <Button key={r.reason} ref={i === 0 ? first : undefined} $quiet onPress={() => props.onEnd(r.reason)}>
          {r.words}
        </Button>
      ))}
      <Button $quiet $small onPress={props.onBack}>
        It goes on
      </Button>
    </Stack>
  );
}
