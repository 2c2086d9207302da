/** Which requests are taken, and how a passcode is kept and asked for. */
import { createHmac, scryptSync } from "node:crypto";
import { describe, expect, it } from "vitest";
import {
  hostNames,
  isPass,
  isPasscode,
  newAccess,
  pagePolicy,
  passcodeFault,
  passFor,
  type RequestHeads,
  readAccess,
  requestFault,
  SlowDown,
  securityHeads,
} from ".";

const hosts = hostNames("shop.local, 10.0.0.7:8080");
const heads: RequestHeads = {
  method: "POST",
  host: "localhost:3000",
  origin: "http://localhost:3000",
  fetchSite: "same-origin",
  contentType: "application/json; charset=utf-8",
  contentLength: "20",
};
const status = (more: Partial<RequestHeads>) => requestFault({ ...heads, ...more }, hosts)?.status ?? 200;

describe("requests", () => {
  it.each([
    ["one of our own pages", {}, 200],
    ["without fetch metadata, as over plain HTTP in a network", { fetchSite: null }, 200],
    ["without an origin, told by fetch metadata", { origin: null }, 200],
    ["the bytes of a file", { contentType: "application/octet-stream" }, 200],
    ["a name of the shop", { host: "shop.local:3000", origin: "http://shop.local:3000" }, 200],
    ["an address of the shop", { host: "10.0.0.7", origin: "http://10.0.0.7" }, 200],
    ["reading from anywhere", { method: "GET", origin: "http://evil.example", contentType: null }, 200],
    ["another website", { origin: "http://evil.example" }, 403],
    ["another website that calls itself ours", { origin: "http://localhost:3000.evil.example" }, 403],
    ["another port of this machine", { origin: "http://localhost:3001" }, 403],
    ["a page of another site, by fetch metadata", { fetchSite: "cross-site" }, 403],
    ["a page of another port, by fetch metadata", { fetchSite: "same-site" }, 403],
    ["typed into the address bar", { fetchSite: "none" }, 403],
    ["a sandboxed page", { origin: "null" }, 403],
    ["no word of who sends it", { origin: null, fetchSite: null }, 403],
    ["a form of text", { contentType: "text/plain" }, 415],
    ["a form", { contentType: "application/x-www-form-urlencoded" }, 415],
    ["no type", { contentType: null }, 415],
    ["no length", { contentLength: null }, 411],
    ["a length that is none", { contentLength: "many" }, 411],
    ["the greatest length", { contentLength: "12000000" }, 200],
    ["a byte more", { contentLength: "12000001" }, 413],
    [
      "another name for this machine (DNS rebinding)",
      { host: "evil.example", origin: "http://evil.example" },
      421,
    ],
    ["no host", { host: null }, 421],
    ["reading under another name", { method: "GET", host: "evil.example" }, 421],
  ] as const)("%s", (_, more, expected) => {
    expect(status(more)).toBe(expected);
  });
});

describe("the passcode", () => {
  const access = newAccess("birch & steel");

  it("is kept as scrypt of itself with a salt of its own", () => {
    expect(isPasscode(access, "birch & steel")).toBe(true);
    expect(isPasscode(access, "birch & steeL")).toBe(false);
    expect(JSON.stringify(access)).not.toContain("birch");
    expect(newAccess("birch & steel").hash).not.toBe(access.hash);
    const again = scryptSync("birch & steel", Buffer.from(access.salt, "hex"), 32, {
      N: 32768,
      r: 8,
      p: 1,
      maxmem: 2 ** 26,
    });
    expect(again.toString("hex")).toBe(access.hash);
    // However a keyboard composes its signs.
    expect(isPasscode(newAccess("Tür 12"), "Tu\u0308r 12")).toBe(true);
  });

  it("needs six signs", () => {
    expect(passcodeFault("12345")).toContain("at least 6");
    expect(passcodeFault("123456")).toBeNull();
  });

  it("gives a cookie that holds for thirty days and cannot be made up", () => {
    const now = 1_800_000_000_000;
    const value = passFor(access, now);
    const until = value.split(".")[0] ?? "";
    expect(Number(until) - now).toBe(30 * 24 * 3600 * 1000);
    expect(isPass(access, value, now)).toBe(true);
    expect(isPass(access, value, Number(until))).toBe(false);
    expect(isPass(newAccess("birch & steel"), value, now)).toBe(false);
    const forged = `${now * 2}.${createHmac("sha256", "guess")
      .update(String(now * 2))
      .digest("hex")}`;
    for (const other of [undefined, "", ".", "1", `${until}.`, `${until}0.${value.split(".")[1]}`, forged])
      expect(isPass(access, other, now)).toBe(false);
  });

  it("a file that is none of ours lets nobody in", () => {
    expect(readAccess(JSON.stringify(access))).toEqual(access);
    for (const text of ["", "{}", "null", JSON.stringify({ ...access, hash: "00" })])
      expect(readAccess(text)).toBeNull();
  });

  it("tries without end have to wait ever longer, from one sender and from many", () => {
    const slow = new SlowDown();
    const waits = Array.from({ length: 12 }, () => {
      slow.wrong("a", 0);
      return slow.wait("a", 0);
    });
    expect(waits.slice(0, 5)).toEqual([0, 0, 1000, 2000, 4000]);
    expect(Math.max(...waits)).toBe(60_000);
    expect([slow.wait("b", 0), slow.wait("a", 60_000)]).toEqual([0, 0]);
    slow.right("a");
    expect(slow.wait("a", 0)).toBe(0);
    for (let i = 0; i < 100; i++) slow.wrong(`sender ${i}`, 0);
    expect(slow.wait("a new one", 0)).toBeGreaterThan(1000);
  });
});

it("heads: pages run scripts with their nonce, data runs nothing", () => {
  const page = securityHeads("/jobs/a", pagePolicy("N0nce"))["content-security-policy"];
  expect(page).toContain("script-src 'self' 'nonce-N0nce' 'wasm-unsafe-eval';");
  expect(page).not.toMatch(/script-src[^;]*'unsafe-(inline|eval)'/);
  expect(securityHeads("/api/rack", "x")["content-security-policy"]).toContain("default-src 'none'");
});
