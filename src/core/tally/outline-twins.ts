/**
 * Outlined panels as one piece: gussets that are cut along their outline have no length or width of their own, so they may be
 * drawn at any angle. Corner k of the one is laid on corner k + n of the other, for every n, turned about and (where a face
 * may look either way) turned over.
 */
import type { Vec2 } from "../geometry";
import { at, byTuple, type Nm } from "../kernel";
import type { CornerForm, HoleForm, PanelForm } from "./forms";
import type { Handedness } from "./member-twins";

type FreeForm = PanelForm & { readonly outline: readonly CornerForm[] };

/** Whether nothing ties a panel to its length: no grain, no edging, no groove and no notch. */
export const turnsFreely = (form: PanelForm): form is FreeForm =>
  form.outline !== null &&
  !form.grain &&
  form.grooves.length === 0 &&
  form.notches.length === 0 &&
  Object.values(form.edging).every((edge) => edge === null);

type FreeWork = Pick<PanelForm, "holes" | "cutOuts">;

const place = ({ x, y }: CornerForm | HoleForm): Vec2 => [x, y];

/** The greatest distance between corners that answer one another, in nm, in the best order of going round. */
export function outlineApart(a: readonly CornerForm[], b: readonly CornerForm[]): number {
  if (a.length === 0) return 0;
  const shifts = a.map((_, shift) =>
    Math.max(
      ...a.map((one, i) => {
        const other = at(b, (i + shift) % b.length);
        return Math.max(
          Math.abs(one.x - other.x),
          Math.abs(one.y - other.y),
          Math.abs(one.radiusNm - other.radiusNm),
        );
      }),
    ),
  );
  return Math.min(...shifts);
}

/** Mirrored in its plane; corners run anticlockwise again. */
function mirrored(form: FreeForm): FreeForm {
  const flip = <T extends { readonly x: Nm }>(one: T): T => ({ ...one, x: -one.x as Nm });
  return {
    ...form,
    outline: form.outline.map(flip).reverse(),
    holes: form.holes.map(flip),
    cutOuts: form.cutOuts.map((corners) => corners.map(flip).reverse()),
  };
}

/** The same panel with its other face up. */
const turnedOver = (form: FreeForm): FreeForm => ({
  ...form,
  holes: form.holes.map((hole) =>
    hole.depthNm === null ? hole : { ...hole, face: hole.face === "good" ? "other" : "good" },
  ),
});

/** The ways in which a panel may be laid on another: as it is, or mirrored, each turned over where that takes it. */
function laid(form: FreeForm, handedness: Handedness): readonly FreeForm[] {
  // A mirror in the plane and a change of face together are a turn in space.
  const plain = handedness === "proper" ? form : turnedOver(form);
  const other = handedness === "proper" ? turnedOver(mirrored(form)) : mirrored(form);
  if (!form.goodFace) return [plain, other];
  return handedness === "proper" ? [plain] : [other];
}

/** How far two free outlines are from being one, in nm; `workApart` compares holes and cut-outs where they come to lie. */
export function freeDistance(
  a: FreeForm,
  b: FreeForm,
  handedness: Handedness,
  workApart: (a: FreeWork, b: FreeWork) => number,
): number {
  let least = Number.POSITIVE_INFINITY;
  for (const form of laid(a, handedness)) {
    const n = form.outline.length;
    const [from, to] = farthest(form.outline);
    for (let shift = 0; shift < n; shift++) {
      const move = onto(
        [place(at(form.outline, from)), place(at(form.outline, to))],
        [place(at(b.outline, (from + shift) % n)), place(at(b.outline, (to + shift) % n))],
      );
      const corners = form.outline.map((one, i) => {
        const other = at(b.outline, (i + shift) % n);
        const [x, y] = move(place(one));
        return Math.max(
          Math.abs(x - other.x),
          Math.abs(y - other.y),
          Math.abs(one.radiusNm - other.radiusNm),
        );
      });
      const apart = Math.max(...corners);
      if (apart >= least) continue;
      const moved = <T extends CornerForm | HoleForm>(one: T): T => {
        const [x, y] = move(place(one));
        return { ...one, x: x as Nm, y: y as Nm };
      };
      const work = {
        holes: form.holes.map(moved),
        cutOuts: form.cutOuts.map((corners) => corners.map(moved)),
      };
      least = Math.min(least, Math.max(apart, workApart(work, b)));
    }
  }
  return least;
}

/** The two corners that stand farthest apart: a turn that is taken from them moves no other corner further than them. */
function farthest(corners: readonly CornerForm[]): readonly [number, number] {
  let best: readonly [number, number] = [0, 1];
  let most = -1;
  corners.forEach((a, i) => {
    corners.forEach((b, k) => {
      const apart = Math.hypot(a.x - b.x, a.y - b.y);
      if (k <= i || apart <= most) return;
      most = apart;
      best = [i, k];
    });
  });
  return best;
}

/** The turn that lays the middle and the direction of one pair of points on those of another. */
function onto([a, b]: readonly [Vec2, Vec2], [c, d]: readonly [Vec2, Vec2]): (point: Vec2) => Vec2 {
  const angle = Math.atan2(d[1] - c[1], d[0] - c[0]) - Math.atan2(b[1] - a[1], b[0] - a[0]);
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const [mx, my] = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  const [nx, ny] = [(c[0] + d[0]) / 2, (c[1] + d[1]) / 2];
  return ([x, y]) => [nx + cos * (x - mx) - sin * (y - my), ny + sin * (x - mx) + cos * (y - my)];
}

/** Length of each edge and rounding of the corner that it starts from, to a micron, so that equal ones are equal numbers. */
function edges(corners: readonly CornerForm[]): readonly (readonly [number, number])[] {
  return corners.map((one, i) => {
    const next = at(corners, (i + 1) % corners.length);
    return [Math.round(Math.hypot(next.x - one.x, next.y - one.y) / 1000), Math.round(one.radiusNm / 1000)];
  });
}

/** The same for a free outline however it is drawn, and for its opposite hand; for order only. */
export function freeOrderKey(form: FreeForm): readonly number[] {
  const lengths = edges(form.outline)
    .map(([length]) => length)
    .sort((a, b) => b - a);
  return [...lengths, form.holes.length, form.cutOuts.length, form.thicknessNm ?? -1];
}

/** Tells the hands of a free outline apart: its edges as they follow one another, from the least beginning. */
export function freeHandKey(form: FreeForm): readonly number[] {
  const ways = laid(form, "proper").flatMap(({ outline }) => {
    const all = edges(outline);
    return all.map((_, i) => [...all.slice(i), ...all.slice(0, i)].flat());
  });
  return ways.reduce((least, way) => (byTuple(way, least) < 0 ? way : least));
}
