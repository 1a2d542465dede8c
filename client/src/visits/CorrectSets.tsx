import { Disclosure, DisclosurePanel } from "react-aria-components";
import { dayOf, today } from "../api/clinicTime";
import { findRung } from "../api/queries";
import { askReason } from "../api/reasoned";
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
import { say } from "../words/say";

interface Props {
  trials: LiveTrialState[];
  events: CaptureEvent[];
  record: RecordEvent;
  library: Library;
}

/** What was logged wrong: a set that was the other side's, or that does not count. Later decisions say if that would change them. */
export function CorrectSets(props: Props) {
  const { trials, library } = props;
  const { visitId, visit } = useVisit();
  // Something may rest on it: why is kept with the set.
  const settled = visit !== undefined && (visit.state === "done" || dayOf(visit.plannedAt) < today());
  const record: RecordEvent = (trialId, kind, ...fields) => {
    const change = () => props.record(trialId, kind, ...fields);
    if (!settled) return change();
    void askReason(say("visits.something-rests-on-it")).then((reason) => {
      if (reason === null) return;
      props.record(trialId, "trial-amended", { reason });
      change();
    });
  };
  const done = trials.filter((t) => t.ended !== null).sort((a, b) => a.startedAt - b.startedAt);
  const discarded = discardedOf(props.events, "session");
  if (done.length + discarded.length === 0) return null;
  return (
    <Disclosure>
      <Button $quiet $small slot="trigger">
        {say("visits.put-a-set-right-or")}
      </Button>
      <DisclosurePanel>
        <Stack $gap={2} style={{ paddingTop: 8 }}>
          <Small>{say("visits.nothing-is-erased-the-log")}</Small>
          {done.map((t) => {
            const { rung } = findRung(library, t.rungId);
            const words = `${rung.name}, ${t.side}, ${t.probe ? say("visits.tried-one-up") : say("visits.set-set", { set: t.set })}`;
            return (
              <Row key={t.trialId} $between>
                <Stack $gap={1}>
                  <span>
                    {rung.name} {t.side !== "both" && <SideTag side={t.side} />}{" "}
                    <Quiet>
                      {say("visits.probe-t-of-reps-clean", {
                        probe: t.probe ? say("visits.tried-one-up") : say("visits.set-set", { set: t.set }),
                        t: cleanReps(t),
                        reps: t.reps.length,
                      })}
                    </Quiet>
                  </span>
                  <Measured visitId={visitId} trialId={t.trialId} photos={t.photos.map((p) => p.id)} />
                </Stack>
                <Row $gap={2}>
                  {t.side !== "both" && (
                    <Button
                      $quiet
                      $small
                      aria-label={say("visits.words-it-was-the-other", { words })}
                      onPress={() =>
                        record(t.trialId, "side-corrected", { side: t.side === "left" ? "right" : "left" })
                      }
                    >
                      {say("visits.other-side")}
                    </Button>
                  )}
                  <Button
                    $quiet
                    $small
                    aria-label={say("visits.words-does-not-count", { words })}
                    onPress={() => record(t.trialId, "trial-discarded")}
                  >
                    {say("visits.does-not-count")}
                  </Button>
                </Row>
              </Row>
            );
          })}
          <Discarded
            list={discarded}
            nameOf={(s) =>
              say("visits.rung-side-set-set", {
                rung: findRung(library, s.rungId).rung.name,
                side: s.side,
                set: s.set ?? 1,
              })
            }
            record={record}
          />
        </Stack>
      </DisclosurePanel>
    </Disclosure>
  );
}
