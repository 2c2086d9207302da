/** The lines of a view of a page, from the shape; in millimetres of the design, y downwards as on paper. */

import type { Arriving } from "../../apart";
import {
  boxOfPoints,
  cutSolid,
  dot,
  type Frame,
  type PlaneBox,
  type Polygon,
  toWorld,
  type Vec2,
  type Vec3,
} from "../../geometry";
import type { Assets } from "../../job";
import type { Shape } from "../../shape";
import {
  candidatesOf,
  linePaths,
  type SeenGrid,
  type SeenPiece,
  seenPieces,
  shadedRegions,
  tintRegions,
  type ViewLine,
  type ViewLineKind,
  viewIn,
  viewLines,
  visibleParts,
} from "../lines";
import type { Path } from "../path";
import { arrivingIn, type ShownStep, unitsShown } from "./built-in";
import { heldIn, offsetsIn, piecesApart } from "./pieces-apart";
import type { ViewAsked } from "./view-asked";
import { baseOf, type ViewPiece } from "./view-base";
import { featureInView, featureKey, type SeenFeature } from "./view-places";

/** A part of a piece that is seen, by the number of the piece. */
export type ViewPart = { readonly piece: number; readonly at: Vec2; readonly radius: number };

export type DrawnView = {
  readonly pieces: readonly ViewPiece[];
  readonly lines: readonly ViewLine[];
  readonly paths: Readonly<Record<ViewLineKind, readonly Path[]>>;
  /** null: there is nothing to be seen. */
  readonly box: PlaneBox | null;
  readonly parts: readonly ViewPart[];
  /** Which piece is seen where, heights upwards; null: it was not asked for, or there is nothing. */
  readonly grid: SeenGrid | null;
  /** Those that were asked for, by `featureKey`; null: it is lost. */
  readonly features: ReadonlyMap<string, SeenFeature | null>;
  /** What is seen of each piece, where that was asked for: outlines, of which one within another is a hole. */
  readonly tints: readonly {
    readonly piece: number;
    /** How much darker than the tint of the piece, from 0 to 1. */
    readonly shade: number;
    readonly outlines: readonly Polygon[];
  }[];
  /** Of one that is pulled apart: what cannot leave, since pieces hold one another; of a building step: what cannot get to its place. */
  readonly held: readonly string[];
  /** Of a building step: what comes in; null: it is of none. */
  readonly coming: readonly string[] | null;
  /** Of one that is pulled apart: how far its units stand from their places, in mm along the axes of what it shows. */
  readonly offsets: ReadonlyMap<string, Vec3>;
  /** Of what comes in: what comes near to nothing else. */
  readonly loose: readonly string[];
  /** Where the origin of what it shows lies in it, of the job, the assembly or the piece. */
  readonly origin: Vec2;
  /** The faces of the cut, if it is seen square: the outlines of each piece's section, holes as well. */
  readonly sections: readonly { readonly piece: number; readonly outlines: readonly Polygon[] }[];
};

const onPaper = ([x, y]: Vec2): Vec2 => [x, 0 - y];

/** What stands in the view, in the axes in which it is asked for. */
type Subject = Pick<ViewAsked, "of" | "axes" | "hidden"> & {
  /** Where the plane of its cut lies along its axis, in mm; null: it is not cut. */
  readonly cutAt?: number | null;
  readonly cut?: ViewAsked["cut"];
  readonly apart?: ViewAsked["apart"];
  readonly apartBy?: ViewAsked["apartBy"];
  /** null: all of it. */
  readonly built?: ShownStep | null;
};

function piecesOfView(shape: Shape, asked: Subject, assets: Assets, plain = false): readonly SeenPiece[] {
  const base = baseOf(shape, asked);
  if (!base) return [];
  const hidden = new Set(asked.hidden);
  const { built = null } = asked;
  const isBuiltIn = built ? unitsShown(shape, built) : () => true;
  const pieces = seenPieces(shape, viewIn(base.frame, asked.axes), {
    assets,
    plain,
    isShown: (record, instance) =>
      instance.counted !== "guide" &&
      base.holds(record, instance) &&
      isBuiltIn(record, instance) &&
      !hidden.has(record) &&
      !instance.path.some((placement) => hidden.has(placement)),
  });
  if (!asked.apart) return pieces;
  const offsets = offsetsApart(shape, asked, built, assets);
  return piecesApart(pieces, asked.apart, { shape, asked, assets, offsets });
}

/** How far units of a view stand from their places when it is wholly apart. */
const offsetsApart = (
  shape: Shape,
  asked: Pick<Subject, "of" | "axes" | "apartBy">,
  built: ShownStep | null,
  assets: Assets,
): ReadonlyMap<string, Vec3> =>
  offsetsIn(shape, asked, assets, built && arrivingIn(shape, built, assets).offsets);

const CUT_AXES = { width: "x", depth: "y", height: "z" } as const;

/** The plane of a cut in the axes of the view, what lies before it turned away: normal · p ≤ offset is kept. */
function planeOfCut(shape: Shape, asked: Subject): { readonly normal: Vec3; readonly offset: number } | null {
  const base = baseOf(shape, asked);
  if (!base || !asked.cut || asked.cutAt === null || asked.cutAt === undefined) return null;
  const axis = base.frame[CUT_AXES[asked.cut.axis]];
  const { right, up, towards } = viewIn(base.frame, asked.axes);
  const normal: Vec3 = [dot(right, axis), dot(up, axis), dot(towards, axis)];
  const offset = dot(axis, base.frame.origin) + asked.cutAt;
  // The viewer stands on the side that is left away.
  return normal[2] < -1e-9
    ? { normal: [-normal[0], -normal[1], -normal[2]], offset: -offset }
    : { normal, offset };
}

/** Where the origin of what a view shows lies in it. */
function originOf(shape: Shape, asked: Subject): Vec2 {
  const base = baseOf(shape, asked);
  if (!base) return [0, 0];
  const { right, up } = viewIn(base.frame, asked.axes);
  return onPaper([dot(right, base.frame.origin), dot(up, base.frame.origin)]);
}

type Cut = { readonly seen: readonly SeenPiece[]; readonly sections: DrawnView["sections"] };

/** Pieces cut by a plane; those that lie before it are gone. */
function cutPieces(
  seen: readonly SeenPiece[],
  { normal, offset }: { readonly normal: Vec3; readonly offset: number },
): Cut {
  const isSquare = normal[2] > 1 - 1e-9;
  const left: SeenPiece[] = [];
  const sections: { piece: number; outlines: readonly Polygon[] }[] = [];
  for (const piece of seen) {
    const { origin, x, y, z } = piece.frame;
    const { solid, section } = cutSolid(
      piece.solid,
      [dot(normal, x), dot(normal, y), dot(normal, z)],
      offset - dot(normal, origin),
    );
    if (!solid) continue;
    if (isSquare && section.length > 0)
      sections.push({
        piece: left.length,
        outlines: section.map((loop) =>
          loop.map((place): Vec2 => {
            const [right, high] = toWorld(piece.frame, place);
            return onPaper([right, high]);
          }),
        ),
      });
    left.push(solid === piece.solid ? piece : { ...piece, solid });
  }
  return { seen: left, sections };
}

/** How large a view will be, in millimetres of the design, before it is drawn; null: there is nothing to be seen. */
export function sizeOfView(
  shape: Shape,
  asked: Pick<ViewAsked, "of" | "axes" | "hidden"> & Pick<Subject, "apart" | "built">,
  assets: Assets,
): { readonly width: number; readonly height: number } | null {
  const places = piecesOfView(shape, asked, assets, true).flatMap(({ solid, frame }) =>
    solid.points.map((point): Vec2 => {
      const [x, y] = toWorld(frame, point);
      return [x, y];
    }),
  );
  if (places.length === 0) return null;
  const { x0, y0, x1, y1 } = boxOfPoints(places);
  return { width: x1 - x0, height: y1 - y0 };
}

function drawnPieces(
  { seen, sections }: Cut,
  asked: ViewAsked,
  origin: Vec2,
  /** Which pieces are tinted, by their numbers. */
  isTinted: (piece: number) => boolean = () => true,
): DrawnView {
  const found = candidatesOf(seen);
  const lines = viewLines(seen, { hidden: asked.behind, found });
  const ofKind = (kind: ViewLineKind) =>
    linePaths(
      lines.filter((line) => line.kind === kind),
      onPaper,
    );
  const { parts, grid } = asked.parts ? visibleParts(seen, found) : { parts: [], grid: null };
  const places = lines.flatMap(({ from, to }) => [onPaper(from), onPaper(to)]);
  return {
    pieces: seen.map(({ record, instance }) => ({ record, way: instance.key })),
    lines,
    paths: {
      outline: ofKind("outline"),
      edge: ofKind("edge"),
      crease: ofKind("crease"),
      hidden: ofKind("hidden"),
    },
    box: places.length === 0 ? null : boxOfPoints(places),
    parts: parts.map(({ owner, at, radius }) => ({ piece: owner, at: onPaper(at), radius })),
    grid,
    features: NO_FEATURES,
    tints: [
      ...(asked.tints === "none" ? [] : tintRegions(seen, found, isTinted)),
      ...(asked.tints === "shaded" ? shadedRegions(seen, found, isTinted) : []),
    ].map(({ owner, shade, outlines }) => ({
      piece: owner,
      shade,
      outlines: outlines.map((outline) => outline.map(onPaper)),
    })),
    held: [],
    coming: null,
    offsets: NOWHERE,
    loose: [],
    origin,
    sections,
  };
}

const comingIn = ({ blocked, loose }: Arriving, { coming }: ShownStep): Partial<DrawnView> => ({
  held: blocked,
  coming,
  loose,
});

const NOWHERE: DrawnView["offsets"] = new Map();
const NO_FEATURES: DrawnView["features"] = new Map();

/** Views that are remembered; a job has few that differ in what they show and from where. */
const MOST_KNOWN = 200;

type Known = {
  readonly shape: Shape;
  readonly assets: Assets;
  readonly seen: readonly SeenPiece[];
  readonly drawn: DrawnView;
};

/** Views with a memory: one whose solids stand as they did, seen from where it was, is not drawn anew. Views that show the same share it. */
export function createViewDrawer(): (
  shape: Shape,
  asked: ViewAsked & { readonly cutAt: number | null; readonly built: ShownStep | null },
  assets: Assets,
) => DrawnView {
  const known = new Map<string, Known>();
  const told = new Map<string, { readonly drawn: DrawnView; readonly view: DrawnView }>();
  return (shape, asked, assets) => {
    const { of, axes, hidden, cut, cutAt, apart, built, variant, behind, tints, parts } = asked;
    const origin = originOf(shape, asked);
    const key = JSON.stringify([
      of,
      axes,
      origin,
      hidden,
      cut?.axis,
      cutAt,
      apart,
      asked.apartBy,
      built,
      variant,
      behind,
      tints,
      parts,
    ]);
    const before = known.get(key);
    // A page of cards asks for the same view again and again.
    const isSame = before?.shape === shape && before.assets === assets;
    const seen = isSame ? before.seen : piecesOfView(shape, asked, assets);
    const plane = planeOfCut(shape, asked);
    const made = (): DrawnView => {
      const all: Cut = plane ? cutPieces(seen, plane) : { seen, sections: [] };
      const offsets = asked.apart ? offsetsApart(shape, asked, built, assets) : NOWHERE;
      if (!built) {
        const drawn = drawnPieces(all, asked, origin);
        return asked.apart ? { ...drawn, held: heldIn(shape, asked, assets), offsets } : drawn;
      }
      // What is there already is pale.
      const comes = unitsShown(shape, { ...built, there: [] });
      const isTinted = (piece: number) => {
        const one = all.seen[piece];
        return one !== undefined && comes(one.record, one.instance);
      };
      return {
        ...drawnPieces(all, asked, origin, isTinted),
        ...comingIn(arrivingIn(shape, built, assets), built),
        offsets,
      };
    };
    const drawn = before && (isSame || sameSolids(before.seen, seen)) ? before.drawn : made();
    if (known.size > MOST_KNOWN) known.clear();
    known.set(key, { shape, assets, seen, drawn });
    if (asked.features.length === 0) return drawn;
    const features = new Map(
      // Nothing can be measured between pieces that are not in their places.
      asked.features.map(
        (one) => [featureKey(one), apart ? null : featureInView(shape, asked, one, assets)] as const,
      ),
    );
    const last = told.get(asked.id);
    if (last?.drawn === drawn && sameFeatures(last.view.features, features)) return last.view;
    const view = { ...drawn, features };
    if (told.size > MOST_KNOWN) told.clear();
    told.set(asked.id, { drawn, view });
    return view;
  };
}

const sameFeatures = (a: DrawnView["features"], b: DrawnView["features"]): boolean =>
  a.size === b.size && [...a].every(([key, one]) => JSON.stringify(one) === JSON.stringify(b.get(key)));

const sameSolids = (a: readonly SeenPiece[], b: readonly SeenPiece[]): boolean =>
  a.length === b.length &&
  a.every((one, i) => {
    const other = b[i];
    return (
      other !== undefined &&
      one.record === other.record &&
      one.solid === other.solid &&
      one.instance.key === other.instance.key &&
      sameFrame(one.frame, other.frame)
    );
  });

const sameFrame = (a: Frame, b: Frame): boolean =>
  (["origin", "x", "y", "z"] as const).every((axis) => a[axis].every((value, i) => value === b[axis][i]));
