import type { Library } from "./types";

let names = new Map<string, string>();

/** What may be put on top of an exercise, as the library calls it. */
export const keepModifiers = (modifiers: Library["modifiers"]) => {
  names = new Map(modifiers.map((modifier) => [modifier.id, modifier.name]));
};

/** Its id until the library has come. */
export const modifierName = (id: string) => names.get(id) ?? id;
