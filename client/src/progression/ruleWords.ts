import { say } from "../words/say";
/** What a rule is about, for people; ids are for records. */
const words: Record<string, string> = {
  "D-REFER": say("progression.red-flag-stop-and-send"),
  "D-PAIN-STOP": say("progression.pain-over-the-limit-in"),
  "D-PAIN-NEXT": say("progression.pain-the-day-after"),
  "D-FAULT-CAP": say("progression.faults-in-more-than-half"),
  "D-FAULT-CUE": say("progression.a-cue-fixes-the-fault"),
  "D-DONE-LESS": say("progression.little-clean-work-twice"),
  "D-ONE-SIDE": say("progression.one-side-is-behind"),
  "D-MASTER": say("progression.target-met-clean"),
  "D-CALENDAR": say("progression.the-map-is-not-there"),
  "D-BUILD": say("progression.all-clean-target-not-reached"),
  "D-CONFIRM": say("progression.clean-once-not-twice"),
  "D-PLATEAU": say("progression.no-clear-change"),
  "D-AWAY": say("progression.away-from-training"),
  "D-HOME": say("progression.little-home-work"),
  "D-CAP-RISE": say("progression.one-rung-a-visit-while"),
  "D-CAP-CHANGE": say("progression.one-change-a-visit"),
  "D-CAP-HOLD": say("progression.holds-stay-short-while-sore"),
  "D-READY": say("progression.ready-for-one-up"),
  "D-PROBE": say("progression.tried-one-up"),
  "D-CARRY": say("progression.clean-time-kept"),
  "D-STAY": say("progression.no-rule-asks-for-a"),
};

export const ruleWords = (id: string) => words[id] ?? id;
