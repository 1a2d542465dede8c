import { useState } from "react";
import type { EndReason, Worry } from "../api/types";
import { Button } from "../controls/Button";
import { Scale } from "../controls/fields";
import { Note, Stack } from "../controls/layout";
import { useTakeFocus } from "../controls/useTakeFocus";
import type { Actions } from "./actions";
import type { LiveTrialState } from "./liveTrial";
import { say } from "../words/say";

const worries: { worry: Worry; words: string; reason: EndReason }[] = [
  { worry: "pain", words: say("capture.pain"), reason: "pain" },
  { worry: "down-the-leg", words: say("capture.further-down-the-leg"), reason: "pain" },
  { worry: "numb-or-weak", words: say("capture.numbness-or-weakness"), reason: "stopped" },
  { worry: "dizzy-or-unwell", words: say("capture.dizzy-or-unwell"), reason: "stopped" },
  { worry: "clients-wish", words: say("capture.the-clients-wish"), reason: "stopped" },
];

/** Asked at once when a set is stopped: what it was, in one tap each. The set ends with the answer. */
export function StopWorry(props: { trial: LiveTrialState; actions: Actions; onBack: () => void }) {
  const { trial, actions } = props;
  const first = useTakeFocus<HTMLButtonElement>();
  const [asking, setAsking] = useState<"pain" | "leg" | null>(null);
  const end = (worry: Worry, reason: EndReason, side = trial.side) => {
    actions.worry(worry, side === "both" ? undefined : side);
    actions.end(reason);
  };
  // Pain goes down either leg, whichever side works.
  if (asking === "leg") {
    return (
      <Stack $gap={3}>
        <h2>{say("capture.which-leg")}</h2>
        {(["left", "right"] as const).map((side) => (
          <Button key={side} $quiet onPress={() => end("down-the-leg", "pain", side)}>
            {side === "left" ? say("capture.left-leg") : say("capture.right-leg")}
          </Button>
        ))}
        <Button $quiet $small onPress={() => setAsking(null)}>
          {say("capture.it-was-something-else")}
        </Button>
      </Stack>
    );
  }
  if (asking === "pain") {
    return (
      <Stack $gap={3}>
        <h2>{say("capture.how-strong-is-the-pain")}</h2>
        <Scale
          label={say("capture.pain-now-0-to-10")}
          value={trial.pain.last}
          onChange={(value) => {
            actions.pain(value);
            end("pain", "pain");
          }}
        />
        <Button $quiet $small onPress={() => setAsking(null)}>
          {say("capture.it-was-something-else")}
        </Button>
      </Stack>
    );
  }
  return (
    <Stack $gap={3}>
      <h2>{say("capture.what-was-it")}</h2>
      {worries.map((w, i) => (
        <Button
          key={w.worry}
          ref={i === 0 ? first : undefined}
          $quiet
          onPress={() =>
            w.worry === "pain"
              ? setAsking("pain")
              : w.worry === "down-the-leg"
                ? setAsking("leg")
                : end(w.worry, w.reason)
          }
        >
          {w.words}
        </Button>
      ))}
      <Note>{say("capture.chest-pain-fainting-or-sudden")}</Note>
      <Button $quiet $small onPress={props.onBack}>
        {say("capture.it-goes-on")}
      </Button>
    </Stack>
  );
}
