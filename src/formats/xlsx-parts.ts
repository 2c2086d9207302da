/**
 * The parts of an XLSX file that hold its cells, unpacked within bounds. The zip is unpacked in small steps and what comes
 * out of it is counted, so that a small file that unpacks to gigabytes is refused before anything holds it.
 */
import { Unzip, UnzipInflate } from "fflate";

const MOST_UNPACKED = 60_000_000;
const MOST_PARTS = 2_000;
const STEP = 16_384;

/** Pieces of each part under `xl/` by its name; a string: why the zip cannot be unpacked. */
export function unpackedParts(bytes: Uint8Array): ReadonlyMap<string, readonly Uint8Array[]> | string {
  let [size, count] = [0, 0];
  let fault: string | null = null;
  const parts = new Map<string, Uint8Array[]>();
  const zip = new Unzip((file) => {
    count++;
    if (count > MOST_PARTS) fault = "it has too many parts";
    const pieces: Uint8Array[] = [];
    // Pictures and the like are counted, not kept.
    if (/^xl\/.*\.(xml|rels)$/.test(file.name)) parts.set(file.name, pieces);
    const isSaved = parts.has(file.name);
    file.ondata = (error, data) => {
      if (error) fault = "its zip is damaged";
      else {
        size += data.length;
        if (size > MOST_UNPACKED) fault = `it unpacks to more than ${MOST_UNPACKED / 1e6} MB`;
        else if (isSaved) pieces.push(data);
      }
    };
    if (fault === null) file.start();
  });
  zip.register(UnzipInflate);
  try {
    for (let at = 0; at < bytes.length && fault === null; at += STEP)
      zip.push(bytes.subarray(at, at + STEP), at + STEP >= bytes.length);
  } catch {
    fault ??= "its zip is damaged";
  }
  return fault ?? parts;
}
