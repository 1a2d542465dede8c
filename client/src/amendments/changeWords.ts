import type { Library } from "../api/types";
import { birthWords, momentWords } from "../api/clinicTime";
import { contactWords, headingWords } from "../frame/fieldWords";
import { say } from "../words/say";

const names: Record<string, string> = {
  name: say("amendments.name"),
  birthDate: say("amendments.birth-date"),
  sex: say("amendments.sex"),
  heightCm: say("amendments.height"),
  massKg: say("amendments.mass"),
  complaint: say("amendments.complaint"),
  "pain.now": say("amendments.pain-now"),
  "pain.worst": say("amendments.pain-worst"),
  "pain.usual": say("amendments.pain-usual"),
  painNow: say("amendments.pain-now"),
  usualPain: say("amendments.pain-usual"),
  nextDayPain: say("amendments.next-morning"),
  nextMorning: say("amendments.next-morning"),
  pain: say("amendments.pain-doing-it"),
  settleHours: say("amendments.settles-in-hours"),
  settledHours: say("amendments.settles-in-hours"),
  settled: say("amendments.settled"),
  wakesAtNight: say("amendments.wakes-at-night"),
  precautions: say("amendments.contraindications"),
  minutesPerDay: say("amendments.minutes-a-day"),
  daysPerWeek: say("amendments.days-a-week"),
  policyId: say("amendments.policy"),
  goals: say("amendments.goals"),
  equipment: say("amendments.equipment"),
  restingShape: say("amendments.resting-shape"),
  strategy: say("amendments.strategy"),
  activation: say("amendments.activation"),
  dangerSigns: say("amendments.red-flags"),
  flagsAsked: say("amendments.red-flags-asked"),
  lastTrained: say("amendments.last-trained"),
  leg: say("amendments.leg-pain"),
  "leg.left": say("amendments.leg-pain-left"),
  "leg.right": say("amendments.leg-pain-right"),
  legFurther: say("amendments.further-down"),
  soreness: say("amendments.soreness"),
  home: say("amendments.training-at-home"),
  done: say("amendments.reps-at-home"),
  remark: say("amendments.remark"),
  activities: say("amendments.activities"),
  disability: say("amendments.disability"),
  kept: say("amendments.kept"),
  counts: say("amendments.counts"),
  side: say("amendments.side"),
  reps: say("amendments.reps"),
  cleanReps: say("amendments.clean-reps"),
  cleanSeconds: say("amendments.clean-seconds"),
  painPeak: say("amendments.pain-in-the-set"),
  painAfter: say("amendments.pain-after"),
  ended: say("amendments.ended"),
  faults: say("amendments.faults"),
  value: say("amendments.value"),
  reason: say("amendments.reason"),
  number: say("amendments.client-number"),
  clientNumber: say("amendments.client-number"),
  phone: contactWords.phone,
  email: contactWords.email,
  address: contactWords.address,
  guardian: contactWords.guardian,
  "guardian.name": contactWords.guardian,
  "guardian.relation": contactWords.relation,
  "guardian.phone": contactWords.guardianPhone,
  plannedAt: say("amendments.planned-at"),
  "text.headings": say("amendments.note-headings"),
  "text.free": say("amendments.note-free"),
  "text.subjective": headingWords.subjective,
  "text.objective": headingWords.objective,
  "text.assessment": headingWords.assessment,
  "text.plan": headingWords.plan,
  signedBy: say("amendments.signed-by"),
  areas: say("amendments.chart-areas"),
  answers: say("amendments.chart-answers"),
};

/** A field as a practitioner calls it; one without words stands as the record calls it. */
export const fieldWords = (name: string) => names[name] ?? name;

/** An id of the library as it is called there. */
function named(id: string, library: Library): string {
  const known =
    library.precautions.find((p) => p.id === id)?.name ??
    library.dangerSigns.find((s) => s.id === id)?.words ??
    library.goals.find((g) => g.id === id)?.name ??
    library.equipment.find((e) => e.id === id)?.name ??
    library.policies.find((p) => p.id === id)?.name ??
    library.faults.find((f) => f.code === id)?.name;
  return known ?? (/^[a-z]+(-[a-z]+)+$/.test(id) ? id.replaceAll("-", " ") : id);
}

const isDay = (text: string) => /^\d{4}-\d\d-\d\d$/.test(text);
const isMoment = (text: string) => /^\d{4}-\d\d-\d\dT\d\d:\d\d/.test(text);

/** Which corners a drawn area has, and which exercise of a plan it was, says nothing to anybody. */
const unsaid = ["planItemId", "outline"];

/** A value in words: open, yes or no, a number, a name; of several each. */
export function valueWords(value: unknown, library: Library): string {
  if (value === null || value === undefined) return say("amendments.not-asked");
  if (typeof value === "boolean") return value ? say("amendments.yes") : say("amendments.no");
  if (typeof value === "number") return `${value}`;
  if (typeof value === "string")
    return isDay(value) ? birthWords(value) : isMoment(value) ? momentWords(value) : named(value, library);
  if (Array.isArray(value)) {
    return value.length === 0 ? say("amendments.none") : value.map((v) => valueWords(v, library)).join(", ");
  }
  return Object.entries(value as Record<string, unknown>)
    .filter(
      ([name, part]) => part !== null && !unsaid.includes(name) && !(name === "side" && part === "both"),
    )
    .map(([, part]) => valueWords(part, library))
    .join(" ");
}
