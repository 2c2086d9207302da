/** The places of pieces that drawings take hold of, by names that survive edits. */
import { AT_HOME, boxOfPoints, type Frame, type Mesh, type Vec3 } from "../geometry";
import { type Assets, type Home, NO_ASSETS } from "../job";
import { remembersEach } from "../kernel";
import { meshOfStandIn } from "./bought";
import { holePlaces, placesOfMember } from "./member-solid";
import { placesOfPanel, roundingsOf } from "./panel-solid";
import { memberSolid, panelSolid, type Shape } from "./shape";

export type Features = {
  readonly home: Home;
  /** The own axes of the piece, in its home. */
  readonly frame: Frame;
  /** In its own axes, mm. */
  readonly places: ReadonlyMap<string, Vec3>;
  /** Diameters of holes, by the names of their middles. */
  readonly diameters: ReadonlyMap<string, number>;
  /** Rounded corners, by the names of their middles: the radius, and where the corner would be. */
  readonly roundings: ReadonlyMap<string, Rounding>;
};

export type Rounding = { readonly radius: number; readonly corner: Vec3 };

const NONE: ReadonlyMap<string, never> = new Map<string, never>();
const remembered = remembersEach<object, Features>();

/** What a record offers; null where nothing of it stands anywhere. */
export function featuresOf(shape: Shape, record: string, assets: Assets = NO_ASSETS): Features | null {
  const member = memberSolid(shape, record);
  if (member)
    return remembered(member, [], () => ({
      home: member.home,
      frame: member.frame,
      places: placesOfMember(member),
      diameters: new Map([...holePlaces(member)].map(([name, { diameter }]) => [name, diameter] as const)),
      roundings: NONE,
    }));
  const panel = panelSolid(shape, record);
  if (panel)
    return remembered(panel, [], () => {
      const places = placesOfPanel(panel);
      const diameters = new Map(
        [...places].flatMap(([name, [x, y]]) => {
          const hole = name.startsWith("hole ")
            ? panel.holes.find((one) => one.x === x && one.y === y)
            : undefined;
          return hole ? [[name, hole.diameter] as const] : [];
        }),
      );
      const roundings = new Map<string, Rounding>();
      for (const { name, corner, radius } of roundingsOf(panel))
        for (const [place, [, , z]] of places)
          if (place.startsWith(`${name}, `)) roundings.set(place, { radius, corner: [...corner, z] });
      return { home: panel.panel.assembly, frame: panel.frame, places, diameters, roundings };
    });
  const part = shape.bought.find((one) => one.part.id === record);
  return part
    ? remembered(part, [assets], () => ({
        home: part.part.assembly,
        frame: AT_HOME.frame,
        places: standInPlaces(meshOfStandIn(part, assets)),
        diameters: NONE,
        roundings: NONE,
      }))
    : null;
}

/** Which of several stand-ins by one record a place is on, from 1. */
export const standInOf = (place: string): number => Number(/^no (\d+), /.exec(place)?.[1] ?? 1);

/** Those of each stand-in; of several by one record each has its number, from 1. */
function standInPlaces(meshes: readonly Mesh[]): ReadonlyMap<string, Vec3> {
  const several = meshes.length > 1;
  return new Map(
    meshes.flatMap(({ vertices }, i) =>
      [...boxPlaces(vertices)].map(
        ([name, place]) => [several ? `no ${i + 1}, ${name}` : name, place] as const,
      ),
    ),
  );
}

/** The corners of the box round a stand-in. */
function boxPlaces(points: readonly Vec3[]): ReadonlyMap<string, Vec3> {
  if (points.length === 0) return new Map();
  const flat = boxOfPoints(points.map(([x, y]) => [x, y]));
  const heights = points.map(([, , z]) => z);
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  return new Map(
    [
      ["low", low],
      ["high", high],
    ].flatMap(([word, z]) =>
      (
        [
          ["front left", flat.x0, flat.y0],
          ["front right", flat.x1, flat.y0],
          ["back right", flat.x1, flat.y1],
          ["back left", flat.x0, flat.y1],
        ] as const
      ).map(([corner, x, y]) => [`${word} ${corner}`, [x, y, Number(z)] as Vec3] as const),
    ),
  );
}
