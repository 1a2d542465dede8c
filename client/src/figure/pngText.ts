/** CRC of PNG (W3C PNG, third edition, annex D). */
function crc(bytes: Uint8Array) {
  let sum = ~0;
  for (const byte of bytes) {
    sum ^= byte;
    for (let bit = 0; bit < 8; bit++) sum = (sum >>> 1) ^ (sum & 1 ? 0xedb88320 : 0);
  }
  return ~sum >>> 0;
}

const signature = 8;
/** Length, name, content and CRC of the chunk that a PNG begins with. */
const header = 4 + 4 + 13 + 4;

/** A PNG with what it shows in words: a chunk iTXt "Description" behind its header (W3C PNG, 11.3.3.4). */
export function withDescription(png: Uint8Array<ArrayBuffer>, words: string): Uint8Array<ArrayBuffer> {
  const text = new TextEncoder().encode(`iTXtDescription\0\0\0\0\0${words}`);
  const chunk = new Uint8Array(text.length + 8);
  const view = new DataView(chunk.buffer);
  view.setUint32(0, text.length - 4);
  chunk.set(text, 4);
  view.setUint32(text.length + 4, crc(text));
  const whole = new Uint8Array(png.length + chunk.length);
  const at = signature + header;
  whole.set(png.subarray(0, at));
  whole.set(chunk, at);
  whole.set(png.subarray(at), at + chunk.length);
  return whole;
}
