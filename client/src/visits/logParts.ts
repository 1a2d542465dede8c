/** Parts of a client's log as they are read, in any order. */
export interface LogParts {
  /** What all parts of a log share; null before the first. */
  log: string | null;
  of: number;
  /** By their numbers. */
  codes: Record<number, string>;
}

export const noParts: LogParts = { log: null, of: 0, codes: {} };

const shape = /^PH1([1-4])([1-4])(....)/;

/** With one part more; a part of another log begins anew. The same where it is no part at all. */
export function withPart(parts: LogParts, code: string): LogParts {
  const match = shape.exec(code);
  if (!match) return parts;
  const [, number, of, log] = match as unknown as [string, string, string, string];
  const known = parts.log === log && parts.of === Number(of) ? parts.codes : {};
  if (known[Number(number)] === code) return parts;
  return { log, of: Number(of), codes: { ...known, [Number(number)]: code } };
}

export const isWhole = (parts: LogParts) => parts.of > 0 && Object.keys(parts.codes).length === parts.of;

/** The parts that a file holds, one a line. */
export const partsIn = (text: string) => text.split(/\r?\n/).filter((line) => shape.test(line));
