/** Round walls square to the length of a member: holes, and slots along it where two half walls stand between flats. */
import { dot, norm, scale, subtract, type Vec2, type Vec3 } from "../geometry";
import { at } from "../kernel";
import type { Body } from "./body";

/** A round hole or a slot along the member: where its axis meets the plane of the centroids that is square to it, and the way it runs. */
export type MemberHole = {
  readonly along: number;
  readonly across: Vec3;
  readonly way: Vec3;
  readonly diameter: number;
  /** mm. Its length over all along the member; of a round hole its diameter. */
  readonly slot: number;
  /** From where to where along its way its walls reach, from the centroids. */
  readonly walls: Vec2;
};

/** Sines: axes that lean less against the member are square to it. */
const SQUARE = 1e-3;
/** mm. */
const SAME = 0.01;

/** All corners of the triangles of a surface. */
export const pointsOf = (body: Body, index: number): readonly Vec3[] =>
  at(body.surfaces, index).triangles.flatMap((t) =>
    at(body.triangles, t).corners.map((corner) => at(body.points, corner)),
  );

type Wall = MemberHole & { readonly index: number; readonly centre: Vec3 };

export function holesOf(
  body: Body,
  { origin, along }: { readonly origin: Vec3; readonly along: Vec3 },
  used: ReadonlySet<number>,
): { readonly holes: readonly MemberHole[]; readonly faces: readonly number[] } {
  const walls: Wall[] = [];
  for (const [index, { surface }] of body.surfaces.entries()) {
    if (used.has(index) || surface.kind !== "cylinder" || !surface.isHollow) continue;
    if (Math.abs(dot(surface.axis, along)) > SQUARE) continue;
    const from = subtract(surface.centre, origin);
    const z = dot(from, along);
    const flat = subtract(from, scale(along, z));
    const across = subtract(flat, scale(surface.axis, dot(flat, surface.axis)));
    const reach = pointsOf(body, index).map((point) => dot(subtract(point, origin), surface.axis));
    const diameter = Math.round(2000 * surface.radius) / 1000;
    walls.push({
      along: z,
      across,
      way: surface.axis,
      diameter,
      slot: diameter,
      walls: [Math.min(...reach), Math.max(...reach)],
      index,
      centre: surface.centre,
    });
  }
  const holes: MemberHole[] = [];
  const faces: number[] = [];
  const taken = new Set<Wall>();
  for (const wall of walls) {
    if (taken.has(wall)) continue;
    taken.add(wall);
    faces.push(wall.index);
    const slot = slotFrom(
      body,
      wall,
      walls.filter((one) => !taken.has(one)),
      along,
      used,
    );
    if (slot) {
      taken.add(slot.other);
      faces.push(slot.other.index, ...slot.flats);
    }
    const { index: _, centre: __, ...hole } = wall;
    holes.push(
      slot
        ? {
            ...hole,
            along: (wall.along + slot.other.along) / 2,
            slot: Math.round(1000 * (Math.abs(wall.along - slot.other.along) + wall.diameter)) / 1000,
          }
        : hole,
    );
  }
  return { holes, faces };
}

/** The other half of a slot that a wall is half of: as wide, farther along the member, with both flats between them. */
function slotFrom(
  body: Body,
  wall: Wall,
  others: readonly Wall[],
  along: Vec3,
  used: ReadonlySet<number>,
): { readonly other: Wall; readonly flats: readonly number[] } | null {
  for (const other of others) {
    const isAlike =
      Math.abs(other.diameter - wall.diameter) < SAME &&
      Math.abs(Math.abs(dot(other.way, wall.way)) - 1) < SQUARE * SQUARE &&
      norm(subtract(other.across, wall.across)) < SAME &&
      Math.abs(other.along - wall.along) > SAME;
    if (!isAlike) continue;
    const middle = (wall.along + other.along) / 2;
    const [low, high] = [Math.min(wall.along, other.along), Math.max(wall.along, other.along)];
    const flats = body.surfaces.flatMap(({ surface }, index) => {
      if (used.has(index) || surface.kind !== "plane") return [];
      if (Math.abs(dot(surface.normal, wall.way)) > SQUARE || Math.abs(dot(surface.normal, along)) > SQUARE)
        return [];
      // It touches both halves from outside, and lies between them.
      const off = dot(surface.normal, wall.centre) - surface.offset;
      if (Math.abs(Math.abs(off) - wall.diameter / 2) > SAME) return [];
      const places = pointsOf(body, index).map(
        (point) => dot(subtract(point, wall.centre), along) + wall.along,
      );
      const isBetween =
        places.every((z) => z > low - SAME && z < high + SAME) && places.some((z) => z > middle);
      return isBetween ? [index] : [];
    });
    if (flats.length === 2) return { other, flats };
  }
  return null;
}
