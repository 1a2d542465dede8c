import { getLocalTimeZone, parseAbsolute, parseDate, toCalendarDate } from "@internationalized/date";
import type { ClinicTime } from "./types";

let clinic: ClinicTime = { zone: getLocalTimeZone(), dateOrder: "day-month-year", weekStart: "monday" };

/** What the server says of the clinic; a tablet may lie in another zone. */
export const keepClinicTime = (time: ClinicTime) => {
  clinic = time;
};

export const clinicTime = () => clinic;

/** English in the clinic's order of dates. */
export const dateLocale = () =>
  ({ "day-month-year": "en-GB", "month-day-year": "en-US", "year-month-day": "en-CA" })[clinic.dateOrder];

const dayOnly = (text: string) => text.length === 10;

/** In the clinic's zone; a day without a time is that day everywhere. */
const written = (text: string, options: Intl.DateTimeFormatOptions, locale = dateLocale()) =>
  new Intl.DateTimeFormat(locale, {
    timeZone: dayOnly(text) ? "UTC" : clinic.zone,
    ...options,
  }).format(new Date(text));

/** Day of an instant at the clinic, or a day, for people: "Sat 28 Nov", "Sat, Nov 28". */
export const dayWords = (text: string) => written(text, { weekday: "short", day: "numeric", month: "short" });

export const longDayWords = (text: string) =>
  written(text, { weekday: "long", day: "numeric", month: "long" });

export const shortDayWords = (text: string) => written(text, { day: "numeric", month: "short" });

/** A day with its year: "17 May 1984". */
export const birthWords = (day: string) => written(day, { day: "numeric", month: "short", year: "numeric" });

/** "Sat 28": where the month is plain. */
export const weekdayWords = (day: string) =>
  `${written(day, { weekday: "short" })} ${Number(day.slice(8, 10))}`;

/** Time of an instant at the clinic, "09:30". */
export const timeWords = (text: string) =>
  written(text, { hour: "2-digit", minute: "2-digit", hourCycle: "h23" }, "en-GB");

/** "28 Nov, 02:30" */
export const momentWords = (at: string) => `${shortDayWords(at)}, ${timeWords(at)}`;

/** Hours since midnight on the clinic's wall, with their fraction. */
export function wallHours(at: string) {
  const [hour = 0, minute = 0] = timeWords(at).split(":").map(Number);
  return hour + minute / 60;
}

/** Day of an instant at the clinic: "2026-11-28". */
export const dayOf = (at: string) => toCalendarDate(parseAbsolute(at, clinic.zone)).toString();

export const today = () => dayOf(new Date().toISOString());

/** @param day "2026-11-28" */
export const addDays = (day: string, n: number) => parseDate(day).add({ days: n }).toString();

/** Whole days from one day to another. */
export const daysBetween = (from: string, to: string) => parseDate(to).compare(parseDate(from));
