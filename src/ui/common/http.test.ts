import { describe, expect, it } from "vitest";
import { answerIn } from "./http";

const bytes = (text: string) => new TextEncoder().encode(text).buffer as ArrayBuffer;

describe("an answer that came as bytes", () => {
  it("is what stands in it; one that broke off is told in a sentence", () => {
    expect(answerIn(bytes('{"name":"Träger"}'))).toEqual({ ok: true, value: { name: "Träger" } });
    for (const text of ["", '{"name":"Trä'])
      expect(answerIn(bytes(text))).toEqual({
        ok: false,
        problem: { status: 0, message: "The server gave no answer that can be read.", body: null },
      });
  });
});
