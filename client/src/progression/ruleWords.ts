/** What a rule is about, for people; ids are for records. */
const words: Record<string, string> = {
  "D-REFER": "red flag: stop and send on",
  "D-PAIN-STOP": "pain over the limit in two sets",
  "D-PAIN-NEXT": "pain the day after",
  "D-FAULT-CAP": "faults in more than half the reps",
  "D-FAULT-CUE": "a cue fixes the fault",
  "D-DONE-LESS": "little clean work, twice",
  "D-ONE-SIDE": "one side is behind",
  "D-MASTER": "target met clean",
  "D-CALENDAR": "the map is not there yet",
  "D-BUILD": "all clean, target not reached",
  "D-CONFIRM": "clean once, not twice",
  "D-PLATEAU": "no clear change",
  "D-AWAY": "away from training",
  "D-HOME": "little home work",
  "D-CAP-RISE": "one rung a visit while sore",
  "D-CAP-CHANGE": "one change a visit",
  "D-CAP-HOLD": "holds stay short while sore",
  "D-READY": "ready for one up",
  "D-PROBE": "tried one up",
  "D-CARRY": "clean time kept",
  "D-STAY": "no rule asks for a change",
};

export const ruleWords = (id: string) => words[id] ?? id;
