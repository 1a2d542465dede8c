import type { ClinicTime } from "../api/types";
import type { PersonUnits } from "../api/personUnits";
import { say } from "../words/say";

/** Ways in which dates, weeks and measures are read, for a clinic and for an account. */
export const dateOrders: { value: ClinicTime["dateOrder"]; label: string }[] = [
  { value: "day-month-year", label: say("controls.29-november-2026") },
  { value: "month-day-year", label: say("controls.november-29-2026") },
  { value: "year-month-day", label: "2026-11-29" },
];

export const weekStarts: { value: ClinicTime["weekStart"]; label: string }[] = [
  { value: "monday", label: say("controls.monday") },
  { value: "sunday", label: say("controls.sunday") },
  { value: "saturday", label: say("controls.saturday") },
];

export const unitChoices: { value: PersonUnits; label: string }[] = [
  { value: "kg-cm", label: say("controls.units-kg-cm") },
  { value: "lb-ft-in", label: say("controls.units-lb-ft-in") },
];
