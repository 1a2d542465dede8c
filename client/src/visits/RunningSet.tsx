import { useState } from "react";
import { v7 as uuid } from "uuid";
import { faultThatMeans, findRung } from "../api/queries";
import type { CaptureEvent, EaseOffer, Library, SessionItem, SessionView, StopTrigger } from "../api/types";
import { actionsOf } from "../capture/actions";
import { LiveTrial } from "../capture/LiveTrial";
import type { LiveTrialState } from "../capture/liveTrial";
import type { RecordEvent } from "../capture/useCapture";
import { doseWords } from "../controls/words";
import { LiveHead } from "../frame/LiveHead";
import { OneChangePanel } from "./OneChangePanel";
import { firstOffer, stopOf } from "./stopRule";
import { TempoGuide } from "./TempoGuide";
import { repsLeft, usedOf, wayWords } from "./sessionWork";
import { say } from "../words/say";

/** One set while it runs: counted as in a screen, paced by its tempo, and made easier when control goes. */
export function RunningSet(props: {
  trial: LiveTrialState;
  item: SessionItem | undefined;
  trials: LiveTrialState[];
  events: CaptureEvent[];
  record: RecordEvent;
  session: SessionView;
  library: Library;
}) {
  const { trial, item, record } = props;
  const { rung } = findRung(props.library, trial.rungId);
  const [asked, setAsked] = useState(false);
  const [passed, setPassed] = useState<string | null>(null);
  const side = item?.sides.find((s) => s.side === trial.askedSide);
  const rush = faultThatMeans(props.library, "rush");
  const stop = stopOf(trial, props.session.stop);
  // A stop that was passed over comes again only with the next rep or the next kind of trouble.
  const moment = `${stop} ${trial.reps.length} ${trial.pain.peak}`;
  const trigger: StopTrigger | null = stop !== null && passed !== moment ? stop : asked ? "asked" : null;
  // What is tried one up is not made easier: it ends.
  const offers = trial.probe ? [] : (side?.eases ?? []);
  const first = trigger
    ? firstOffer(offers, usedOf(props.trials, trial.planItemId ?? "", trial.askedSide), trigger)
    : null;
  const close = () => {
    setAsked(false);
    setPassed(moment);
  };
  const pick = (offer: EaseOffer) => {
    if (!trigger) return;
    if (offer.change === "cue") actionsOf(trial, props.events, record).cue(trigger);
    else easeInto(offer, trial, trigger, record);
    close();
  };
  const dose = item?.item.doses.find((d) => d.side === trial.askedSide)?.dose;
  return (
    <div>
      <LiveHead
        title={rung.name}
        asked={
          <>
            {trial.probe
              ? say("visits.tried-one-up")
              : say("visits.set-set-of-sets", { set: trial.set, sets: dose?.sets ?? trial.set })}
            {wayWords(rung, trial.variant) && `, ${wayWords(rung, trial.variant)}`} ·{" "}
            {doseWords(trial.target)}
            {trial.eased.length > 0 && ` ${say("visits.made-easier")}`}
            {trial.range?.share != null &&
              ` ${say("visits.share-of-the-way", { share: Math.round(trial.range.share * 100) })}`}
          </>
        }
      />
      <LiveTrial
        trial={trial}
        events={props.events}
        record={record}
        others={props.trials.filter((t) => t.trialId !== trial.trialId)}
        askedSeconds={
          side && side.rep.out + side.rep.back > 0
            ? side.rep.out + trial.target.hold + side.rep.back + side.rep.check
            : 0
        }
        note={item && !trial.probe ? say("visits.cue-cue", { cue: item.item.cue }) : undefined}
        guide={
          side &&
          side.rep.out + trial.target.hold + side.rep.back > 0 &&
          trial.rungId === item?.item.rungId && (
            <TempoGuide
              trial={trial}
              guide={{ ...side.rep, hold: trial.target.hold }}
              onRushed={(at) => rush && record(trial.trialId, "fault-marked", { fault: rush, at })}
            />
          )
        }
        moreKeys={
          trigger
            ? [
                ...(first
                  ? [{ key: "1", words: say("visits.take-the-change"), run: () => pick(first) }]
                  : []),
                { key: "0", words: say("visits.go-on-as-it-is"), run: close },
              ]
            : undefined
        }
        onEasier={offers.length > 0 ? () => setAsked(true) : null}
        instead={
          trigger && (
            <OneChangePanel
              trigger={trigger}
              pain={trial.pain}
              first={first}
              others={offers.filter((o) => o !== first)}
              onPick={pick}
              onStop={() => {
                record(trial.trialId, "trial-ended", { reason: reasonOf(trigger) });
                close();
              }}
              onGoOn={close}
            />
          )
        }
      />
    </div>
  );
}

const reasonOf = (trigger: StopTrigger) =>
  trigger === "pain" ? "pain" : trigger === "asked" ? "stopped" : "breaking-fault";

/** Ends the set as it was asked for and goes on at once in the easier way, with the reps that are left. */
function easeInto(offer: EaseOffer, trial: LiveTrialState, trigger: StopTrigger, record: RecordEvent) {
  record(trial.trialId, "trial-ended", { reason: reasonOf(trigger) });
  const same = offer.rungId === trial.rungId;
  const next = uuid();
  record(next, "trial-started", {
    rungId: offer.rungId,
    side: offer.side,
    askedSide: trial.askedSide,
    purpose: "session",
    target: {
      ...offer.dose,
      reps: repsLeft(trial, offer),
      sets: 1,
      hold: same ? Math.min(offer.dose.hold, trial.target.hold) : offer.dose.hold,
      range: offer.share ?? (same ? trial.target.range : 1),
      fewer: 0,
    },
    planItemId: trial.planItemId ?? undefined,
    set: trial.set,
    variant: same ? (trial.variant ?? undefined) : undefined,
    eased: [...new Set([...trial.eased, offer.change])],
    trigger,
    share: offer.share ?? (same ? (trial.range?.share ?? undefined) : undefined),
  });
}
