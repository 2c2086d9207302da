/** An end told in words is made again from them, as near as they are written. */
import { describe, expect, it } from "vitest";
import { seededRandom } from "../kernel";
import { type LengthStyle, parseLength } from "../measure";
import type { End } from "./end";
import { kindOf } from "./registry";
import { endFromWords } from "./told.fixture";

const STYLE: LengthStyle = { unit: "mm", format: { kind: "decimal", places: 2, trailingZeros: false } };

function length(text: string): number {
  const read = parseLength(text.replace("≈", ""), "mm");
  if (!read.ok) throw new Error(`${text} is no length`);
  return read.value;
}

describe("ends in words", () => {
  it("say all that is needed to make them, of every kind", () => {
    const random = seededRandom(11);
    const number = (most: number) => (2 * random.next() - 1) * most;
    const kinds = new Set<string>();
    for (let i = 0; i < 300; i++) {
      const theta = 0.4 + 1.1 * random.next();
      const turn = number(Math.PI);
      const aside = number(5);
      const ends: readonly End[] = [
        { kind: "plane", slope: i % 2 === 0 ? [number(1), 0] : [number(1), number(1)] },
        {
          kind: "twoPlanes",
          faces: [
            { slope: [number(1), number(0.5)], beyond: i % 2 === 0 ? 0 : Math.abs(number(9)) },
            { slope: [number(1), number(0.5)], beyond: i % 2 === 0 ? Math.abs(number(9)) : 0 },
          ],
        },
        {
          kind: "cope",
          u: [Math.cos(turn), Math.sin(turn)],
          offset: [-Math.sin(turn) * aside, Math.cos(turn) * aside],
          cos: Math.cos(theta),
          sin: Math.sin(theta),
          radius: 24 + number(5),
          curve: i % 3 === 0 ? "fit" : "surface",
        },
      ];
      for (const end of ends) {
        const made = endFromWords(kindOf(end).told(end, STYLE), length);
        kinds.add(made.kind);
        expect(made.kind).toBe(end.kind);
        // Angles are written to 0.01 degrees; a difference below the tolerance of lengths is not told.
        const apart = kindOf(end).apart(made, end, { lengthNm: 100_000, slope: 1e-3 });
        expect(apart, kindOf(end).told(end, STYLE)).toBeLessThanOrEqual(1);
      }
    }
    expect(kinds.size).toBe(3);
  });
});
