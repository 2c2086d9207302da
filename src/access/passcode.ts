/**
 * The passcode of a server that is open to the shop: kept as an scrypt hash (RFC 7914) in a file of the data folder, and
 * remembered by a browser as a signed cookie (HMAC-SHA-256) that ends after a month.
 */
import { createHmac, randomBytes, scryptSync, timingSafeEqual } from "node:crypto";
import * as v from "valibot";

const AccessSchema = v.object({
  salt: v.pipe(v.string(), v.hexadecimal(), v.length(32)),
  hash: v.pipe(v.string(), v.hexadecimal(), v.length(64)),
  /** Signs cookies; a new passcode has a new one, so that all must enter again. */
  secret: v.pipe(v.string(), v.hexadecimal(), v.length(64)),
});
export type Access = v.InferOutput<typeof AccessSchema>;

/** Cost of scrypt: about 60 ms a try on a machine of a shop. */
const COST = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 } as const;
const DAYS = 30;
export const COOKIE = "rustic_tally_pass";
const LEAST_PASSCODE = 6;

const hashOf = (passcode: string, salt: string) =>
  scryptSync(passcode.normalize("NFKC"), Buffer.from(salt, "hex"), 32, COST).toString("hex");

/** Why a passcode cannot be taken, as a sentence; null: it can. */
export const passcodeFault = (passcode: string): string | null =>
  passcode.length < LEAST_PASSCODE ? `The passcode needs at least ${LEAST_PASSCODE} signs.` : null;

export function newAccess(passcode: string): Access {
  const salt = randomBytes(16).toString("hex");
  return { salt, hash: hashOf(passcode, salt), secret: randomBytes(32).toString("hex") };
}

/** What a file of the data folder holds; null when it is none of ours. */
export function readAccess(text: string): Access | null {
  try {
    const read = v.safeParse(AccessSchema, JSON.parse(text));
    return read.success ? read.output : null;
  } catch {
    return null;
  }
}

const same = (a: string, b: string) =>
  a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b));

export const isPasscode = (access: Access, passcode: string): boolean =>
  same(hashOf(passcode, access.salt), access.hash);

const signed = (access: Access, until: string) =>
  createHmac("sha256", Buffer.from(access.secret, "hex")).update(until).digest("hex");

/** The value of a cookie that holds from `now` (ms) on. */
export function passFor(access: Access, now: number): string {
  const until = String(now + DAYS * 86_400_000);
  return `${until}.${signed(access, until)}`;
}

export function isPass(access: Access, value: string | undefined, now: number): boolean {
  const [until = "", signature = ""] = (value ?? "").split(".");
  return /^\d{1,15}$/.test(until) && same(signed(access, until), signature) && Number(until) > now;
}

/** The cookie as a head: not to be read by scripts, not sent along by other websites. */
export const cookieHead = (value: string): string =>
  `${COOKIE}=${value}; Path=/; HttpOnly; SameSite=Strict; Max-Age=${DAYS * 86_400}`;
