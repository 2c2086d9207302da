/** What a file of solids was found to hold, before anything of it enters a job: plain data that a worker can send. */

import { type EndFace, tipOf } from "../ends";
import type { Frame, Vec3 } from "../geometry";
import { grouped, type LinearColour } from "../kernel";
import type { OtherReading, ReadMember, ReadPanel } from "../recognise";

export type FoundReading = ReadMember | ReadPanel | OtherReading;

export type FoundGap = { readonly length: number; readonly middle: Vec3; readonly rim: readonly Vec3[] };

/** One solid of a product, in the product's own axes. */
export type FoundPart = {
  readonly key: string;
  readonly name: string;
  readonly taken: FoundReading;
  /** What it could be as well: a plate for a flat bar. */
  readonly otherwise: readonly (ReadMember | ReadPanel)[];
  /** mm³; of what is open it says nothing. */
  readonly volume: number;
  readonly low: Vec3;
  readonly high: Vec3;
  /** Its faces looked inwards, and were turned. */
  readonly wasInverted: boolean;
  /** Where it is open, in mm along the rims; none: it is a solid. */
  readonly gaps: readonly FoundGap[];
  /** Nine numbers a triangle of what has no other form than its shape; null: too many, a box stands for it. */
  readonly triangles: readonly number[] | null;
  /** Of what is open the triangles of each surface, from the first to one past the last: it can be closed. */
  readonly faces: readonly (readonly [number, number])[];
  /** mm. It was open, and its rims were joined where they lay no farther apart; null: it is as the file has it. */
  readonly joinedWithin: number | null;
  /** null: the file gives it none. */
  readonly colour: LinearColour | null;
};

export type FoundProduct = {
  readonly id: number;
  readonly name: string;
  readonly material: string | null;
  readonly parts: readonly FoundPart[];
  /** Solids and surfaces that the file declares and the reader did not give. */
  readonly missing: number;
};

export type FoundUse = {
  readonly parent: number;
  readonly child: number;
  readonly name: string;
  readonly frame: Frame;
};

export type FoundFile = {
  readonly name: string;
  /** Name of its schema, such as AP214's. */
  readonly schema: string;
  readonly units: readonly string[];
  readonly products: readonly FoundProduct[];
  readonly uses: readonly FoundUse[];
  readonly roots: readonly number[];
  /** Sizes over all, in mm. */
  readonly size: Vec3;
  /** Instances whose place the file does not say: they stand where their assembly begins. */
  readonly withoutPlace: number;
  /** What its lengths were multiplied by after it was read. */
  readonly scaledBy: number;
};

/** How a part enters the job. */
export type TakeWay = "taken" | "otherwise" | "bought" | "leave";

/** The reading that a way of taking stands for; null: it does not enter. */
export function readingFor(part: FoundPart, way: TakeWay): FoundReading | null {
  switch (way) {
    case "taken":
      return part.taken;
    case "otherwise":
      return part.otherwise[0] ?? part.taken;
    case "bought":
      return part.taken.kind === "other" ? part.taken : { kind: "other", hardware: null };
    case "leave":
      return null;
    default:
      return way satisfies never;
  }
}

/** mm. A member from tip to tip, as it is cut. */
export function cutLength({ shape, start, end }: ReadMember): number {
  const tip = (one: ReadMember["start"]) =>
    one.kind === "plane"
      ? tipOf(shape, { kind: "plane", slope: one.slope })
      : one.kind === "twoPlanes"
        ? tipOf(shape, { kind: "twoPlanes", faces: one.faces })
        : 0;
  return end.z + tip(end) - (start.z - tip(start));
}

/** How often each product stands in the whole; those of roots once. What stands in itself stands nowhere. */
export function timesOf({ products, uses, roots }: FoundFile): ReadonlyMap<number, number> {
  const within = grouped(uses, ({ child }) => child);
  const times = new Map<number, number>();
  const count = (id: number): number => {
    const known = times.get(id);
    if (known !== undefined) return known;
    times.set(id, 0);
    const above = (within.get(id) ?? []).reduce((sum, { parent }) => sum + count(parent), 0);
    const all = above + (roots.includes(id) ? 1 : 0);
    times.set(id, all);
    return all;
  };
  for (const { id } of products) count(id);
  return times;
}

export const MOST_LEVELS = 20;

/** A file read at another scale: what was declared in inches and drawn in millimetres, for one. */
export function scaledFile(file: FoundFile, by: number): FoundFile {
  if (by === 1) return file;
  const far = (place: Vec3): Vec3 => [place[0] * by, place[1] * by, place[2] * by];
  return {
    ...file,
    scaledBy: file.scaledBy * by,
    size: far(file.size),
    uses: file.uses.map((use) => ({ ...use, frame: { ...use.frame, origin: far(use.frame.origin) } })),
    products: file.products.map((product) => ({
      ...product,
      parts: product.parts.map((part) => ({
        ...part,
        taken: scaledReading(part.taken, by),
        otherwise: part.otherwise.map((one) => scaledReading(one, by)),
        volume: part.volume * by ** 3,
        low: far(part.low),
        high: far(part.high),
        gaps: part.gaps.map(({ length, middle, rim }) => ({
          length: length * by,
          middle: far(middle),
          rim: rim.map(far),
        })),
        triangles: part.triangles?.map((value) => value * by) ?? null,
        joinedWithin: part.joinedWithin === null ? null : part.joinedWithin * by,
      })),
    })),
  };
}

function scaledReading<R extends FoundReading>(read: R, by: number): R;
function scaledReading(read: FoundReading, by: number): FoundReading {
  const size = (value: number) => Math.round(value * by * 1e4) / 1e4;
  const far = (place: Vec3): Vec3 => [place[0] * by, place[1] * by, place[2] * by];
  const corner = ({ x, y, radius }: { readonly x: number; readonly y: number; readonly radius: number }) => ({
    x: x * by,
    y: y * by,
    radius: radius * by,
  });
  switch (read.kind) {
    case "other":
      return read;
    case "panel":
      return {
        ...read,
        origin: far(read.origin),
        length: size(read.length),
        width: size(read.width),
        thickness: size(read.thickness),
        outline: read.outline?.map(corner) ?? null,
        cutOuts: read.cutOuts.map((corners) => corners.map(corner)),
        holes: read.holes.map((hole) => ({
          ...hole,
          x: hole.x * by,
          y: hole.y * by,
          diameter: size(hole.diameter),
          depth: hole.depth === null ? null : size(hole.depth),
        })),
        grooves: read.grooves.map(({ face, x0, x1, y0, y1, depth }) => ({
          face,
          x0: x0 * by,
          x1: x1 * by,
          y0: y0 * by,
          y1: y1 * by,
          depth: size(depth),
        })),
      };
    case "member": {
      const end = (one: ReadMember["start"]): ReadMember["start"] =>
        one.kind === "cope"
          ? { ...one, z: one.z * by, centre: far(one.centre), radius: one.radius * by }
          : one.kind === "twoPlanes"
            ? { ...one, z: one.z * by, faces: [beyond(one.faces[0]), beyond(one.faces[1])] }
            : { ...one, z: one.z * by };
      const beyond = (face: EndFace): EndFace => ({ ...face, beyond: face.beyond * by });
      const sized = { ...read.shape, size: read.shape.size.map(size) } as ReadMember["shape"];
      const rooted =
        "rootRadius" in sized && sized.rootRadius !== undefined
          ? { ...sized, rootRadius: size(sized.rootRadius) }
          : sized;
      const shape =
        "taper" in rooted && rooted.taper
          ? { ...rooted, taper: { ...rooted.taper, toeRadius: size(rooted.taper.toeRadius) } }
          : rooted;
      return {
        ...read,
        shape,
        origin: far(read.origin),
        start: end(read.start),
        end: end(read.end),
        notches: read.notches.map((notch) => ({
          ...notch,
          depth: notch.depth * by,
          z: notch.z * by,
        })),
        holes: read.holes.map((hole) => ({
          ...hole,
          along: hole.along * by,
          across: far(hole.across),
          diameter: size(hole.diameter),
          slot: size(hole.slot),
          walls: [hole.walls[0] * by, hole.walls[1] * by] as const,
        })),
      };
    }
    default:
      return read satisfies never;
  }
}
