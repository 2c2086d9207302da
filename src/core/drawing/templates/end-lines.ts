/** The line of an end over a surface that is laid flat: what is marked round a member and cut along. */
import { type End, type EndFace, kindOf, tipOf } from "../../ends";
import { dot2, type Vec2 } from "../../geometry";
import { at } from "../../kernel";
import type { SectionShape } from "../../stockroom";
import type { Surface, SurfacePlace } from "./surface";

/** `surface`: as the end meets the surface that the paper lies on; `fit`: for a blade held square to the member, so that all of the wall clears. */
export type TemplateLine = "surface" | "fit";

export type EndLines = {
  /** From the left edge on; heights above the tip of the end, the point of the member that reaches farthest out: at most 0. */
  readonly chosen: readonly Vec2[];
  /** On the other surface of the wall, seen through it; null: there is none. */
  readonly other: readonly Vec2[] | null;
  /** How far the lowest of both stands below the tip. */
  readonly depth: number;
};

/** The lines of an end over a surface. mm. */
export function endLines(shape: SectionShape, end: End, surface: Surface, line: TemplateLine): EndLines {
  const kind = kindOf(end);
  const height = kind.height(end, shape);
  const tip = tipOf(shape, end);
  const faces = kind.faces(end) ?? [];
  const over = (placeOf: (place: SurfacePlace) => Vec2): readonly Vec2[] =>
    withRidges(
      surface.places.map((place) => ({ along: place.along, p: placeOf(place) })),
      faces,
    ).map(({ along, p }): Vec2 => [along, height(p) - tip]);
  const own = over(({ on }) => on);
  const other = surface.hasWall ? over(({ through }) => through) : null;
  // Planes are lowest on one of the two surfaces; a saddle that is cut to fit says so itself, with one height through the wall.
  const chosen =
    line === "fit" && other && faces.length > 0
      ? lowestOf(
          surface.places.map((place) => ({
            along: place.along,
            low: Math.min(height(place.on), height(place.through)) - tip,
          })),
        )
      : own;
  const all = [...chosen, ...(other ?? [])];
  return { chosen, other, depth: -Math.min(...all.map(([, y]) => y)) };
}

const lowestOf = (places: readonly { readonly along: number; readonly low: number }[]): readonly Vec2[] =>
  places.map(({ along, low }): Vec2 => [along, low]);

type Over = { readonly along: number; readonly p: Vec2 };

/** With the places at which one plane gives way to another. */
function withRidges(places: readonly Over[], faces: readonly EndFace[]): readonly Over[] {
  const [a, b] = faces;
  if (!a || !b) return places;
  const above = ({ p }: Over) => b.beyond + dot2(b.slope, p) - a.beyond - dot2(a.slope, p);
  return places.flatMap((place, i): readonly Over[] => {
    if (i === 0) return [place];
    const before = at(places, i - 1);
    const [from, to] = [above(before), above(place)];
    if (from * to >= 0) return [place];
    const t = from / (from - to);
    const on = (k: 0 | 1) => before.p[k] + (place.p[k] - before.p[k]) * t;
    return [{ along: before.along + (place.along - before.along) * t, p: [on(0), on(1)] }, place];
  });
}
