/** Whether this server is open to the shop, and the passcode it asks for then. */
import { readFileSync } from "node:fs";
import { type Access, readAccess } from "./passcode";

/** The file with the hash of the passcode; the start script sets it for a server that is open to the shop. */
const file = () => process.env["RUSTIC_TALLY_ACCESS"];

export const isShared = (): boolean => file() !== undefined;

let known: { readonly file: string; readonly access: Access } | null = null;

/** The passcode's hash; null when its file cannot be read: then nobody gets in. */
export function keptAccess(): Access | null {
  const place = file();
  if (place === undefined) return null;
  if (known?.file === place) return known.access;
  try {
    const access = readAccess(readFileSync(/* turbopackIgnore: true */ place, "utf8"));
    if (access) known = { file: place, access };
    return access;
  } catch {
    return null;
  }
}
