import type { MessageFormatElement } from "react-intl";
import { names } from "./names.mjs";

type Sentences = Record<string, MessageFormatElement[]>;

declare global {
  /** A clinic's own sentences, left here by /words.js. */
  var ownWords: Record<string, string> | undefined;
}

/** Our sentences with the clinic's own in their places; one of its own that cannot be said leaves ours. */
export async function withOwn(ours: Sentences, own: Record<string, string> = {}): Promise<Sentences> {
  const texts = Object.entries(own);
  if (texts.length === 0) return ours;
  const { parse } = await import("message-parser");
  const read = texts.flatMap(([id, text]) => {
    try {
      const sentence = parse(text, { captureLocation: false });
      const unknown = names(sentence).filter((name) => !names(ours[id] ?? []).includes(name));
      if (unknown.length > 0) throw new Error(`It is not given ${unknown.join(", ")}`);
      return [[id, sentence] as const];
    } catch (error) {
      console.error(`The clinic's own sentence ${id} cannot be said`, error);
      return [];
    }
  });
  return { ...ours, ...Object.fromEntries(read) };
}
