import type { ReactNode } from "react";
import { createIntl, createIntlCache, type IntlShape } from "react-intl";
import door from "virtual:words/door";
import { type Messages, ownParser, withOwn } from "./own";
import type { Sentences } from "./sentences";
import type { Plain } from "./values";

const parse = await ownParser(globalThis.ownWords);
const cache = createIntlCache();

let messages: Messages = {};
let intl: IntlShape;

/** More sentences: modules that say them may be loaded from here on. */
export function learn(more: Messages) {
  messages = { ...messages, ...withOwn(more, globalThis.ownWords, parse) };
  intl = createIntl({ locale: "en", messages }, cache);
}
learn(door);

/** A sentence of the screens with its values, as text. */
export const say = <Id extends keyof Sentences>(id: Id, ...values: Plain<Sentences[Id]>): string =>
  intl.formatMessage({ id }, values[0] as Record<string, string | number> | undefined);

/** A sentence of which parts are drawn, as links or in bold. */
export const sayRich = <Id extends keyof Sentences>(id: Id, ...values: Sentences[Id]): ReactNode =>
  intl.formatMessage({ id }, values[0]);
