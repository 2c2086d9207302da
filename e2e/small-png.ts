/** Pictures made here with Node's own zlib, so that no file has to lie beside the tests. */
import { crc32, deflateSync } from "node:zlib";

const chunk = (kind: string, data: Uint8Array) => {
  const body = Buffer.concat([Buffer.from(kind, "latin1"), data]);
  const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
  length.writeUInt32BE(data.length);
  sum.writeUInt32BE(crc32(body) >>> 0);
  return Buffer.concat([length, body, sum]);
};

/** A grey PNG that says one size and holds so many bytes of pixels. */
export function smallPng(width: number, height: number, raw = height * (width + 1)): Buffer {
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head[8] = 8;
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk("IHDR", head),
    chunk("IDAT", deflateSync(Buffer.alloc(raw))),
    chunk("IEND", Buffer.alloc(0)),
  ]);
}
