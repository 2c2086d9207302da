/** What a row shows and how its hands are told, on forms that differ by less than the tolerance. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { planeEnd } from "../ends/ends.fixture";
import { toNm } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import type { MemberForm, PanelForm } from "./forms";
import type { Piece } from "./piece";
import { groupPieces } from "./rows";

const piece = (id: string, form: Piece["form"], more: Partial<Piece> = {}): Piece => ({
  id,
  kind: form.kind === "panel" ? "panel" : "member",
  name: id,
  quantity: 1,
  mirrored: 0,
  places: [""],
  form,
  stock: "s",
  stockName: "S",
  material: null,
  typed: false,
  typedMark: null,
  leftOut: false,
  boughtLength: null,
  why: null,
  ...more,
});

const tan = (degrees: number) => Math.tan((degrees * Math.PI) / 180);
/** A square tube of 40 with ends that lean in its two planes. */
const member = (
  cut: number,
  start: readonly [number, number],
  end: readonly [number, number],
): MemberForm => ({
  kind: "member",
  shape: { kind: "squareTube", size: [40, 40, 3], corners: "coldFormed" },
  centreNm: toNm(cut - 40),
  cutNm: toNm(cut),
  longestNm: toNm(cut),
  shortestNm: toNm(cut - 80),
  ends: [planeEnd(start), planeEnd(end)],
  holes: [],
  notches: [],
});
const panel = (length: number, width: number, more: Partial<PanelForm> = {}): PanelForm => ({
  kind: "panel",
  lengthNm: toNm(length),
  widthNm: toNm(width),
  thicknessNm: toNm(18),
  outline: null,
  grain: false,
  goodFace: false,
  edging: { front: null, back: null, left: null, right: null },
  grooves: [],
  holes: [],
  cutOuts: [],
  notches: [],
  ...more,
});

describe("what a row shows", () => {
  it("is never shorter than a piece of the opposite hand", () => {
    // Compound ends that are mirror images; the majority is the shorter by 0.08.
    const a = member(506.464, [1, tan(30)], [0, 0]);
    const b = member(506.544, [tan(30), 1], [0, 0]);
    const [group, more] = groupPieces([piece("a1", a), piece("a2", a), piece("b", b)]);
    expect(more).toBeUndefined();
    expect(group?.pieces.map(({ hand }) => hand).sort()).toEqual(["asDrawn", "asDrawn", "opposite"]);
    expect(group?.shown.form).toMatchObject({
      cutNm: toNm(506.544),
      centreNm: toNm(466.544),
      shortestNm: toNm(426.544),
    });
  });

  it("is as wide as the widest and as long as the longest, also of panels drawn the other way round", () => {
    const [one] = groupPieces([piece("p", panel(600.05, 400)), piece("q", panel(600, 400.09))]);
    expect(one?.shown.form).toMatchObject({ lengthNm: toNm(600.05), widthNm: toNm(400.09) });
    const [two] = groupPieces([piece("p", panel(600, 400)), piece("q", panel(400.06, 600.07))]);
    expect(two?.shown.form).toMatchObject({ lengthNm: toNm(600.07), widthNm: toNm(400.06) });
    // With grain a panel is never turned: 600 × 400 and 400 × 600 are two rows.
    const grained = [panel(600, 400, { grain: true }), panel(400, 600, { grain: true })];
    expect(groupPieces(grained.map((form, i) => piece(`g${i}`, form)))).toHaveLength(2);
  });

  it("covers every piece of it, whatever the pieces and whatever their order", () => {
    const near = fc.integer({ min: 0, max: 99 }).map((hundredths) => hundredths / 1000);
    const form = fc.tuple(near, near, fc.boolean()).map(([l, w, turned]) => {
      const [length, width] = [600 + l, 400 + w];
      return turned ? panel(width, length) : panel(length, width);
    });
    fc.assert(
      fc.property(fc.array(form, { minLength: 1, maxLength: 8 }), (forms) => {
        const pieces = forms.map((one, i) => piece(`p${i}`, one));
        const [row, more] = groupPieces(pieces);
        expect(more).toBeUndefined();
        if (row?.shown.form.kind !== "panel") throw new Error("a panel");
        const shown = [row.shown.form.lengthNm, row.shown.form.widthNm].sort((a, b) => a - b);
        for (const one of forms) {
          const own = [one.lengthNm, one.widthNm].sort((a, b) => a - b);
          expect((shown[0] ?? 0) >= (own[0] ?? 0) && (shown[1] ?? 0) >= (own[1] ?? 0)).toBe(true);
        }
        const [other] = groupPieces([...pieces].reverse());
        expect(other?.shown.form).toEqual(row.shown.form);
      }),
    );
  });
});

describe("hands", () => {
  it("are told by the nearer piece of the row, not by the first alone", () => {
    // 45° and 45.04°: each is within the tolerance of the other and of its own mirror image.
    const a = member(600, [tan(45), 0], [tan(45.04), 0]);
    const swapped = member(600, [tan(45.04), 0], [tan(45), 0]);
    const turnedOver = member(600, [0, tan(45)], [0, tan(45.04)]);
    const handOf = (forms: readonly MemberForm[]) => {
      const groups = groupPieces(forms.map((form, i) => piece(`m${i}`, form)));
      expect(groups).toHaveLength(1);
      return new Map(groups[0]?.pieces.map(({ piece: one, hand }) => [one.id, hand]));
    };
    // Opposed ends on a square tube: exchanged ends are reached by a half-turn, so both are one hand.
    expect(new Set(handOf([a, swapped, turnedOver]).values()).size).toBe(1);
    // Ends turned by a quarter have hands: 45° then 45.04° turned to the left, and turned to the right.
    const left = member(600, [tan(45), 0], [0, tan(44.97)]);
    const right = member(600, [tan(45), 0], [0, -tan(44.97)]);
    const leftAgain = member(600, [0, tan(45)], [-tan(44.97), 0]);
    const hands = handOf([left, right, leftAgain]);
    expect(hands.get("m0")).toBe(hands.get("m2"));
    expect(hands.get("m0")).not.toBe(hands.get("m1"));
  });

  it("the same hands come out for any order of near-symmetric pieces", () => {
    const lean = fc.integer({ min: -40, max: 40 }).map((n) => 45 + n / 1000);
    const form = fc
      .tuple(lean, lean, fc.boolean())
      .map(([p, q, mirrored]) => member(600, [tan(p), 0], [0, mirrored ? -tan(q) : tan(q)]));
    fc.assert(
      fc.property(fc.array(form, { minLength: 2, maxLength: 6 }), (forms) => {
        const sides = (list: readonly Piece[]) => {
          const found = groupPieces(list).flatMap((group, g) =>
            group.pieces.map(({ piece: one, hand }) => [one.id, `${g} ${hand}`] as const),
          );
          const first = new Map(found);
          return list.map((a) => list.map((b) => first.get(a.id) === first.get(b.id)));
        };
        const pieces = forms.map((one, i) => piece(`p${i}`, one));
        const reversed = [...pieces].reverse();
        const back = sides(reversed);
        const n = pieces.length;
        expect(sides(pieces)).toEqual(
          pieces.map((_, i) => pieces.map((_, k) => back[n - 1 - i]?.[n - 1 - k])),
        );
      }),
      { numRuns: lawRuns(60) },
    );
  });
});
