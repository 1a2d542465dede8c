import { v7 as uuid } from "uuid";
import { useLibrary } from "../api/queries";
import type { CaptureEvent } from "../api/types";
import { effective, type LiveTrialState } from "../capture/liveTrial";
import type { RecordEvent } from "../capture/useCapture";
import { useReport } from "./useReport";
import { Button } from "../controls/Button";
import { Note, ProblemNote, Row, Stack } from "../controls/layout";
import { say } from "../words/say";

/** The last set that was stopped for something that has to be answered before anything else is tried; null when nothing is open. */
export function openWorry(trials: LiveTrialState[], events: CaptureEvent[]): LiveTrialState | null {
  const last = [...trials].sort((a, b) => a.startedAt - b.startedAt).findLast((t) => t.ended !== null);
  if (!last || (last.worry !== "down-the-leg" && last.worry !== "numb-or-weak")) return null;
  const since = effective(events).filter((e) => Date.parse(e.at) >= (last.endedAt ?? 0));
  if (last.worry === "down-the-leg" && since.some((e) => e.kind === "leg-asked")) return null;
  return last;
}

/** Pain that went down the leg is asked about again after ten minutes; numbness and weakness are red flags. */
export function WorryQuestion(props: {
  trial: LiveTrialState;
  episodeId: string;
  record: RecordEvent;
  onPassed: () => void;
}) {
  const { trial, record } = props;
  const { data: library } = useLibrary();
  const report = useReport(props.episodeId);
  const flags = (library?.dangerSigns ?? []).filter((f) => f.worry === trial.worry).map((f) => f.id);
  if (trial.worry === "numb-or-weak") {
    return (
      <Stack $gap={4} role="group" aria-label={say("frame.numbness-or-weakness")}>
        <h1>{say("frame.numbness-or-weakness-examine-now")}</h1>
        <p>{say("frame.a-red-flag-nothing-else")}</p>
        <ProblemNote error={report.error} />
        <Row>
          <Button isDisabled={report.isPending || flags.length === 0} onPress={() => report.mutate(flags)}>
            {say("frame.record-the-red-flag")}
          </Button>
          <Button $quiet onPress={props.onPassed}>
            {say("frame.examined-it-was-neither")}
          </Button>
        </Row>
      </Stack>
    );
  }
  const side = (trial.worrySide ?? trial.side) === "right" ? "right" : "left";
  const answer = (leg: "left" | "right", back: boolean) => record(uuid(), "leg-asked", { side: leg, back });
  return (
    <Stack $gap={4} role="group" aria-label={say("frame.pain-down-the-leg")}>
      <h1>{say("frame.pain-moved-further-down-the", { side })}</h1>
      <p>{say("frame.that-exercise-ends-for-today")}</p>
      <Row>
        <Button onPress={() => answer(side, true)}>{say("frame.back-where-it-was")}</Button>
        <Button $quiet onPress={() => answer(side, false)}>
          {say("frame.it-stayed-examine")}
        </Button>
      </Row>
      <Note>{say("frame.nothing-is-raised-for-two")}</Note>
    </Stack>
  );
}
