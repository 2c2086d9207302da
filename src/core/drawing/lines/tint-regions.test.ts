import { describe, expect, it } from "vitest";
import { dot, isInside, type Vec2, type Vec3 } from "../../geometry";
import { at, seededRandom } from "../../kernel";
import { resultsOf, smallFrame } from "../../pipeline.fixture";
import { Image } from "./lines.oracle";
import { seenPieces } from "./shape-solids";
import { shadedRegions, tintRegions } from "./tint-regions";
import { viewFrom } from "./view-frame";

/** Even-odd, as all writers fill. */
const isWithin = (place: Vec2, outlines: readonly (readonly Vec2[])[]): boolean =>
  outlines.filter((outline) => isInside(outline, place)).length % 2 === 1;
const areaOf = (outline: readonly Vec2[]): number =>
  outline.reduce((sum, [x, y], i) => {
    const [u, w] = at(outline, (i + 1) % outline.length);
    return sum + (x * w - u * y) / 2;
  }, 0);

describe("regions to be tinted", () => {
  const { shape } = resultsOf(smallFrame());
  const random = seededRandom(11);

  it.each([
    ["front", [0, -1, 0]],
    ["isometric", [-1, -1, 1]],
    ["odd", [-2.3, -1.1, 0.7]],
  ] as const)("hold what is seen of each piece and nothing else, from the %s", (_, direction) => {
    const pieces = seenPieces(shape, viewFrom(direction));
    const regions = tintRegions(pieces);
    // Nothing of the method: every face is asked whether it is the one that is seen there.
    const image = new Image(pieces);
    const [x0, y0, x1, y1] = image.box;
    const pixel = Math.max(x1 - x0, y1 - y0) / 1_600;
    const ownerAt = (x: number, y: number) => image.seenAt([x, y])?.owner ?? -1;
    let tried = 0;
    for (let i = 0; i < 1_200; i++) {
      const place: Vec2 = [x0 + random.next() * (x1 - x0), y0 + random.next() * (y1 - y0)];
      // Nearer than a pixel and a half to a border the straightened outline may pass on either side.
      const near = [-1.5, 0, 1.5].flatMap((dx) =>
        [-1.5, 0, 1.5].map((dy) => ownerAt(place[0] + dx * pixel, place[1] + dy * pixel)),
      );
      if (new Set(near).size > 1) continue;
      tried++;
      const owner = ownerAt(...place);
      const found = regions.filter(({ outlines }) => isWithin(place, outlines)).map((one) => one.owner);
      expect(found).toEqual(owner < 0 ? [] : [owner]);
    }
    expect(tried).toBeGreaterThan(500);
  });

  it("have holes where something else is seen through them, and few corners", () => {
    // From above the ring of rails leaves the shelves free: what is seen of all of them together has no gap.
    const pieces = seenPieces(shape, viewFrom([0, 0, 1]));
    const regions = tintRegions(pieces);
    const area = regions.reduce(
      (sum, { outlines }) => sum + outlines.reduce((own, outline) => own + areaOf(outline), 0),
      0,
    );
    // 600 × 400 less the gap of 20 at each side between shelf (520 × 320) and rails.
    const [whole, inside, shelf] = [600 * 400, 520 * 320, 520 * 320];
    expect(Math.abs(area - (whole - inside + shelf)) / whole).toBeLessThan(0.01);
    // Straight borders come out straight: a rail has its few corners, not one for each pixel.
    for (const { outlines } of regions)
      for (const outline of outlines) expect(outline.length).toBeLessThan(40);
  });

  it("are darker the farther a face is turned from the light, each face where it is seen", () => {
    const pieces = seenPieces(shape, viewFrom([-1, -1, 1]));
    const regions = shadedRegions(pieces);
    const image = new Image(pieces);
    const [x0, y0, x1, y1] = image.box;
    const pixel = Math.max(x1 - x0, y1 - y0) / 1_600;
    // In the isometric view from the front left: tops are lightest, left sides darker, fronts darkest.
    const shades = { top: new Set<number>(), left: new Set<number>(), front: new Set<number>() };
    const sides = [
      ["top", [0, 0, 1]],
      ["left", [-1, 0, 0]],
      ["front", [0, -1, 0]],
    ] as const;
    const { right, up, towards } = viewFrom([-1, -1, 1]);
    let tried = 0;
    for (let i = 0; i < 1_500; i++) {
      const place: Vec2 = [x0 + random.next() * (x1 - x0), y0 + random.next() * (y1 - y0)];
      const around = [-2, 0, 2].flatMap((dx) =>
        [-2, 0, 2].map((dy) => image.seenAt([place[0] + dx * pixel, place[1] + dy * pixel])),
      );
      const [first] = around;
      if (!first || around.some((one) => !one || dot(one.normal, first.normal) < 1 - 1e-9)) continue;
      const side = sides.find(([, normal]) => {
        const seen: Vec3 = [dot(right, normal), dot(up, normal), dot(towards, normal)];
        return dot(seen, first.normal) > 1 - 1e-9;
      })?.[0];
      if (!side) continue;
      tried++;
      const found = regions.filter(({ outlines }) => isWithin(place, outlines));
      expect(found.length).toBeLessThanOrEqual(1);
      shades[side].add(found[0]?.shade ?? 0);
    }
    expect(tried).toBeGreaterThan(200);
    const [top, left, front] = [shades.top, shades.left, shades.front].map((set) => [...set]);
    expect([top?.length, left?.length, front?.length]).toEqual([1, 1, 1]);
    expect(top?.[0] ?? 1).toBeLessThan(left?.[0] ?? 0);
    expect(left?.[0] ?? 1).toBeLessThan(front?.[0] ?? 0);
  });
});
