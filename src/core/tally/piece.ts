/**
 * Pieces: one physical thing to cut or buy each, snapped once to the integer grid. Drawn pieces come
 * from the shape, typed-in ones from rows of a cutting list; from here on both go the same way.
 */
import { type End, kindOf } from "../ends";
import { at, SAME_PLACE_MM, toNm } from "../kernel";
import { type MemberSolid, middleOf, type OutlineSolid, type PanelSolid } from "../shape";
import type { CornerForm, Form, GrooveForm, HoleForm, MemberForm, PanelForm } from "./forms";
import { type Motion, moved } from "./panel-motion";

export type Piece = {
  /** Id of the record that it comes from. */
  readonly id: string;
  readonly kind: "member" | "panel" | "bought" | "other";
  readonly name: string;
  /** How many of it stand in one job, mirrored ones included. */
  readonly quantity: number;
  /** How many of those stand in a mirrored assembly, so that they are the opposite of the form; they come last. */
  readonly mirrored: number;
  /** The places in which it stands, each with the same share of the quantity: the way through placements to each. */
  readonly places: readonly string[];
  readonly form: Form;
  /** Entry of the stockroom; null: none chosen or none that fits. */
  readonly stock: string | null;
  /** The words by which the stock is shown. */
  readonly stockName: string | null;
  readonly material: string | null;
  readonly typed: boolean;
  readonly typedMark: string | null;
  readonly leftOut: boolean;
  /** Millimetres of each, for parts bought by length. */
  readonly boughtLength: number | null;
  /** Why it has no size, where it should have one. */
  readonly why: string | null;
};

const snapped = (end: End): End => kindOf(end).snapped(end);

export function memberForm(solid: MemberSolid): MemberForm {
  return {
    kind: "member",
    shape: solid.entry.shape,
    centreNm: toNm(solid.lengths.centre),
    cutNm: toNm(solid.lengths.cut),
    longestNm: toNm(solid.lengths.longestEdge),
    shortestNm: toNm(solid.lengths.shortestEdge),
    ends: [snapped(solid.start.form), snapped(solid.end.form)],
    ...workForm(solid),
  };
}

function workForm(solid: MemberSolid): Pick<MemberForm, "holes" | "notches"> {
  const { work } = solid;
  if (!work) return NO_WORK;
  const middle = middleOf(solid);
  return {
    holes: work.holes.map((hole) => ({
      outwards: hole.outwards,
      begins: [toNm(hole.begins[0]), toNm(hole.begins[1])],
      z: toNm(hole.z - middle),
      fromTip: toNm(hole.z - work.tips[0]),
      across: toNm(hole.across),
      face: hole.face,
      diameterNm: toNm(hole.diameter),
      slotNm: toNm(hole.slot),
      through: hole.walls === "all",
    })),
    notches: work.notches.map(({ end, face, outwards, depth, length }) => ({
      end: end === "start" ? 0 : 1,
      face,
      outwards,
      depthNm: toNm(depth),
      lengthNm: toNm(length),
    })),
  };
}

/** A member without work on it. */
export const NO_WORK: Pick<MemberForm, "holes" | "notches"> = { holes: [], notches: [] };

/** Corners that a straight edge merely runs through are none. */
function cornerForms({ corners }: OutlineSolid): readonly CornerForm[] {
  const all = corners.map(({ at: [x, y], radius }) => ({
    x: toNm(x),
    y: toNm(y),
    radiusNm: toNm(radius),
  }));
  return all.filter((corner, i) => {
    const [before, after] = [at(all, (i + all.length - 1) % all.length), at(all, (i + 1) % all.length)];
    const [ax, ay] = [corner.x - before.x, corner.y - before.y];
    const [bx, by] = [after.x - corner.x, after.y - corner.y];
    // How far the corner stands off the line between its neighbours.
    const off = Math.abs(ax * by - ay * bx) / Math.max(1, Math.hypot(ax + bx, ay + by));
    return off > toNm(SAME_PLACE_MM) || ax * bx + ay * by < 0;
  });
}

/** An outline that is the whole rectangle is none. */
function outlineForm({ outline, length, width }: PanelSolid): readonly CornerForm[] | null {
  if (outline === null) return null;
  const corners = cornerForms(outline);
  const whole = [0, toNm(length), 0, toNm(width)];
  const plain =
    corners.length === 4 &&
    corners.every(
      ({ x, y, radiusNm }) => radiusNm === 0 && whole.slice(0, 2).includes(x) && whole.slice(2).includes(y),
    );
  return plain ? null : corners;
}

/** A quarter turn in its plane. */
const QUARTER: Motion = { quarter: true, flipX: false, flipY: true, flipZ: false };

/**
 * The form of a panel. Where its width runs along the grain it is told turned by a quarter, so that the length of a form with grain
 * always runs along it (common practice: L × W, L along the grain).
 */
export function panelForm(solid: PanelSolid): PanelForm {
  const { panel, board } = solid;
  const grain = board?.grain === null ? "any" : panel.grain;
  const form = formAsDrawn(solid, grain !== "any");
  return grain === "width" ? moved(form, QUARTER) : form;
}

function formAsDrawn(solid: PanelSolid, grain: boolean): PanelForm {
  const { panel, length, width } = solid;
  return {
    kind: "panel",
    lengthNm: toNm(length),
    widthNm: toNm(width),
    thicknessNm: solid.thickness === null ? null : toNm(solid.thickness),
    outline: outlineForm(solid),
    grain,
    goodFace: panel.goodFace,
    edging: panel.edging,
    grooves: solid.grooves.map((groove): GrooveForm => {
      const lengthwise = groove.from === "front" || groove.from === "back";
      const across = lengthwise ? width : length;
      const run = lengthwise ? length : width;
      const far = groove.from === "back" || groove.from === "right";
      const near = far ? across - groove.distance - groove.width : groove.distance;
      const [low, high] = [toNm(near), toNm(near + groove.width)];
      const [first, last] = [toNm(groove.stopAtStart), toNm(run - groove.stopAtEnd)];
      const depthNm = toNm(groove.depth);
      return lengthwise
        ? { face: groove.face, x0: first, x1: last, y0: low, y1: high, depthNm }
        : { face: groove.face, x0: low, x1: high, y0: first, y1: last, depthNm };
    }),
    holes: solid.holes.map(
      ({ face, x, y, diameter, depth }): HoleForm => ({
        face: depth === null ? "good" : face,
        x: toNm(x),
        y: toNm(y),
        diameterNm: toNm(diameter),
        depthNm: depth === null ? null : toNm(depth),
      }),
    ),
    notches: solid.notches.map(({ x0, x1, y0, y1 }) => ({
      x0: toNm(x0),
      x1: toNm(x1),
      y0: toNm(y0),
      y1: toNm(y1),
    })),
    cutOuts: solid.cutOuts.map(cornerForms),
  };
}
