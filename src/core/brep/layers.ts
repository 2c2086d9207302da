/** Members with notches and panels with grooves as prisms that stand on one another, where something of them is round. */
import { type CutBox, type Loop, type Vec2, type Vec3, withoutBox } from "../geometry";
import { at } from "../kernel";
import { grooveBox, type MemberSolid, notchBox, type PanelSolid } from "../shape";
import { sectionProperties } from "../stockroom";
import type { Brep } from "./brep";
import type { BarEnd, FlatEnd } from "./prism";
import { stackedBrep } from "./stacked";

/** A member with notches across its ends; null: an end is curved, or reaches beyond a notch. */
export function notchedBrep(
  solid: MemberSolid,
  loops: readonly Loop[],
  low: BarEnd,
  high: BarEnd,
): Brep | null {
  if ("axis" in low || "axis" in high) return null;
  const { extent, boxCentre } = sectionProperties(solid.entry.shape);
  const notches = (solid.work?.notches ?? []).map(({ end, outwards, depth, inner }) => {
    const k = outwards[0] === 0 ? 1 : 0;
    const face = at(outwards, k) * (at(boxCentre, k) + (at(outwards, k) * at(extent, k)) / 2) - depth;
    const beyond = 2 * (extent[0] + extent[1]);
    const side = (sign: 1 | -1): Vec2 => {
      const place: [number, number] = [sign * beyond, sign * beyond];
      // What lies nearer to the middle than the face stays.
      if (at(outwards, k) !== sign) place[k] = at(outwards, k) * face;
      return place;
    };
    return { end, inner, box: { from: side(-1), to: side(1) } };
  });
  const levels = [...new Set(notches.map(({ inner }) => inner))].toSorted((a, b) => a - b);
  const [first, last] = [at(levels, 0), at(levels, levels.length - 1)];
  const sections = sectionsBetween(loops, [first - 1, ...levels, last + 1], (height) =>
    notches.flatMap(({ end, inner, box }) => ((end === "start") === height < inner ? [box] : [])),
  );
  return sections && stackedBrep(sections, levels, low, high);
}

/** The loops between levels, each without the rectangles that are cut out at a height between them; null: one of them cannot be told. */
function sectionsBetween(
  loops: readonly Loop[],
  levels: readonly number[],
  cutsAt: (height: number) => readonly CutBox[],
): readonly (readonly Loop[])[] | null {
  const sections: (readonly Loop[])[] = [];
  for (let i = 1; i < levels.length; i++) {
    const cuts = cutsAt((at(levels, i - 1) + at(levels, i)) / 2);
    const section = cuts.reduce<readonly Loop[] | null>((left, box) => left && withoutBox(left, box), loops);
    if (!section) return null;
    sections.push(section);
  }
  return sections;
}

/** A panel with grooves and notches; null: borders of them meet in a way that cannot be told exactly. */
export function groovedBrep(
  solid: PanelSolid,
  loops: readonly Loop[],
  low: FlatEnd,
  high: FlatEnd,
): Brep | null {
  const { length, width, thickness, grooves, notches } = solid;
  const size: Vec3 = [length, width, thickness ?? 1];
  const plane = ({ from, to }: { readonly from: Vec3; readonly to: Vec3 }): CutBox => ({
    from: [from[0], from[1]],
    to: [to[0], to[1]],
  });
  const bottomless = notches.map((notch) => plane(notchBox(notch, size)));
  const rooms = grooves.map((groove) => grooveBox(groove, size));
  const levels = [...new Set(rooms.flatMap(({ from, to }) => [from[2], to[2]]))]
    .filter((level) => level > 0 && level < size[2])
    .toSorted((a, b) => a - b);
  const sections = sectionsBetween(loops, [0, ...levels, size[2]], (height) => [
    ...bottomless,
    ...rooms.filter(({ from, to }) => height > from[2] && height < to[2]).map(plane),
  ]);
  return sections && stackedBrep(sections, levels, low, high);
}
