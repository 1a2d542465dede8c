/** Paragraphs as one text, an empty line between them. */
export const textOf = (paragraphs: string[]) => paragraphs.join("\n\n");

/** The paragraphs of a text as it is being typed: nothing is trimmed away under the cursor but empty paragraphs. */
export const lettersOf = (text: string) => text.split(/\n\n/);
