import type { ReactNode } from "react";

/** What stands in a sentence: a number, a text, something drawn, or how a marked part of it is drawn. */
export type Value = ReactNode | ((chunks: ReactNode[]) => ReactNode);

export type Values<Name extends string> = Record<Name, Value>;

/** The same values where a sentence is wanted as text alone. */
export type Plain<Asked extends unknown[]> = {
  [Place in keyof Asked]: { [Name in keyof Asked[Place]]: string | number };
};
