const letters = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ $%*+-./:";

/** Bytes in the letters that a QR code packs densest (RFC 9285, from memory). */
export function base45(bytes: Uint8Array): string {
  let text = "";
  for (let at = 0; at < bytes.length; at += 2) {
    const pair = at + 1 < bytes.length;
    let value = pair ? bytes[at]! * 256 + bytes[at + 1]! : bytes[at]!;
    for (let i = 0; i < (pair ? 3 : 2); i++, value = Math.floor(value / 45)) text += letters[value % 45];
  }
  return text;
}

/** Letters of one code at most: a code of version 20 with correction M holds 970 (ISO/IEC 18004, from memory); fewer are read sooner. */
const lettersMost = 660;

/** Four hexadecimal digits that all parts of a log share: its seal's last two bytes. */
const shared = (bytes: Uint8Array) =>
  [...bytes.slice(-2)].map((b) => b.toString(16).toUpperCase().padStart(2, "0")).join("");

/** A log as one to four numbered codes. */
export function codesOf(bytes: Uint8Array): string[] {
  const text = base45(bytes);
  const count = Math.max(1, Math.ceil(text.length / lettersMost));
  const each = Math.ceil(text.length / count);
  return Array.from(
    { length: count },
    (_, i) => `PH1${i + 1}${count}${shared(bytes)}${text.slice(i * each, (i + 1) * each)}`,
  );
}
