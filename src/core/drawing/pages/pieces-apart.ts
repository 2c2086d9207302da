/** Views that are pulled apart: pieces away from their places, with fine lines back to them. */
import {
  type Apart,
  baseKeyOf,
  leavingOf,
  pulledApart,
  type SeenFrom,
  unitName,
  unitOf,
  unitsAndContacts,
} from "../../apart";
import { AT_HOME, add, type Solid, scale, subtract, toWorld, type Vec3 } from "../../geometry";
import type { Assets, Home } from "../../job";
import { remembersEach } from "../../kernel";
import type { Shape } from "../../shape";
import { inView, type SeenPiece, type ViewFrame, viewFrom, viewIn } from "../lines";
import type { ViewAsked } from "./view-asked";
import { baseOf } from "./view-base";

/** By shape, home and direction: found once for all steps of the slider. */
const known = remembersEach<Shape, Map<string, Apart["offsets"]>>();

/** A direction that looks along one of the axes more than this sees a side of things: sine of about 5°. */
const ALONG = 0.09;

/** From where offsets are found: a view that looks along an axis stands off as the picture from its side does, so that views in line agree. */
function seenFrom({ towards, right, up }: ViewFrame): SeenFrom {
  if (towards.every((one) => Math.abs(one) > ALONG)) return { towards, right, up };
  const side = (one: number, usual: 1 | -1) => (Math.abs(one) > ALONG ? Math.sign(one) : usual);
  return viewFrom([side(towards[0], -1), side(towards[1], -1), side(towards[2], 1)]);
}

/** How far the units of a home stand off when it is pulled apart. */
function apartFor(shape: Shape, home: Home, assets: Assets, axes: ViewFrame): Apart["offsets"] {
  const from = seenFrom(axes);
  const byView = known(shape, [assets], () => new Map());
  const key = `${home} ${from.towards.map((one) => one.toFixed(6))}`;
  const offsets = byView.get(key) ?? pulledApart(shape, home, assets, from).offsets;
  byView.set(key, offsets);
  return offsets;
}

/** What of a view cannot be pulled apart. */
export function heldIn(
  shape: Shape,
  { of, apartBy }: Pick<ViewAsked, "of" | "apartBy">,
  assets: Assets,
): readonly string[] {
  if (of.kind === "piece") return [];
  const { stuck } = leavingOf(shape, of.kind === "assembly" ? of.assembly : null, assets);
  const moved = new Set(apartBy.map(({ record }) => record));
  return stuck.filter((unit) => !moved.has(recordOf(unit)));
}

/** The record of a unit, or the placement by which it stands there. */
const recordOf = (unit: string): string => unitName(unit).record;

type Asked = Pick<ViewAsked, "of" | "axes"> & { readonly apartBy?: ViewAsked["apartBy"] };

/** How far each unit stands from its place when all is apart, by itself or as a hand put it. `found`: by itself; null: as when all of it is pulled apart. */
export function offsetsIn(
  shape: Shape,
  { of, axes, apartBy = [] }: Asked,
  assets: Assets,
  found: ReadonlyMap<string, Vec3> | null,
): ReadonlyMap<string, Vec3> {
  if (of.kind !== "job" && of.kind !== "assembly") return found ?? new Map();
  const home: Home = of.kind === "assembly" ? of.assembly : null;
  const offsets = new Map(found ?? apartFor(shape, home, assets, axes));
  const hand = new Map(apartBy.map(({ record, by }): [string, Vec3] => [record, [...by]]));
  for (const { key: unit } of unitsAndContacts(shape, home, assets).units) {
    const by = hand.get(recordOf(unit));
    if (by) offsets.set(unit, by);
  }
  return offsets;
}

type Ground = {
  readonly shape: Shape;
  readonly asked: Pick<ViewAsked, "of" | "axes">;
  readonly assets: Assets;
  /** How far units stand from their places when all is apart. */
  readonly offsets: ReadonlyMap<string, Vec3>;
};

/** The pieces of a view by a share of the way to where all stand apart. Of single pieces nothing is moved. */
export function piecesApart(
  pieces: readonly SeenPiece[],
  share: number,
  { shape, asked, assets, offsets }: Ground,
): readonly SeenPiece[] {
  const { of, axes } = asked;
  if (of.kind === "piece") return pieces;
  const base = baseOf(shape, asked);
  if (!base) return pieces;
  const home: Home = of.kind === "assembly" ? of.assembly : null;
  const key = baseKeyOf(shape, home) ?? "";
  const units = unitsAndContacts(shape, home, assets).units;
  const inThisView = inView(viewIn(base.frame, axes), base.frame);
  const seen = (v: Vec3): Vec3 => subtract(toWorld(inThisView, v), inThisView.origin);
  const first = new Map<string, SeenPiece>();
  const moved = pieces.map((piece) => {
    const unit = unitOf(piece.record, piece.instance.key, key);
    const offset = offsets.get(unit);
    if (!offset) return piece;
    if (!first.has(unit)) first.set(unit, piece);
    const origin = add(piece.frame.origin, scale(seen(offset), share));
    return { ...piece, frame: { ...piece.frame, origin } };
  });
  const lines = units.flatMap(({ key: unit, low, high }): SeenPiece[] => {
    const [piece, offset] = [first.get(unit), offsets.get(unit)];
    if (!piece || !offset) return [];
    const middle: Vec3 = [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2, (low[2] + high[2]) / 2];
    const from = toWorld(inThisView, middle);
    const to = add(from, scale(seen(offset), share));
    return [{ ...piece, solid: fineLine(from, to), frame: AT_HOME.frame, round: 0 }];
  });
  return [...moved, ...lines];
}

/** A solid of one fine line, which hides nothing and is hidden by what lies before it. */
function fineLine(from: Vec3, to: Vec3): Solid {
  const towards: Vec3 = [0, 0, 1];
  return {
    points: [from, to],
    normals: [towards],
    faces: [],
    lines: [{ from: 0, to: 1, normals: [0, 0], kind: "crease", curve: null, name: "way" }],
    curves: [],
  };
}
