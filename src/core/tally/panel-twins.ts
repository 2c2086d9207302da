/**
 * How far two panels are from being one piece: the half-turns about length, width and thickness, with a
 * good face only that about the thickness, without grain also the quarter turns; mirrored ones make the
 * opposite hand (2-computation.md, section 5).
 */

import type { Tolerance } from "../ends";
import type { PanelEdge } from "../job";
import { at } from "../kernel";
import type { CornerForm, GrooveForm, HoleForm, NotchForm, PanelForm } from "./forms";
import { allApart } from "./matching";
import type { Handedness } from "./member-twins";
import { freeDistance, freeHandKey, freeOrderKey, outlineApart, turnsFreely } from "./outline-twins";
import { type Motion, moved } from "./panel-motion";

const MOTIONS: readonly Motion[] = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15].map((bits) => ({
  quarter: (bits & 1) !== 0,
  flipX: (bits & 2) !== 0,
  flipY: (bits & 4) !== 0,
  flipZ: (bits & 8) !== 0,
}));

const isProper = (m: Motion) => [m.quarter, m.flipX, m.flipY, m.flipZ].filter(Boolean).length % 2 === 0;

function motionsFor(form: PanelForm, handedness: Handedness): readonly Motion[] {
  return MOTIONS.filter(
    (motion) =>
      isProper(motion) === (handedness === "proper") &&
      !(motion.quarter && form.grain) &&
      !(motion.flipZ && form.goodFace),
  );
}

const EDGES: readonly PanelEdge[] = ["front", "back", "left", "right"];

/** Distance between two panels of one board, in units of tolerance; infinite when edging or work differ in kind. */
export function panelDistance(
  a: PanelForm,
  b: PanelForm,
  handedness: Handedness,
  tolerance: Tolerance,
): number {
  if (a.grain !== b.grain || a.goodFace !== b.goodFace) return Number.POSITIVE_INFINITY;
  if (a.grooves.length !== b.grooves.length || a.notches.length !== b.notches.length)
    return Number.POSITIVE_INFINITY;
  if (a.holes.length !== b.holes.length || a.cutOuts.length !== b.cutOuts.length)
    return Number.POSITIVE_INFINITY;
  if (a.outline?.length !== b.outline?.length) return Number.POSITIVE_INFINITY;
  if (turnsFreely(a) && turnsFreely(b)) {
    const apart = Math.max(freeDistance(a, b, handedness, freeWorkApart), thicknessApart(a, b));
    return apart / tolerance.lengthNm;
  }
  let least = Number.POSITIVE_INFINITY;
  for (const motion of motionsFor(a, handedness)) {
    const form = moved(a, motion);
    if (EDGES.some((edge) => form.edging[edge] !== b.edging[edge])) continue;
    const size = Math.max(
      Math.abs(form.lengthNm - b.lengthNm),
      Math.abs(form.widthNm - b.widthNm),
      thicknessApart(form, b),
    );
    if (size / tolerance.lengthNm >= least) continue;
    const work = Math.max(
      allApart(form.grooves, b.grooves, grooveApart),
      holesApart(form.holes, b.holes),
      allApart(form.notches, b.notches, notchApart),
      outlineApart(form.outline ?? [], b.outline ?? []),
      allApart(form.cutOuts, b.cutOuts, cutOutApart),
    );
    least = Math.min(least, Math.max(size, work) / tolerance.lengthNm);
  }
  return least;
}

function thicknessApart(a: PanelForm, b: PanelForm): number {
  if (a.thicknessNm === null || b.thicknessNm === null)
    return a.thicknessNm === b.thicknessNm ? 0 : Number.POSITIVE_INFINITY;
  return Math.abs(a.thicknessNm - b.thicknessNm);
}

function grooveApart(a: GrooveForm, b: GrooveForm): number {
  if (a.face !== b.face) return Number.POSITIVE_INFINITY;
  const pairs = [a.x0 - b.x0, a.x1 - b.x1, a.y0 - b.y0, a.y1 - b.y1, a.depthNm - b.depthNm];
  return Math.max(...pairs.map(Math.abs));
}

function holeApart(a: HoleForm, b: HoleForm): number {
  if (a.face !== b.face || (a.depthNm === null) !== (b.depthNm === null)) return Number.POSITIVE_INFINITY;
  const depth = (a.depthNm ?? 0) - (b.depthNm ?? 0);
  return Math.max(...[a.x - b.x, a.y - b.y, a.diameterNm - b.diameterNm, depth].map(Math.abs));
}

const holesApart = (a: readonly HoleForm[], b: readonly HoleForm[]) => allApart(a, b, holeApart);

const cutOutApart = (a: readonly CornerForm[], b: readonly CornerForm[]) =>
  a.length === b.length ? outlineApart(a, b) : Number.POSITIVE_INFINITY;

const freeWorkApart = (a: Pick<PanelForm, "holes" | "cutOuts">, b: Pick<PanelForm, "holes" | "cutOuts">) =>
  Math.max(holesApart(a.holes, b.holes), allApart(a.cutOuts, b.cutOuts, cutOutApart));

function notchApart(a: NotchForm, b: NotchForm): number {
  return Math.max(...[a.x0 - b.x0, a.x1 - b.x1, a.y0 - b.y0, a.y1 - b.y1].map(Math.abs));
}

function tupleOf(form: PanelForm): readonly number[] {
  const grooves = form.grooves
    .map((g) => [g.x0, g.x1, g.y0, g.y1, g.depthNm, g.face === "good" ? 0 : 1])
    .sort((p, q) => compare(p, q));
  const holes = form.holes
    .map((h) => [h.x, h.y, h.diameterNm, h.depthNm ?? -1, h.face === "good" ? 0 : 1])
    .sort(compare);
  const notches = form.notches.map((n) => [n.x0, n.x1, n.y0, n.y1]).sort(compare);
  const placesOf = (corners: readonly CornerForm[]) =>
    corners.map((c) => [c.x, c.y, c.radiusNm]).sort(compare);
  const cutOuts = form.cutOuts.map((corners) => placesOf(corners).flat()).sort(compare);
  return [
    form.lengthNm,
    form.widthNm,
    form.thicknessNm ?? -1,
    ...grooves.flat(),
    ...holes.flat(),
    ...notches.flat(),
    ...placesOf(form.outline ?? []).flat(),
    ...cutOuts.flat(),
  ];
}

function compare(a: readonly number[], b: readonly number[]): number {
  for (let i = 0; i < Math.min(a.length, b.length); i++) {
    const difference = at(a, i) - at(b, i);
    if (difference !== 0) return difference;
  }
  return a.length - b.length;
}

const edgeText = (form: PanelForm) => EDGES.map((edge) => form.edging[edge] ?? "").join("|");

function leastForm(form: PanelForm, handedness: readonly Handedness[]): PanelForm {
  const forms = handedness.flatMap((one) => motionsFor(form, one).map((motion) => moved(form, motion)));
  // Long side first, as a panel without grain is read.
  forms.sort((a, b) => compare(tupleOf(a), tupleOf(b)) || (edgeText(a) < edgeText(b) ? -1 : 1));
  return at(forms, 0);
}

/** The same for all forms of a panel and its opposite hand; for order only. */
export function panelOrderKey(form: PanelForm): readonly number[] {
  return turnsFreely(form) ? freeOrderKey(form) : tupleOf(leastForm(form, ["proper", "mirrored"]));
}

/** Tells the two hands of a panel apart, for breaking ties between them. */
export function panelHandKey(form: PanelForm): readonly number[] {
  if (turnsFreely(form)) return freeHandKey(form);
  const least = leastForm(form, ["proper"]);
  return [...tupleOf(least), ...[...edgeText(least)].map((letter) => letter.charCodeAt(0))];
}
