import type { MessageFormatElement } from "react-intl";
import { names } from "./names.mjs";

export type Messages = Record<string, MessageFormatElement[]>;
type Parse = (text: string, options: { captureLocation: boolean }) => MessageFormatElement[];

declare global {
  /** A clinic's own sentences, left here by the script of its words. */
  var ownWords: Record<string, string> | undefined;
}

/** What reads a clinic's own sentences; none where it has none. */
export const ownParser = async (own: Record<string, string> = {}): Promise<Parse | null> =>
  Object.keys(own).length > 0 ? (await import("message-parser")).parse : null;

/** Our sentences with the clinic's own in their places; one of its own that cannot be said leaves ours. */
export function withOwn(ours: Messages, own: Record<string, string> = {}, parse: Parse | null): Messages {
  if (!parse) return ours;
  const read = Object.entries(own).flatMap(([id, text]) => {
    const known = ours[id];
    if (!known) return [];
    try {
      const sentence = parse(text, { captureLocation: false });
      const unknown = names(sentence).filter((name) => !names(known).includes(name));
      if (unknown.length > 0) throw new Error(`It is not given ${unknown.join(", ")}`);
      return [[id, sentence] as const];
    } catch (error) {
      console.error(`The clinic's own sentence ${id} cannot be said`, error);
      return [];
    }
  });
  return { ...ours, ...Object.fromEntries(read) };
}
