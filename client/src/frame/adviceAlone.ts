import type { CheckIn, EpisodeView, LegReach, LegReport, Policy, SessionAdvice } from "../api/types";
import { say } from "../words/say";

/** How far down a leg, nearer first. */
const reaches: (LegReach | null | undefined)[] = ["none", "buttock", "thigh", "below-knee"];

/** What the last check-in before a visit said of the legs; null: nobody was asked. */
export const legBefore = (episode: EpisodeView, visitId: string): LegReport | null => {
  const at = episode.visits.findIndex((visit) => visit.id === visitId);
  return episode.visits.slice(0, at).findLast((visit) => visit.checkIn?.leg)?.checkIn?.leg ?? null;
};

function further(before: LegReport | null, now: LegReport | null | undefined) {
  return (["left", "right"] as const).some(
    (side) => reaches.indexOf(now?.[side]) > Math.max(0, reaches.indexOf(before?.[side])),
  );
}

/**
 * What is to be minded before the first set where nobody has weighed the answers: never less careful than the server will be
 * (SessionAdvice.cs; both are held to tests/advice). Whatever is worse than calm halves the session; too much pain, or pain
 * further down a leg, ends it.
 * @param unasked what holds whatever is answered
 */
export function adviceAlone(told: {
  unasked: SessionAdvice | null;
  checkIn: CheckIn;
  legBefore: LegReport | null;
  policy: Policy | undefined;
}): SessionAdvice | null {
  const { unasked, checkIn, policy } = told;
  if (!unasked) return null;
  const now = checkIn.painNow ?? null;
  // What it is compared with may be lower once today's usual pain is counted in, and is never below it.
  const usual = Math.min(unasked.reference.value, checkIn.usualPain ?? unasked.reference.value);
  const spreads = further(told.legBefore, checkIn.leg);
  // Of a policy that is not known here any pain is too much.
  const tooMuch = now !== null && now >= (policy?.judgement?.noTrainingFrom ?? 0);
  const stirred =
    (now !== null && now > usual) ||
    (checkIn.nextDayPain ?? 0) > usual ||
    checkIn.settled === "next-morning" ||
    checkIn.settled === "longer-than-a-day" ||
    checkIn.wakesAtNight === true;
  const noTraining = tooMuch || spreads || unasked.noTraining;
  return {
    ...unasked,
    noTraining,
    half: !noTraining && (stirred || unasked.half),
    lines: [
      ...(tooMuch ? [line(say("frame.too-much-pain", { pain: now }))] : []),
      ...(spreads ? [line(say("frame.further-down-the-leg"))] : []),
      line(say("frame.weighed-later")),
      ...unasked.lines.filter(({ ruleId }) => !answered(checkIn).includes(ruleId)),
    ],
  };
}

/** What was only asked for. What nobody has answered is still to be asked. */
const answered = ({ painNow, home }: CheckIn) => [
  ...(painNow === null || painNow === undefined ? [] : ["D-PAIN-NOW"]),
  ...(home ? ["D-HOME"] : []),
];

const line = (words: string) => ({ ruleId: "D-ALONE", words });
