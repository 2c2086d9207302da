/**
 * The straight lines of a DXF file, in the plane or in space, blocks taken apart: LINE, LWPOLYLINE, POLYLINE and INSERT with its
 * scale, turn, grid and extrusion (DXF reference: arbitrary axis algorithm). What is no straight line is counted and told.
 */
import DxfParser from "dxf-parser";
import { cross, direction, type Vec3 } from "@/core/geometry";
import type { Skeleton, SkeletonLine } from "@/core/imports";
import { counted, err, GREATEST_LENGTH_MM, ok, type Problem, type Result } from "@/core/kernel";
import { MM_OF_UNIT } from "./dxf-pairs";

const MOST_BYTES = 20_000_000;
const MOST_LINES = 10_000;
const MOST_LEVELS = 8;

type Place = { readonly x?: number; readonly y?: number; readonly z?: number; readonly bulge?: number };
type Entity = {
  readonly type: string;
  readonly layer?: string;
  readonly visible?: boolean;
  readonly inPaperSpace?: boolean;
  readonly vertices?: readonly Place[];
  readonly shape?: boolean;
  readonly is3dPolyline?: boolean;
  readonly elevation?: number;
  readonly extrusionDirection?: Place;
  readonly extrusionDirectionX?: number;
  readonly extrusionDirectionY?: number;
  readonly extrusionDirectionZ?: number;
  readonly name?: string;
  readonly position?: Place;
  readonly xScale?: number;
  readonly yScale?: number;
  readonly zScale?: number;
  readonly rotation?: number;
  readonly columnCount?: number;
  readonly rowCount?: number;
  readonly columnSpacing?: number;
  readonly rowSpacing?: number;
};

type Move = (place: Vec3) => Vec3;
const placeOf = (place: Place | undefined): Vec3 => [place?.x ?? 0, place?.y ?? 0, place?.z ?? 0];

type Drawing = {
  readonly entities?: unknown;
  readonly blocks?: unknown;
  readonly header?: Readonly<Record<string, unknown>>;
};

function parsed(text: string): Drawing | null {
  try {
    return new DxfParser().parseSync(text) as unknown as Drawing | null;
  } catch {
    return null;
  }
}

/** The skeleton in a DXF text; the problem says what is wrong with it and what to do. */
export function readSkeleton(name: string, text: string): Result<Skeleton, Problem> {
  const refuse = (why: string) => err({ kind: "malformed", what: name, why } as const);
  if (text.length > MOST_BYTES)
    return refuse("it is larger than 20 MB; leave only the lines of the frame in it");
  // A file without its end sends its reader round for ever.
  if (!/\n\s*0\s*\r?\n\s*EOF\s*$/.test(text))
    return refuse("its end is missing, or it is no DXF text; save it again as DXF");
  const drawing = parsed(text);
  if (!drawing || !Array.isArray(drawing.entities))
    return refuse("it cannot be read as DXF; save it as DXF text");
  const blocks = (drawing.blocks ?? {}) as Readonly<
    Record<string, { readonly entities?: readonly Entity[]; readonly position?: Place } | undefined>
  >;
  const lines: SkeletonLine[] = [];
  const draw = (from: Vec3, to: Vec3, layer: string) => {
    // A line without length is a point that somebody drew twice.
    if (from.some((value, i) => value !== to[i])) lines.push({ from, to, layer });
  };
  const skipped = new Map<string, number>();
  const skip = (word: string) => skipped.set(word, (skipped.get(word) ?? 0) + 1);
  const take = (entity: Entity, move: Move, layer: string | null, depth: number): void => {
    if (entity.visible === false || entity.inPaperSpace || lines.length > MOST_LINES) return;
    // What stands on layer 0 of a block takes the layer of where it is put.
    const own = entity.layer ?? "0";
    const on = layer !== null && own === "0" ? layer : own;
    const vertices = entity.vertices ?? [];
    if (entity.type === "LINE") {
      const [from, to] = vertices;
      if (from && to) draw(move(placeOf(from)), move(placeOf(to)), on);
    } else if (entity.type === "LWPOLYLINE" || entity.type === "POLYLINE") {
      const turned = axesOf(entity);
      const lift = entity.elevation ?? 0;
      const places = vertices.map((one): Vec3 => {
        const [x, y, z] = placeOf(one);
        return move(entity.is3dPolyline ? [x, y, z] : turned([x, y, z + lift]));
      });
      const last = entity.shape ? places.length : places.length - 1;
      for (let i = 0; i < last; i++) {
        const [from, to] = [places[i], places[(i + 1) % places.length]];
        if (vertices[i]?.bulge) skip("arc");
        else if (from && to) draw(from, to, on);
      }
    } else if (entity.type === "INSERT") {
      const block = blocks[entity.name ?? ""];
      if (!block || depth >= MOST_LEVELS) {
        skip("block");
        return;
      }
      const base = placeOf(block.position);
      const at = placeOf(entity.position);
      const angle = ((entity.rotation ?? 0) * Math.PI) / 180;
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      const [sx, sy, sz] = [entity.xScale ?? 1, entity.yScale ?? 1, entity.zScale ?? 1];
      const turned = axesOf(entity);
      const [columns, rows] = [entity.columnCount ?? 1, entity.rowCount ?? 1].map((count) =>
        Math.min(100, Math.max(1, count)),
      ) as [number, number];
      for (let column = 0; column < columns; column++)
        for (let row = 0; row < rows; row++) {
          const [gx, gy] = [column * (entity.columnSpacing ?? 0), row * (entity.rowSpacing ?? 0)];
          const put: Move = ([x, y, z]) => {
            const [lx, ly, lz] = [(x - base[0]) * sx + gx, (y - base[1]) * sy + gy, (z - base[2]) * sz];
            return move(turned([at[0] + lx * c - ly * s, at[1] + lx * s + ly * c, at[2] + lz]));
          };
          for (const inner of block.entities ?? []) take(inner, put, on, depth + 1);
        }
    } else if (entity.type in CURVES) skip(CURVES[entity.type] ?? "curve");
  };
  for (const entity of drawing.entities as readonly Entity[]) take(entity, (place) => place, null, 0);
  if (lines.length > MOST_LINES)
    return refuse(`it holds more than ${MOST_LINES} lines; leave only those of the frame in it`);
  if (lines.length === 0)
    return refuse("there is no straight line in it; draw the members as lines or polylines");
  const unit = MM_OF_UNIT[Number(drawing.header?.["$INSUNITS"] ?? 0)] ?? null;
  if (
    lines.some(({ from, to }) =>
      [...from, ...to].some((value) => !(Math.abs(value * (unit ?? 1)) <= GREATEST_LENGTH_MM)),
    )
  )
    return refuse("a place in it is no number or lies more than 100 m away; look at its unit");
  return ok({ name, unit, lines, skipped: [...skipped].map(([word, count]) => counted(count, word)) });
}

const CURVES: Readonly<Record<string, string>> = {
  ARC: "arc",
  CIRCLE: "circle",
  ELLIPSE: "ellipse",
  SPLINE: "spline",
};

/** From the axes of an entity to those of the drawing (arbitrary axis algorithm). */
function axesOf(entity: Entity): Move {
  const { extrusionDirection: told } = entity;
  const z = direction([
    told?.x ?? entity.extrusionDirectionX ?? 0,
    told?.y ?? entity.extrusionDirectionY ?? 0,
    told?.z ?? entity.extrusionDirectionZ ?? 1,
  ]);
  if (!z || (z[0] === 0 && z[1] === 0 && z[2] > 0)) return (place) => place;
  const near = Math.abs(z[0]) < 1 / 64 && Math.abs(z[1]) < 1 / 64;
  const x = direction(cross(near ? [0, 1, 0] : [0, 0, 1], z)) ?? [1, 0, 0];
  const y = cross(z, x);
  return ([a, b, c]) => [
    a * x[0] + b * y[0] + c * z[0],
    a * x[1] + b * y[1] + c * z[1],
    a * x[2] + b * y[2] + c * z[2],
  ];
}
