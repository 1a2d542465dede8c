import type { ClinicTime } from "./types";

export type PersonUnits = NonNullable<ClinicTime["units"]>;

// International yard and pound agreement, 1959: both are exact.
const kgOfPound = 0.45359237;
const cmOfInch = 2.54;
const inchesOfFoot = 12;

/** As it is kept: a tenth of a kilogram or centimetre. */
const kept = (n: number) => Math.round(n * 10) / 10;

/** To the whole pound: a pound is more than what is kept is told to, so that it comes back as it was written. */
export const poundsOf = (kg: number) => Math.round(kg / kgOfPound);
export const kgOf = (pounds: number) => kept(pounds * kgOfPound);

/** Of a weight in the hands, which has tenths. */
export const poundsHeld = (kg: number) => kept(kg / kgOfPound);

/** To the whole inch. */
export function feetOf(cm: number): { feet: number; inches: number } {
  const inches = Math.round(cm / cmOfInch);
  return { feet: Math.floor(inches / inchesOfFoot), inches: inches % inchesOfFoot };
}

export const cmOf = ({ feet, inches }: { feet: number; inches: number }) =>
  kept((feet * inchesOfFoot + inches) * cmOfInch);
