/** Pictures by their content. */
import { describe, expect, it } from "vitest";
import { smallPng as png } from "../../../e2e/small-png";
import { at, sentence } from "../kernel";
import { assetIdOf } from "./asset";
import { pictureFault, readPicture } from "./picture";

/** The beginning of a baseline JPEG: its start, a table, its frame header. */
const JPEG = Uint8Array.from([
  0xff, 0xd8, 0xff, 0xe0, 0, 4, 0, 0, 0xff, 0xc4, 0, 5, 1, 2, 3, 0xff, 0xc0, 0, 11, 8, 0, 30, 0, 40, 1, 1,
  0x11, 0, 0xff, 0xd9,
]);
const refused = (bytes: Uint8Array) => {
  const read = readPicture(bytes);
  return read.ok ? "" : sentence(read.problem);
};

describe("pictures", () => {
  it("are told by their content, with their size", () => {
    for (const [bytes, type, width, height] of [
      [png(12, 7), "png", 12, 7],
      [JPEG, "jpeg", 40, 30],
    ] as const) {
      const read = readPicture(bytes);
      expect(read.ok && read.value).toMatchObject({ kind: "picture", type, width, height });
      if (!read.ok) continue;
      expect(Buffer.from(read.value.data, "base64").equals(bytes)).toBe(true);
      expect(pictureFault(read.value)).toBeNull();
      expect(pictureFault({ ...read.value, width: 99 })).toContain("is not what it says");
      expect(pictureFault({ ...read.value, data: "%%%" })).toContain("cannot be read");
      expect(assetIdOf(read.value)).toMatch(/^[0-9a-f]{64}$/);
    }
  });

  it("that are none, too large, damaged or would unpack without end are refused with a sentence", () => {
    expect(refused(Buffer.from("GIF89a"))).toContain("is no PNG or JPEG picture");
    expect(refused(new Uint8Array(0))).toContain("is no PNG or JPEG picture");
    expect(refused(Buffer.concat([png(2, 2), Buffer.alloc(5_000_000)]))).toContain("larger than 5 MB");
    expect(refused(png(10_000, 5_000, 10))).toContain("40 million pixels");
    expect(refused(png(0, 5, 10))).toContain("has no size");
    // Twenty megabytes of nothing behind a picture of four pixels.
    expect(refused(png(2, 2, 20_000_000))).toContain("unpacks to more");
    const whole = png(30, 30);
    for (const length of [40, 50, whole.length - 12])
      expect(refused(whole.subarray(0, length))).toContain("damaged");
    const bent = Uint8Array.from(whole);
    bent[45] = at([...bent], 45) ^ 0xff;
    expect(refused(bent)).toContain("damaged");
  });
});
