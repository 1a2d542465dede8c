import type { ReactNode } from "react";
import { createIntl, createIntlCache } from "react-intl";
import ours from "virtual:words";
import { withOwn } from "./own";
import type { Sentences } from "./sentences";
import type { Plain } from "./values";

const messages = await withOwn(ours, globalThis.ownWords);
const intl = createIntl({ locale: "en", messages }, createIntlCache());

/** A sentence of the screens with its values, as text. */
export const say = <Id extends keyof Sentences>(id: Id, ...values: Plain<Sentences[Id]>): string =>
  intl.formatMessage({ id }, values[0] as Record<string, string | number> | undefined);

/** A sentence of which parts are drawn, as links or in bold. */
export const sayRich = <Id extends keyof Sentences>(id: Id, ...values: Sentences[Id]): ReactNode =>
  intl.formatMessage({ id }, values[0]);
