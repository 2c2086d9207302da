/** The curve of a cope against the check values of 2-computation.md, section 8 (there checked against two solid kernels). */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Vec2 } from "../geometry";
import type { SectionShape } from "../stockroom";
import { type CopeEnd, kindOf } from ".";
import { extremesOverTurn } from "./turn";

const r = 16.85;
const R = 24.15;
const t = 3.2;
const tube: SectionShape = { kind: "roundTube", size: [2 * r, t] };
const cope = (degrees: number, offset = 0, curve: CopeEnd["curve"] = "surface"): CopeEnd => ({
  kind: "cope",
  u: [1, 0],
  cos: Math.cos((degrees * Math.PI) / 180),
  sin: Math.sin((degrees * Math.PI) / 180),
  radius: R,
  offset: [0, offset],
  curve,
});
/** How deep the saddle stands above a point of the section. */
const copeHeight = (form: CopeEnd, point: Vec2) => -kindOf(form).height(form, tube)(point);
const at45s = (form: CopeEnd, rho = r) =>
  [0, 45, 90, 135, 180].map((phi) =>
    copeHeight(form, [rho * Math.cos((phi * Math.PI) / 180), rho * Math.sin((phi * Math.PI) / 180)]),
  );
const expectAll = (values: readonly number[], expected: readonly number[]) =>
  values.forEach((value, i) => {
    expect(value).toBeWithinMm(expected[i] ?? 0, 6e-5);
  });
const onEdge = (form: CopeEnd) =>
  extremesOverTurn((phi) => copeHeight(form, [r * Math.cos(phi), r * Math.sin(phi)]));

describe("the curve of a cope, branch 33.7 × 3.2 on 48.3", () => {
  it("at 90° and at 60° on the true surface; at 60° the least is not at 180", () => {
    expectAll(at45s(cope(90)), [24.15, 21.0062, 17.3003, 21.0062, 24.15]);
    expectAll(at45s(cope(60)), [37.6144, 31.1349, 19.9767, 17.3769, 18.1577]);
    expect(onEdge(cope(60)).least).toBeWithinMm(17.3003, 6e-5);
    expect(onEdge(cope(60)).greatest).toBeWithinMm(37.6144, 6e-5);
  });

  it("the fit for a blade held square, and the bore", () => {
    const fit = cope(60, 0, "fit");
    expectAll(at45s(fit), [37.6144, 31.1775, 23.0043, 19.9894, 20.0052]);
    expect(onEdge(fit).least).toBeWithinMm(19.9223, 6e-5);
    expectAll(at45s(cope(60), r - t), [35.7668, 31.1346, 23.0043, 19.9894, 20.0052]);
  });

  it("with an offset of 5 at 60°", () => {
    const values = [0, 90, 180, 270].map((phi) =>
      copeHeight(cope(60, 5), [r * Math.cos((phi * Math.PI) / 180), r * Math.sin((phi * Math.PI) / 180)]),
    );
    expectAll(values, [37.0102, 11.8771, 17.5534, 24.2981]);
  });

  it("the fit is nowhere below the surface over the wall (looked for at 60 places of the wall)", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 30, max: 90, noNaN: true }),
        fc.double({ min: -7, max: 7, noNaN: true }),
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        (degrees, offset, phi) => {
          const form = cope(degrees, offset);
          const [c, s] = [Math.cos(phi), Math.sin(phi)];
          const seen = Array.from({ length: 61 }, (_, i) =>
            copeHeight(form, [(r - t + (t * i) / 60) * c, (r - t + (t * i) / 60) * s]),
          );
          const fit = copeHeight(cope(degrees, offset, "fit"), [c * r, s * r]);
          expect(fit).toBeGreaterThanOrEqual(Math.max(...seen) - 1e-9);
          expect(fit).toBeWithinMm(Math.max(...seen), 0.01);
        },
      ),
    );
  });

  it("the mean over a bar as wide as what it meets is that of two cylinders that cross: 16 r³/3 in common (Archimedes, The Method)", () => {
    const bar: SectionShape = { kind: "roundBar", size: [2 * R] };
    const wide = (degrees: number) => kindOf(cope(degrees)).mean(cope(degrees), bar);
    // Half of what they have in common, over the area of the bar.
    const mean = (8 * R ** 3) / 3 / (Math.PI * R * R);
    expect(wide(90)).toBeCloseTo(-mean, 9);
    expect(wide(40)).toBeCloseTo(-mean / Math.sin((40 * Math.PI) / 180), 9);
  });
});
