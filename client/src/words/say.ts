import type { ReactNode } from "react";
import { createIntl, createIntlCache, type IntlShape } from "react-intl";
import { type Messages, ownParser, withOwn } from "./own";
import type { Sentences } from "./sentences";
import type { Plain } from "./values";

const parse = await ownParser(globalThis.ownWords);
const cache = createIntlCache();

let messages: Messages = {};
let intl: IntlShape | null = null;

/** More sentences: each module brings its own before it says them (vite.config.ts). */
export function learn(more: Messages) {
  messages = { ...messages, ...withOwn(more, globalThis.ownWords, parse) };
  intl = null;
}

const speaker = () => (intl ??= createIntl({ locale: "en", messages }, cache));

/** A sentence of the screens with its values, as text. */
export const say = <Id extends keyof Sentences>(id: Id, ...values: Plain<Sentences[Id]>): string =>
  speaker().formatMessage({ id }, values[0] as Record<string, string | number> | undefined);

/** A sentence of which parts are drawn, as links or in bold. */
export const sayRich = <Id extends keyof Sentences>(id: Id, ...values: Sentences[Id]): ReactNode =>
  speaker().formatMessage({ id }, values[0]);
