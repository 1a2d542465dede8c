import { Disclosure, DisclosurePanel } from "react-aria-components";
import { findRung } from "../api/queries";
import type { CaptureEvent, Library } from "../api/types";
import { cleanReps, type LiveTrialState } from "../capture/liveTrial";
import { Discarded } from "../capture/Discarded";
import { discardedOf } from "../capture/discarded";
import type { RecordEvent } from "../capture/useCapture";
import { Button } from "../controls/Button";
import { Quiet, Row, Small, Stack } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { useVisit } from "../frame/useVisit";
import { Measured } from "../frame/Measured";

interface Props {
  trials: LiveTrialState[];
  events: CaptureEvent[];
  record: RecordEvent;
  library: Library;
}

/** What was logged wrong: a set that was the other side's, or that does not count. Later decisions say if that would change them. */
export function CorrectSets(props: Props) {
  const { trials, record, library } = props;
  const { visitId } = useVisit();
  const done = trials.filter((t) => t.ended !== null).sort((a, b) => a.startedAt - b.startedAt);
  const discarded = discardedOf(props.events, "session");
  if (done.length + discarded.length === 0) return null;
  return (
    <Disclosure>
      <Button $quiet $small slot="trigger">
        Put a set right, or see what was measured
      </Button>
      <DisclosurePanel>
        <Stack $gap={2} style={{ paddingTop: 8 }}>
          <Small>
            Nothing is erased: the log keeps what was first written. What was decided stays, and says if it
            would now differ.
          </Small>
          {done.map((t) => {
            const { rung } = findRung(library, t.rungId);
            const words = `${rung.name}, ${t.side}, ${t.probe ? "tried one up" : `set ${t.set}`}`;
            return (
              <Row key={t.trialId} $between>
                <Stack $gap={1}>
                  <span>
                    {rung.name} {t.side !== "both" && <SideTag side={t.side} />}{" "}
                    <Quiet>
                      {t.probe ? "tried one up" : `set ${t.set}`} · {cleanReps(t)} of {t.reps.length} clean
                    </Quiet>
                  </span>
                  <Measured visitId={visitId} trialId={t.trialId} photos={t.photos.map((p) => p.id)} />
                </Stack>
                <Row $gap={2}>
                  {t.side !== "both" && (
                    <Button
                      $quiet
                      $small
                      aria-label={`${words}: it was the other side`}
                      onPress={() =>
                        record(t.trialId, "side-corrected", { side: t.side === "left" ? "right" : "left" })
                      }
                    >
                      Other side
                    </Button>
                  )}
                  <Button
                    $quiet
                    $small
                    aria-label={`${words}: does not count`}
                    onPress={() => record(t.trialId, "trial-discarded")}
                  >
                    Does not count
                  </Button>
                </Row>
              </Row>
            );
          })}
          <Discarded
            list={discarded}
            nameOf={(s) => `${findRung(library, s.rungId).rung.name}, ${s.side}, set ${s.set ?? 1}`}
            record={record}
          />
        </Stack>
      </DisclosurePanel>
    </Disclosure>
  );
}
