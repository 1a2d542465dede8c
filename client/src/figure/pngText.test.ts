import { crc32, deflateSync } from "node:zlib";
import { expect, test } from "vitest";
import { withDescription } from "./pngText";

/** A PNG of one white pixel, put together by the standard. */
function pixel() {
  const chunk = (name: string, content: Buffer) => {
    const named = Buffer.concat([Buffer.from(name), content]);
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(content.length);
    sum.writeUInt32BE(crc32(named));
    return Buffer.concat([length, named, sum]);
  };
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk("IHDR", Buffer.from([0, 0, 0, 1, 0, 0, 0, 1, 8, 0, 0, 0, 0])),
    chunk("IDAT", deflateSync(Buffer.from([0, 255]))),
    chunk("IEND", Buffer.alloc(0)),
  ]);
}

test("every chunk of the picture is whole, and one of them is its words", () => {
  const png = Buffer.from(withDescription(new Uint8Array(pixel()), "Heel tap, left – knee over hip"));
  const chunks: [string, Buffer][] = [];
  for (let at = 8; at < png.length;) {
    const length = png.readUInt32BE(at);
    const named = png.subarray(at + 4, at + 8 + length);
    expect(png.readUInt32BE(at + 8 + length)).toBe(crc32(named));
    chunks.push([named.subarray(0, 4).toString(), named.subarray(4)]);
    at += 12 + length;
  }
  expect(chunks.map(([name]) => name)).toEqual(["IHDR", "iTXt", "IDAT", "IEND"]);
  expect(chunks[1]![1].toString()).toBe("Description\0\0\0\0\0Heel tap, left – knee over hip");
});
