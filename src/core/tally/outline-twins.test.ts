import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { at, type Nm, toNm } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import type { CornerForm, HoleForm, PanelForm } from "./forms";
import { TWIN_TOLERANCE } from "./member-twins";
import { panelDistance, panelHandKey, panelOrderKey } from "./panel-twins";

type Place = readonly [number, number, number?];
const nm = (value: number): Nm => toNm(value);
const corner = ([x, y, radius = 0]: Place): CornerForm => ({ x: nm(x), y: nm(y), radiusNm: nm(radius) });
const hole = (x: number, y: number, depth: number | null = null): HoleForm => ({
  face: "good",
  x: nm(x),
  y: nm(y),
  diameterNm: nm(10),
  depthNm: depth === null ? null : nm(depth),
});

function form(places: readonly Place[], more: Partial<PanelForm> = {}): PanelForm {
  const [xs, ys] = [places.map(([x]) => x), places.map(([, y]) => y)];
  return {
    kind: "panel",
    lengthNm: nm(Math.max(...xs) - Math.min(...xs)),
    widthNm: nm(Math.max(...ys) - Math.min(...ys)),
    thicknessNm: nm(6),
    outline: places.map(corner),
    grain: false,
    goodFace: false,
    edging: { front: null, back: null, left: null, right: null },
    grooves: [],
    holes: [],
    cutOuts: [],
    notches: [],
    ...more,
  };
}

/** A scalene triangle: no two of its motions are alike. */
const SCALENE: readonly Place[] = [
  [0, 0],
  [150, 0],
  [0, 90],
];
const turned = (places: readonly Place[], degrees: number, from = 0): readonly Place[] => {
  const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const all = places.map(([x, y, radius = 0]): Place => [x * cos - y * sin, x * sin + y * cos, radius]);
  return [...all.slice(from), ...all.slice(0, from)];
};
const mirrored = (places: readonly Place[]): readonly Place[] =>
  places.map(([x, y, radius = 0]): Place => [-x, y, radius]).toReversed();

const answer = (a: PanelForm, b: PanelForm) => {
  if (panelDistance(a, b, "proper", TWIN_TOLERANCE) <= 1) return "twin";
  return panelDistance(a, b, "mirrored", TWIN_TOLERANCE) <= 1 ? "opposite" : "different";
};

describe("outlined panels as one piece, worked out on paper", () => {
  it("a gusset is the same at whatever angle it is drawn", () => {
    expect(answer(form(SCALENE), form(turned(SCALENE, 37, 2)))).toBe("twin");
    expect(
      answer(
        form(SCALENE),
        form([
          [0, 0],
          [150, 0],
          [0, 91],
        ]),
      ),
    ).toBe("different");
    expect(
      answer(
        form(SCALENE),
        form([
          [0, 0],
          [150, 0, 5],
          [0, 90],
        ]),
      ),
    ).toBe("different");
  });

  it("its mirror image is turned over, unless it has a good face", () => {
    const other = form(mirrored(SCALENE));
    expect(answer(form(SCALENE), other)).toBe("twin");
    const good = { goodFace: true };
    expect(answer(form(SCALENE, good), { ...other, ...good })).toBe("opposite");
  });

  it("holes go with it: in the mirrored place they make another piece, right through or not as the faces say", () => {
    const here = form(SCALENE, { holes: [hole(40, 20)] });
    expect(answer(here, form(SCALENE, { holes: [hole(20, 40)] }))).toBe("different");
    const flipped = form(mirrored(SCALENE), { holes: [hole(-40, 20)] });
    expect(answer(here, flipped)).toBe("twin");
    // A blind hole in the good face of both: turned over, it would be in the other.
    const blind = form(SCALENE, { holes: [hole(40, 20, 3)] });
    expect(answer(blind, form(mirrored(SCALENE), { holes: [hole(-40, 20, 3)] }))).toBe("opposite");
  });

  it("with grain it may only be turned by half a turn", () => {
    const grain = { grain: true };
    const half = turned(SCALENE, 180).map(([x, y]): Place => [x + 150, y + 90]);
    expect(answer(form(SCALENE, grain), form(half, grain))).toBe("twin");
    const quarter = turned(SCALENE, 90).map(([x, y]): Place => [x + 90, y]);
    expect(answer(form(SCALENE, grain), form(quarter, grain))).toBe("different");
    expect(answer(form(SCALENE), form(quarter))).toBe("twin");
  });

  it("an outline and a rectangle are never one piece", () => {
    const whole: PanelForm = { ...form(SCALENE), outline: null };
    expect(answer(form(SCALENE), whole)).toBe("different");
  });
});

describe("any outline", () => {
  const star = fc.array(fc.integer({ min: 40, max: 200 }), { minLength: 3, maxLength: 8 }).map((radii) =>
    radii.map((radius, i): Place => {
      const angle = (2 * Math.PI * i) / radii.length;
      return [radius * Math.cos(angle), radius * Math.sin(angle)];
    }),
  );

  it("equals itself turned, and mirrored has the same place in the order", () => {
    fc.assert(
      fc.property(star, fc.double({ min: 0, max: 360, noNaN: true }), fc.nat(7), (places, degrees, from) => {
        const moved = turned(places, degrees, from % places.length);
        expect(answer(form(places), form(moved))).toBe("twin");
        const good = { goodFace: true };
        const flipped = form(mirrored(moved), good);
        expect(panelDistance(form(places, good), flipped, "mirrored", TWIN_TOLERANCE)).toBeLessThanOrEqual(1);
        const keys = [form(places), flipped].map((one) => panelOrderKey(one).slice(0, places.length));
        at(keys, 0).forEach((length, i) => {
          expect(Math.abs(length - at(at(keys, 1), i))).toBeLessThanOrEqual(2);
        });
      }),
      { numRuns: lawRuns(60) },
    );
  });

  it("tells its two hands apart, in the same order however they are drawn", () => {
    const good = { goodFace: true };
    const keys = [form(SCALENE, good), form(turned(SCALENE, 90, 1), good)].map(panelHandKey);
    expect(keys[0]).toEqual(keys[1]);
    expect(panelHandKey(form(mirrored(SCALENE), good))).not.toEqual(keys[0]);
  });
});
