/**
 * What was found as ordinary records of a job: members on lines with free ends, panels, bought parts, assemblies with their
 * placements. Ends are joined to what they meet afterwards (`joins.ts`).
 */

import { type End, type EndFace, tipOf } from "../ends";
import {
  AT_HOME,
  add,
  dot,
  dot2,
  type Frame,
  frameAlong,
  frameIn,
  scale,
  toWorld,
  turned,
  type Vec2,
  type Vec3,
} from "../geometry";
import {
  type Asset,
  assetIdOf,
  type BoughtPart,
  type EndCut,
  type Home,
  type Job,
  type MemberWork,
  newAssembly,
  newBoughtPart,
  newMember,
  newPanel,
  newPlacement,
  newPoint,
  type Panel,
  textOf,
} from "../job";
import { grouped } from "../kernel";
import { type LengthUnit, MM_PER_UNIT, roundTo, toDegrees } from "../measure";
import type { ReadEnd, MemberHole as ReadHole, ReadMember, ReadPanel } from "../recognise";
import { type SectionShape, type Stockroom, sectionProperties } from "../stockroom";
import { type FoundFile, type FoundPart, MOST_LEVELS, readingFor } from "./found";
import { boardKey, sectionKey, type Ways, wayOf } from "./stock";

export type ImportChoices = {
  readonly ways: Ways;
  /** Entries of the stockroom by the keys of needed sections and boards; what is not here stays without. */
  readonly sections: ReadonlyMap<string, string>;
  readonly boards: ReadonlyMap<string, string>;
};

/** A member as it enters, with what the file says of its ends. */
export type EnteredMember = {
  readonly id: string;
  readonly home: Home;
  readonly name: string;
  readonly shape: SectionShape;
  readonly section: string | null;
  readonly material: string | null;
  readonly roll: number;
  readonly work: readonly MemberWork[];
  /** Where its centroids meet its ends, in the axes of its home. mm. */
  readonly from: Vec3;
  readonly to: Vec3;
  readonly x: Vec3;
  readonly y: Vec3;
  readonly start: EnteredEnd;
  readonly end: EnteredEnd;
};
export type EnteredEnd = {
  readonly read: ReadEnd["kind"];
  /** How far it reaches out per mm across; square where the file's end is no plane. */
  readonly slope: readonly [number, number];
  /** Of an end in two planes both of them, from where the member's line ends. */
  readonly faces: readonly [EndFace, EndFace] | null;
  /** The axis of a cope in the axes of the home, with its radius. */
  readonly cope: { readonly centre: Vec3; readonly axis: Vec3; readonly radius: number } | null;
};

export type Entered = {
  readonly members: readonly EnteredMember[];
  readonly panels: readonly Panel[];
  readonly boughtParts: readonly BoughtPart[];
  readonly assemblies: Job["assemblies"][string][];
  readonly placements: Job["placements"][string][];
  readonly assets: readonly Asset[];
};

export type NewId = (kind: string) => string;

/** All that enters. Products that hold others become assemblies; those that stand in nothing stand in the job itself. */
export function enteredOf(
  file: FoundFile,
  { ways, sections, boards }: ImportChoices,
  {
    stockroom,
    unit,
    newId,
  }: { readonly stockroom: Stockroom; readonly unit: LengthUnit; readonly newId: NewId },
): Entered {
  const products = new Map(file.products.map((product) => [product.id, product]));
  const within = grouped(file.uses, ({ parent }) => parent);
  const assemblyOf = new Map<number, string>();
  const members: EnteredMember[] = [];
  const panels: Panel[] = [];
  const boughtParts: BoughtPart[] = [];
  const assemblies: Job["assemblies"][string][] = [];
  const placements: Job["placements"][string][] = [];
  const assets = new Map<string, Asset>();
  const text = (mm: number) => textOf(roundTo(mm / MM_PER_UNIT[unit], 7));
  const texts = (place: Vec3): [string, string, string] => [text(place[0]), text(place[1]), text(place[2])];
  const plain = (value: number) => textOf(roundTo(value, 12));

  const enterPart = (part: FoundPart, name: string, material: string | null, frame: Frame, home: Home) => {
    const read = readingFor(part, wayOf(ways, part.key));
    if (!read) return;
    switch (read.kind) {
      case "member": {
        const section = sections.get(sectionKey(read.shape, material)) ?? null;
        const entry = section === null ? undefined : stockroom.sectionById.get(section);
        members.push(
          memberFrom(newId("member"), read, {
            name,
            section,
            material,
            frame,
            home,
            entry: entry?.shape ?? null,
            text,
            newId,
          }),
        );
        return;
      }
      case "panel":
        panels.push(
          panelFrom(newId("panel"), read, {
            name,
            board: boards.get(boardKey(read.thickness, material)) ?? null,
            material,
            frame,
            home,
            text,
            texts,
            plain,
            newId,
          }),
        );
        return;
      case "other": {
        const foot: Vec3 = [(part.low[0] + part.high[0]) / 2, (part.low[1] + part.high[1]) / 2, part.low[2]];
        const asset: Asset | null = part.triangles && {
          kind: "shape",
          triangles: part.triangles.map((value, i) => roundTo(value - (foot[(i % 3) as 0 | 1 | 2] ?? 0), 4)),
        };
        if (asset) assets.set(assetIdOf(asset), asset);
        const size: Vec3 = [
          part.high[0] - part.low[0],
          part.high[1] - part.low[1],
          part.high[2] - part.low[2],
        ];
        boughtParts.push(
          newBoughtPart(newId("bought"), {
            name,
            entry: entryNamed(name, stockroom),
            count: "1",
            assembly: home,
            note: part.gaps.length > 0 ? "No solid in the file: its shape is open." : "",
            stand: {
              at: texts(toWorld(frame, foot)),
              turn: turnTexts(frame),
              step: ["0", "0", "0"],
              as: asset
                ? { kind: "shape", name: name.slice(0, 80), asset: assetIdOf(asset) }
                : { kind: "box", size: texts(size.map((one) => Math.max(one, 1)) as unknown as Vec3) },
            },
          }),
        );
        return;
      }
      default:
        return read satisfies never;
    }
  };

  const enterContents = (id: number, frame: Frame, home: Home, depth: number) => {
    const product = products.get(id);
    if (!product || depth > MOST_LEVELS) return;
    for (const [i, part] of product.parts.entries())
      enterPart(
        part,
        partName(part.name, product.name, product.parts.length, i),
        product.material,
        frame,
        home,
      );
    for (const use of within.get(id) ?? []) {
      const place = frameIn(frame, use.frame);
      const child = products.get(use.child);
      if (!child) continue;
      if (!within.has(use.child)) {
        enterContents(use.child, place, home, depth + 1);
        continue;
      }
      const known = assemblyOf.get(use.child);
      const assembly = known ?? newId("assembly");
      if (known === undefined) {
        assemblyOf.set(use.child, assembly);
        assemblies.push(newAssembly(assembly, { name: nameText(child.name, "Assembly") }));
        enterContents(use.child, AT_HOME.frame, assembly as Home, depth + 1);
      }
      placements.push(
        newPlacement(newId("placement"), {
          assembly,
          into: home,
          at: texts(place.origin),
          turn: turnTexts(place),
        }),
      );
    }
  };
  for (const root of file.roots) enterContents(root, AT_HOME.frame, null, 0);
  return { members, panels, boughtParts, assemblies, placements, assets: [...assets.values()] };
}

/** A name that a record may have. */
function nameText(name: string, otherwise: string): string {
  const short = [...name.replace(/\s+/g, " ").trim()].slice(0, 60).join("");
  return short === "" ? otherwise : short;
}

/** Solids are often called as what they are: "SOLID", or nothing. */
export function partName(own: string, product: string, count: number, index: number): string {
  const isPlain = /^(#\d+|solid|body|brep|none|manifold.*|)$/i.test(own.trim());
  if (!isPlain) return nameText(own, product);
  const base = nameText(product, "Part");
  return count > 1 ? `${base.slice(0, 54)} ${index + 1}` : base;
}

const entryNamed = (name: string, { bought }: Stockroom): string | null =>
  bought.find((entry) => entry.name.trim().toLowerCase() === name.trim().toLowerCase())?.id ?? null;

/** Degrees about width, depth and height, in this order, that turn a right-handed frame from where it would stand unturned. */
function turnTexts({ x, y, z }: Frame): [string, string, string] {
  const depth = Math.asin(Math.min(1, Math.max(-1, -x[2])));
  const isUpright = Math.abs(x[2]) > 1 - 1e-12;
  const width = isUpright ? 0 : Math.atan2(y[2], z[2]);
  const height = isUpright ? Math.atan2(-y[0], y[1]) : Math.atan2(x[1], x[0]);
  const degrees = (angle: number) => textOf(roundTo(toDegrees(angle), 9));
  return [degrees(width), degrees(depth), degrees(height)];
}

type MemberPlace = {
  readonly name: string;
  readonly section: string | null;
  readonly material: string | null;
  readonly frame: Frame;
  readonly home: Home;
  /** The shape of its entry, whose sizes may stand the other way round. */
  readonly entry: SectionShape | null;
  readonly text: (mm: number) => string;
  readonly newId: NewId;
};

function memberFrom(id: string, read: ReadMember, place: MemberPlace): EnteredMember {
  const { frame, entry, text, newId } = place;
  // An entry of 20 x 40 stands for a read section of 40 x 20 when it is turned by a quarter.
  const [a = 0, b = 0] = read.shape.size;
  const [c = 0] = entry?.size ?? [];
  const isTurned =
    entry !== null && BOXES.has(read.shape.kind) && Math.abs(a - b) > 0.05 && Math.abs(c - b) < 0.05;
  const [readX, readY] = isTurned ? [read.y, scale(read.x, -1)] : [read.x, read.y];
  const [x, y] = [turned(frame, readX), turned(frame, readY)];
  const shape = entry ?? read.shape;
  // Sections of one size may have centroids a little apart (other root radii): their boxes lie on one another.
  const [readBox, ownBox] = [sectionProperties(read.shape).boxCentre, sectionProperties(shape).boxCentre];
  const shift: Vec2 = isTurned ? [0, 0] : [readBox[0] - ownBox[0], readBox[1] - ownBox[1]];
  const origin = add(read.origin, add(scale(readX, shift[0]), scale(readY, shift[1])));
  const turnedSlope = ([u, v]: Vec2): Vec2 => (isTurned ? [v, -u] : [u, v]);
  const [first, last] = [endAt(read.start, shift, turnedSlope), endAt(read.end, shift, turnedSlope)];
  const [startZ, endZ] = [read.start.z - first.reach, read.end.z + last.reach];
  const on = (z: number): Vec3 => toWorld(frame, add(origin, scale(read.along, z)));
  const [from, to] = [on(startZ), on(endZ)];
  const level = frameAlong(from, to, 0);
  const roll = level ? toDegrees(Math.atan2(dot(x, level.y), dot(x, level.x))) : 0;
  const entered = (one: ReadEnd, { faces }: typeof first): EnteredEnd => ({
    read: one.kind,
    slope: one.kind === "plane" ? turnedSlope(one.slope) : [0, 0],
    faces,
    cope:
      one.kind === "cope"
        ? { centre: toWorld(frame, one.centre), axis: turned(frame, one.axis), radius: one.radius }
        : null,
  });
  const [start, finish] = [entered(read.start, first), entered(read.end, last)];
  // Holes are measured from the tip of the end.
  const form: End = start.faces
    ? { kind: "twoPlanes", faces: start.faces }
    : { kind: "plane", slope: start.slope };
  const tip = startZ - tipOf(shape, form);
  return {
    id,
    home: place.home,
    name: nameText(place.name, "Member"),
    shape,
    section: place.section,
    material: place.material,
    roll: roundTo(roll, 9),
    work: read.holes.map((hole) =>
      holeFrom(hole, {
        x: readX,
        y: readY,
        extent: sectionProperties(shape).extent,
        boxCentre: isTurned ? [0, 0] : readBox,
        text,
        id: newId("work"),
        tip,
      }),
    ),
    from,
    to,
    x,
    y,
    start,
    end: finish,
  };
}

/** How much farther out an end meets an axis that lies `shift` beside the one it was read on, and its two planes seen from there. */
function endAt(
  end: ReadEnd,
  shift: Vec2,
  turnedSlope: (slope: Vec2) => Vec2,
): { readonly reach: number; readonly faces: EnteredEnd["faces"] } {
  if (end.kind === "plane") return { reach: dot2(end.slope, shift), faces: null };
  if (end.kind !== "twoPlanes") return { reach: 0, faces: null };
  const [a, b] = end.faces;
  const [first, second] = [a.beyond + dot2(a.slope, shift), b.beyond + dot2(b.slope, shift)];
  const reach = Math.min(first, second);
  return {
    reach,
    faces: [
      { slope: turnedSlope(a.slope), beyond: first - reach },
      { slope: turnedSlope(b.slope), beyond: second - reach },
    ],
  };
}

const BOXES: ReadonlySet<string> = new Set(["rectangularTube", "flat", "timber"]);

function holeFrom(
  hole: ReadHole,
  {
    x,
    y,
    extent,
    boxCentre,
    text,
    id,
    tip,
  }: {
    readonly x: Vec3;
    readonly y: Vec3;
    readonly extent: Vec2;
    /** From the centroid that the hole was measured from. */
    readonly boxCentre: Vec2;
    readonly text: (mm: number) => string;
    readonly id: string;
    readonly tip: number;
  },
): MemberWork {
  const isUpright = Math.abs(dot(hole.way, y)) > Math.abs(dot(hole.way, x));
  const [way, half, middle] = isUpright ? [y, extent[1] / 2, boxCentre[1]] : [x, extent[0] / 2, boxCentre[0]];
  const sign = dot(hole.way, way) < 0 ? -1 : 1;
  const [low, high] = sign > 0 ? hole.walls : ([-hole.walls[1], -hole.walls[0]] as const);
  // It begins at the side that its walls reach, and goes through all where they reach both.
  const [atLow, atHigh] = [low < middle - half + 0.05, high > middle + half - 0.05];
  const face = isUpright ? (atLow && !atHigh ? "bottom" : "top") : atLow && !atHigh ? "left" : "right";
  const across = isUpright ? dot(hole.across, x) - boxCentre[0] : dot(hole.across, y) - boxCentre[1];
  return {
    id,
    kind: "hole",
    face,
    from: "start",
    along: text(hole.along - tip),
    across: text(across),
    diameter: text(hole.diameter),
    slot: hole.slot > hole.diameter ? text(hole.slot) : "0",
    walls: atLow && atHigh ? "all" : "one",
    count: "1",
    step: "0",
  };
}

type PanelPlace = {
  readonly name: string;
  readonly board: string | null;
  readonly material: string | null;
  readonly frame: Frame;
  readonly home: Home;
  readonly text: (mm: number) => string;
  readonly texts: (place: Vec3) => [string, string, string];
  readonly plain: (value: number) => string;
  readonly newId: NewId;
};

function panelFrom(
  id: string,
  read: ReadPanel,
  { name, board, material, frame, home, text, texts, plain, newId }: PanelPlace,
): Panel {
  const way = (direction: Vec3): [string, string, string] => {
    const [a, b, c] = turned(frame, direction);
    return [plain(a), plain(b), plain(c)];
  };
  const holes = read.holes.map((hole) => ({
    id: newId("work"),
    kind: "hole" as const,
    face: hole.face,
    x: text(hole.x),
    y: text(hole.y),
    diameter: text(hole.diameter),
    depth: hole.depth === null ? null : text(hole.depth),
    count: "1",
    step: "0",
    along: "length" as const,
  }));
  const grooves = read.grooves.map(({ face, x0, x1, y0, y1, depth }) => {
    const isLong = x1 - x0 >= y1 - y0;
    return {
      id: newId("work"),
      kind: "groove" as const,
      face,
      from: isLong ? ("front" as const) : ("left" as const),
      distance: text(isLong ? y0 : x0),
      width: text(isLong ? y1 - y0 : x1 - x0),
      depth: text(depth),
      stopAtStart: text(isLong ? x0 : y0),
      stopAtEnd: text(isLong ? read.length - x1 : read.width - y1),
    };
  });
  return newPanel(id, {
    name: nameText(name, "Panel"),
    board,
    material: board === null ? material : null,
    assembly: home,
    origin: texts(toWorld(frame, read.origin)),
    lengthAxis: way(read.x),
    faceAxis: way(read.face),
    length: text(read.length),
    width: text(read.width),
    grain: "any",
    outline:
      read.outline?.map(({ x, y, radius }) => ({
        id: newId("corner"),
        fromX: "left" as const,
        x: text(x),
        fromY: "front" as const,
        y: text(y),
        radius: text(radius),
      })) ?? null,
    work: [...grooves, ...holes],
  });
}

/** A member's record on a line between two points that exist, its ends free. */
export function freeRecords(member: EnteredMember, unit: LengthUnit, newId: NewId) {
  const texts = (place: Vec3): [string, string, string] => [
    textOf(roundTo(place[0] / MM_PER_UNIT[unit], 7)),
    textOf(roundTo(place[1] / MM_PER_UNIT[unit], 7)),
    textOf(roundTo(place[2] / MM_PER_UNIT[unit], 7)),
  ];
  const point = (place: Vec3, name: string) => newPoint(newId("point"), name, texts(place), member.home);
  return {
    point,
    record: (line: string, start: EndCut, end: EndCut) =>
      newMember(member.id, line, {
        name: member.name,
        from: "",
        to: "",
        section: member.section,
        material: member.section === null ? member.material : null,
        roll: textOf(member.roll),
        cardinal: 10,
        start,
        end,
        work: member.work,
      }),
  };
}
