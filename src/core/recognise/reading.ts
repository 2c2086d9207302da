/** What a solid of a file is: a member, a panel, hardware, or something else that is kept as it stands. */
import type { Vec3 } from "../geometry";
import { type Body, bodyOf, type Gap, type SolidMesh } from "./body";
import { type Hardware, hardwareOf } from "./hardware";
import { memberOf, type ReadMember } from "./member";
import { panelOf, type ReadPanel } from "./panel";

export type OtherReading = {
  readonly kind: "other";
  readonly hardware: Hardware | null;
};

export type Reading = {
  /** What it is taken for, and what it could be as well: a plate or a flat bar. */
  readonly taken: ReadMember | ReadPanel | OtherReading;
  readonly otherwise: readonly (ReadMember | ReadPanel)[];
  readonly body: Body;
  readonly volume: number;
  /** Sizes along the axes of the file. */
  readonly size: Vec3;
  /** Where it is open; then it is no solid, and its volume says nothing. */
  readonly gaps: readonly Gap[];
};

/** When a piece with a rectangular section is a flat bar rather than a panel: a rule of the shop. */
export type FlatRule = {
  /** mm. Wider ones are panels. */
  readonly mostWidth: number;
  /** So many times longer than wide at least. */
  readonly leastRatio: number;
};
/** Common practice: flats are rolled up to 100 mm and more; what is short for its width is cut from plate. */
export const USUAL_FLAT_RULE: FlatRule = { mostWidth: 100, leastRatio: 4 };

/** Reads one solid. */
export function reading(mesh: SolidMesh, rule: FlatRule = USUAL_FLAT_RULE): Reading {
  const body = bodyOf(mesh);
  const [low, high] = [body.low, body.high];
  const size: Vec3 = [high[0] - low[0], high[1] - low[1], high[2] - low[2]];
  const shared = { body, volume: body.volume, size, gaps: body.gaps };
  const other: OtherReading = { kind: "other", hardware: null };
  if (body.gaps.length > 0 || body.triangles.length === 0) return { taken: other, otherwise: [], ...shared };
  const hardware = hardwareOf(body);
  if (hardware) return { taken: { kind: "other", hardware }, otherwise: [], ...shared };
  const [member, flat] = [memberOf(body), panelOf(body)];
  // What is nearly as thick as wide is no panel.
  const panel = flat && flat.thickness <= MOST_THICK * flat.width ? flat : null;
  const isBlock = member && (member.shape.kind === "flat" || member.shape.kind === "squareBar");
  if (member && !isBlock) return { taken: member, otherwise: panel ? [panel] : [], ...shared };
  const asMember = member && isBar(member, panel, rule);
  if (asMember) return { taken: member, otherwise: panel ? [panel] : [], ...shared };
  if (panel && Math.max(panel.length, panel.width) >= LEAST_PANEL[1] && panel.width >= LEAST_PANEL[0])
    return { taken: panel, otherwise: member ? [member] : [], ...shared };
  return {
    taken: other,
    otherwise: [member, panel].filter((one) => one !== null),
    ...shared,
  };
}

/** A thickness of so much of the width at most. */
const MOST_THICK = 0.5;
/** mm. What is smaller is a plain part of something that is bought: a nut, a spacer. */
const LEAST_PANEL = [25, 40] as const;

/** Whether a piece with a rectangular section is a bar; as a panel it has what `panel` says. */
function isBar(member: ReadMember, panel: ReadPanel | null, { mostWidth, leastRatio }: FlatRule): boolean {
  const length = member.end.z - member.start.z;
  const [width = 0, thickness = 0] = member.shape.size;
  if (panel) {
    // What only the panel says whole it is: arcs in its outline, grooves.
    if (member.leftOver > 0 || member.start.kind === "complex" || member.end.kind === "complex") return false;
    if (panel.grooves.length > 0) return false;
  }
  if (thickness >= 0.4 * width) return length > 2 * width;
  return width <= mostWidth && length >= leastRatio * width;
}
