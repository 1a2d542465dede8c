import { hmac } from "@noble/hashes/hmac.js";
import { sha256 } from "@noble/hashes/sha2.js";
import type { Diary, DiaryDay } from "./diary";
import type { Programme } from "./programme";

// Byte by byte as docs/home.md says; the server's HomePack reads it. src/given/homeCodes.json holds both to the same.

const version = 1;
const untold = 15;
const sealBytes = 16;
/** The most that four codes hold; of a longer log the latest days are given. */
export const bytesMost = 4 * 430;
const firstDay = Date.UTC(2020, 0, 1);

export const bytesOf = (base64: string) => Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));

const dayNumber = (day: string) => Math.round((Date.parse(`${day}T00:00:00Z`) - firstDay) / 86_400_000);
const nibbles = (a: number | null, b: number | null) => ((a ?? untold) << 4) | (b ?? untold);
const clamped = (n: number, most: number) => Math.max(0, Math.min(most, Math.round(n)));

function dayIn(day: string, { pain, morning, stopped, sets }: DiaryDay): number[] {
  const number = dayNumber(day);
  const inOrder = [...sets].sort((a, b) => a.column - b.column || a.set - b.set).slice(0, 255);
  return [
    number >> 8,
    number & 255,
    nibbles(pain, morning),
    stopped ? 1 : 0,
    inOrder.length,
    ...inOrder.flatMap((s) => [s.column, clamped(s.reps, 255), nibbles(s.effort, s.pain)]),
  ];
}

const isTold = (day: DiaryDay) =>
  day.sets.length > 0 || day.pain !== null || day.morning !== null || day.stopped;

/** The log in bytes, sealed; the latest days where not all of them have room. */
export function pack(
  programme: Pick<Programme, "token" | "key">,
  { days: kept }: Pick<Diary, "days">,
): Uint8Array {
  const token = bytesOf(programme.token);
  const days: number[][] = [];
  let room = bytesMost - 1 - token.length - 1 - sealBytes;
  for (const [day, what] of Object.entries(kept).sort(([a], [b]) => (a < b ? 1 : -1))) {
    if (!isTold(what)) continue;
    const bytes = dayIn(day, what);
    if (bytes.length > room || days.length === 255) break;
    room -= bytes.length;
    days.unshift(bytes);
  }
  const log = Uint8Array.from([version, ...token, days.length, ...days.flat()]);
  const seal = hmac(sha256, bytesOf(programme.key), log).slice(0, sealBytes);
  return Uint8Array.from([...log, ...seal]);
}
