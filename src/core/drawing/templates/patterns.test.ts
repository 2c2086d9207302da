/** Patterns as they are drawn: what is printed on them agrees with what is drawn, and their parts lie on one another. */
import { describe, expect, it } from "vitest";
import { type End, lengthsBetween } from "../../ends";
import type { Vec2 } from "../../geometry";
import { at, toNm } from "../../kernel";
import type { LengthStyle } from "../../measure";
import type { SectionShape } from "../../stockroom";
import type { MemberForm } from "../../tally";
import type { DrawItem } from "../display";
import { type EndTemplate, endPattern } from "./end-pattern";
import { type Pattern, partOfPattern, partsFor } from "./pattern";

const STYLE: LengthStyle = { unit: "mm", format: { kind: "decimal", places: 1, trailingZeros: false } };
const INCH: LengthStyle = { unit: "in", format: { kind: "fraction", denominator: 16 } };
const TUBE: SectionShape = { kind: "squareTube", size: [40, 40, 3], corners: "coldFormed" };
const ROUND: SectionShape = { kind: "roundTube", size: [120, 4] };
const MITRE: End = { kind: "plane", slope: [1, 0] };
const SKEW: End = { kind: "plane", slope: [0.3, -0.4] };

function formOf(shape: SectionShape, between: number, ends: readonly [End, End]): MemberForm {
  const lengths = lengthsBetween(shape, between, ...ends);
  return {
    kind: "member",
    shape,
    centreNm: toNm(lengths.centre),
    cutNm: toNm(lengths.cut),
    longestNm: toNm(lengths.longestEdge),
    shortestNm: toNm(lengths.shortestEdge),
    ends,
    holes: [],
    notches: [],
  };
}

function pattern(form: MemberForm, ends: EndTemplate["ends"], style = STYLE): Pattern {
  const words = { title: "HL A Rail", section: "Tube", style, opposite: 0 };
  const made = endPattern(form, { ends, side: "outside", line: "surface", paper: 0 }, words);
  if (!made.ok) throw new Error(made.problem);
  return made.value;
}

const wordsOf = (items: readonly DrawItem[]): readonly string[] =>
  items.flatMap((item) =>
    item.kind === "text" ? [item.text] : item.kind === "clip" ? wordsOf(item.items) : [],
  );
/** The lines across, from above. */
const across = ({ items, width }: Pattern): readonly number[] =>
  items
    .flatMap((item) =>
      item.kind === "line" && item.layer === "SIZES" && item.to[0] - item.from[0] > width - 1e-6
        ? [item.from[1]]
        : [],
    )
    .sort((a, b) => a - b);
const cuts = ({ items }: Pattern): readonly (readonly Vec2[])[] =>
  items.flatMap((item) =>
    item.kind === "paths" && item.layer === "CUTS"
      ? item.paths.map(({ from, segments }) => [
          from,
          ...segments.flatMap((one): Vec2[] => (one.kind === "line" ? [one.to] : [])),
        ])
      : [],
  );

/** The number behind some words. */
function numberAfter(text: string, words: RegExp): number {
  const found = text.match(words);
  if (!found) throw new Error(`no ${words} in ${text}`);
  return Number(found[1]);
}

describe("a template of both ends", () => {
  const form = formOf(TUBE, 1000, [MITRE, SKEW]);
  const both = pattern(form, "both");
  const text = wordsOf(both.items).join(" ");

  it("says what lies between its lines: the cut length less both distances printed beside it", () => {
    const start = numberAfter(text, /Start, .*?long point ([\d.]+) mm/);
    const end = numberAfter(text, /End, .*?long point ([\d.]+) mm/);
    const between = numberAfter(text, /([\d.]+) mm between the two lines across/);
    const cut = numberAfter(text, /Cut length ([\d.]+) mm/);
    // The mitre reaches 20 beyond the axis; the skew, round a corner of 6, 14 × (0.3 + 0.4) + 6 × 0.5.
    expect(cut).toBeCloseTo(1000 + 20 + 12.8, 6);
    expect(Math.abs(cut - start - end - between)).toBeLessThan(0.11);
  });

  it("draws the distances that it says", () => {
    const [upper, lower] = across(both);
    const [first, second] = cuts(both);
    const tip = (line: readonly Vec2[], pick: (...values: number[]) => number) =>
      pick(...line.map(([, y]) => y));
    const end = numberAfter(text, /End, .*?long point ([\d.]+) mm/);
    const start = numberAfter(text, /Start, .*?long point ([\d.]+) mm/);
    // Sections with rounded corners reach their tips beside the paper's steps.
    expect((upper ?? 0) - tip(first ?? [], Math.min)).toBeCloseTo(end, 2);
    expect(tip(second ?? [], Math.max) - (lower ?? 0)).toBeCloseTo(start, 2);
  });

  it("stands unbroken where the ends come near one another, as far apart as they are", () => {
    const short = formOf(TUBE, 60, [MITRE, MITRE]);
    const drawn = pattern(short, "both");
    expect(wordsOf(drawn.items).join(" ")).not.toContain("between the two lines");
    const all = cuts(drawn)
      .flat()
      .map(([, y]) => y);
    expect(Math.max(...all) - Math.min(...all)).toBeCloseTo(100, 6);
  });

  it("is refused where the ends cross", () => {
    const crossed = formOf(TUBE, 10, [MITRE, MITRE]);
    const words = { title: "A", section: "Tube", style: STYLE, opposite: 0 };
    const asked = { ends: "both", side: "outside", line: "surface", paper: 0 } as const;
    expect(endPattern(crossed, asked, words)).toEqual({ ok: false, problem: "crossed" });
    expect(endPattern(crossed, { ...asked, ends: "start" }, words).ok).toBe(true);
  });

  it("has lines across at quarters of an inch in inch jobs", () => {
    const inches = wordsOf(pattern(form, "both", INCH).items).join(" ");
    expect(inches).not.toContain("long point ≈");
    expect(inches).toMatch(/long point \d+( \d\/[24])? in/);
  });

  it("names how the ends are turned to one another", () => {
    const turned = formOf(TUBE, 500, [MITRE, { kind: "plane", slope: [0, 1] }]);
    expect(wordsOf(pattern(turned, "both").items).join(" ")).toContain("90° to the right");
    const opposed = formOf(TUBE, 500, [MITRE, { kind: "plane", slope: [-1, 0] }]);
    expect(wordsOf(pattern(opposed, "both").items).join(" ")).toContain("opposite one another");
  });
});

describe("parts of a pattern", () => {
  const whole = pattern(formOf(ROUND, 1000, [SKEW, SKEW]), "both");
  const room = { width: 170, height: 270 };
  const parts = partsFor(whole, room);

  it("have room on the page, and are as few as can be", () => {
    expect(parts).toEqual({ columns: 3, rows: 1 });
    for (let column = 0; column < 3; column++) {
      const part = partOfPattern(whole, { column, row: 0, columns: 3, rows: 1 }, { inch: false });
      expect(part.width).toBeLessThanOrEqual(room.width);
      expect(part.height).toBeLessThanOrEqual(room.height);
    }
    expect(partsFor({ width: 10_000, height: 10 }, room)).toBeNull();
  });

  it("overlap, with the same crosses on both sides of a joint", () => {
    const crossesIn = (column: number): readonly Vec2[] => {
      const { items } = partOfPattern(whole, { column, row: 0, columns: 3, rows: 1 }, { inch: false });
      const [clip] = items;
      if (clip?.kind !== "clip") throw new Error("a part is cut out");
      const [left, right] = [clip.within[0]?.[0] ?? 0, clip.within[1]?.[0] ?? 0];
      // From its own left edge back to the whole.
      const shift = column === 0 ? 0 : (column * whole.width) / 3 - 5;
      return clip.items.flatMap((item): Vec2[] => {
        if (item.kind !== "line" || item.layer !== "TEXTS" || item.from[1] !== item.to[1]) return [];
        if (Math.abs(item.to[0] - item.from[0] - 8) > 1e-9) return [];
        const x = (item.from[0] + item.to[0]) / 2;
        return x > left && x < right ? [[x + shift, item.from[1]]] : [];
      });
    };
    const [first, middle, last] = [crossesIn(0), crossesIn(1), crossesIn(2)];
    expect(first).toHaveLength(2);
    expect(middle).toHaveLength(4);
    expect(last).toHaveLength(2);
    const near = (a: Vec2, b: Vec2) => Math.hypot(a[0] - b[0], a[1] - b[1]) < 1e-6;
    for (const cross of [...first, ...last]) expect(middle.filter((one) => near(one, cross))).toHaveLength(1);
    expect(Math.abs(at(first, 0)[1] - at(first, 1)[1])).toBeCloseTo(120, 9);
  });

  it("carry a bar of 100 mm either way, or of 4 in", () => {
    const bars = (inch: boolean) =>
      partOfPattern(whole, { column: 0, row: 0, columns: 1, rows: 1 }, { inch })
        .items.flatMap((item) =>
          item.kind === "line" && item.layer === "TEXTS"
            ? [Math.hypot(item.to[0] - item.from[0], item.to[1] - item.from[1])]
            : [],
        )
        .filter((length) => Math.abs(length - (inch ? 101.6 : 100)) < 1e-9);
    expect(bars(false)).toHaveLength(2);
    expect(bars(true)).toHaveLength(2);
  });
});
