/** Pictures that are put on pages, told by their content: PNG (ISO/IEC 15948) and JPEG (ISO/IEC 10918-1). */
import { base64 } from "@scure/base";
import { Unzlib } from "fflate";
import { err, ok, type Problem, type Result } from "../kernel";
import type { PictureAsset } from "./asset";

const MOST_BYTES = 5_000_000;
const MOST_PIXELS = 40_000_000;
const PNG = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];

type Size = { readonly width: number; readonly height: number };

const number = (bytes: Uint8Array, at: number, count: number): number => {
  let value = 0;
  for (let i = 0; i < count; i++) value = value * 256 + (bytes[at + i] ?? 0);
  return value;
};

/** The size that a PNG says in its first chunk; null: it is none. */
function sizeOfPng(bytes: Uint8Array): Size | null {
  if (!PNG.every((byte, i) => bytes[i] === byte) || bytes.length < 33) return null;
  return { width: number(bytes, 16, 4), height: number(bytes, 20, 4) };
}

/** Values of a pixel by the colour type of a PNG. */
const CHANNELS: Readonly<Record<number, number>> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };

/** Why the chunks of a PNG are no whole picture, or unpack to more than its pixels; null: all is as it says. */
function faultOfPng(bytes: Uint8Array, { width, height }: Size): string | null {
  const channels = CHANNELS[bytes[25] ?? -1];
  if (channels === undefined) return BROKEN;
  const row = 1 + Math.ceil((width * channels * (bytes[24] ?? 8)) / 8);
  // Interlaced pictures have a few more rows than they are high.
  const most = 2 * row * height + 1_000;
  let unpacked = 0;
  const unpacking = new Unzlib((part) => {
    unpacked += part.length;
    if (unpacked > most) throw new Error("it goes on and on");
  });
  try {
    for (let at = 8; at + 12 <= bytes.length; ) {
      const length = number(bytes, at, 4);
      const kind = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
      if (kind === "IEND") return unpacked >= height ? null : BROKEN;
      if (at + 12 + length > bytes.length) return BROKEN;
      if (kind === "IDAT") unpacking.push(bytes.subarray(at + 8, at + 8 + length));
      at += 12 + length;
    }
  } catch {
    return unpacked > most ? "unpacks to more than its pixels; choose another file" : BROKEN;
  }
  return BROKEN;
}

const BROKEN = "is a damaged picture; choose another file";

/** The size that a JPEG says in its frame header; null: it is none, or has none. */
function sizeOfJpeg(bytes: Uint8Array): Size | null {
  if (bytes[0] !== 0xff || bytes[1] !== 0xd8) return null;
  let at = 2;
  while (at + 9 < bytes.length && bytes[at] === 0xff) {
    const marker = bytes[at + 1] ?? 0;
    // Frame headers are C0 to CF, but for tables (C4, CC) and the reserved C8.
    if (marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker))
      return { height: number(bytes, at + 5, 2), width: number(bytes, at + 7, 2) };
    at += 2 + number(bytes, at + 2, 2);
  }
  return null;
}

/** Why a picture of this size cannot be taken; null: it can. */
function faultOf(bytes: Uint8Array, size: Size | null): string | null {
  if (!size) return "is no PNG or JPEG picture; choose another file";
  if (bytes.length > MOST_BYTES) return "is larger than 5 MB; make it smaller and choose it again";
  if (size.width < 1 || size.height < 1) return "has no size; choose another file";
  if (size.width * size.height > MOST_PIXELS)
    return "has more than 40 million pixels; make it smaller and choose it again";
  return sizeOfPng(bytes) ? faultOfPng(bytes, size) : null;
}

/** A picture from the bytes of its file. */
export function readPicture(bytes: Uint8Array): Result<PictureAsset, Problem> {
  const png = sizeOfPng(bytes);
  const size = png ?? sizeOfJpeg(bytes);
  const fault = faultOf(bytes, size);
  if (fault !== null || !size)
    return err({ kind: "badValue", what: "The file", value: "", must: fault ?? "is none" });
  return ok({ kind: "picture", type: png ? "png" : "jpeg", ...size, data: base64.encode(bytes) });
}

/** Why a picture that somebody sends is not what it says; null: it is. */
export function pictureFault(asset: PictureAsset): string | null {
  let bytes: Uint8Array;
  try {
    bytes = base64.decode(asset.data);
  } catch {
    return "cannot be read; choose its file again";
  }
  const read = readPicture(bytes);
  if (!read.ok) return read.problem.kind === "badValue" ? read.problem.must : "cannot be read";
  const { type, width, height } = read.value;
  return type === asset.type && width === asset.width && height === asset.height
    ? null
    : "is not what it says; choose its file again";
}
