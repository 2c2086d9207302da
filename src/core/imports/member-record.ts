/** A member that was found as it enters: on the line of its section's centroids, with its ends, holes and slots. */
import { type End, type EndFace, tipOf } from "../ends";
import {
  add,
  dot,
  dot2,
  type Frame,
  frameAlong,
  scale,
  toWorld,
  turned,
  type Vec2,
  type Vec3,
} from "../geometry";
import {
  type EndCut,
  type Home,
  type Look,
  type MemberWork,
  memberHolesInRows,
  newMember,
  newPoint,
  textOf,
} from "../job";
import { type LengthUnit, MM_PER_UNIT, roundTo, toDegrees } from "../measure";
import type { ReadEnd, MemberHole as ReadHole, ReadMember } from "../recognise";
import { type SectionShape, sectionProperties } from "../stockroom";

/** A member as it enters, with what the file says of its ends. */
export type EnteredMember = {
  readonly id: string;
  readonly home: Home;
  readonly name: string;
  readonly look: Look | null;
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

export type NewId = (kind: string) => string;

/** A name that a record may have. */
export function nameText(name: string, otherwise: string): string {
  const short = [...name.replace(/\s+/g, " ").trim()].slice(0, 60).join("");
  return short === "" ? otherwise : short;
}

type MemberPlace = {
  readonly name: string;
  readonly look: Look | null;
  readonly section: string | null;
  readonly material: string | null;
  readonly frame: Frame;
  readonly home: Home;
  /** The shape of its entry, whose sizes may stand the other way round. */
  readonly entry: SectionShape | null;
  readonly unit: LengthUnit;
  readonly newId: NewId;
};

/** A member that was read as it enters a home, on the line of the centroids of the section that it gets. */
export function memberFrom(id: string, read: ReadMember, place: MemberPlace): EnteredMember {
  const { frame, entry, unit, newId } = place;
  const text = (mm: number) => textOf(roundTo(mm / MM_PER_UNIT[unit], 7));
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
  // Holes and notches are measured from the tip of an end.
  const [tip, lastTip] = [startZ - tipOf(shape, formOf(start)), endZ + tipOf(shape, formOf(finish))];
  return {
    id,
    home: place.home,
    name: nameText(place.name, "Member"),
    look: place.look,
    shape,
    section: place.section,
    material: place.material,
    roll: roundTo(roll, 9),
    work: [
      ...memberHolesInRows(
        read.holes.map((hole) =>
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
        unit,
      ),
      ...read.notches.map(({ side, way, depth, z }): MemberWork => {
        const [across, up] = [dot(way, readX), dot(way, readY)];
        const length = side === "start" ? z - tip : lastTip - z;
        return {
          id: newId("work"),
          kind: "notch",
          face: Math.abs(up) > Math.abs(across) ? (up > 0 ? "top" : "bottom") : across > 0 ? "right" : "left",
          end: side,
          depth: text(depth),
          length: text(length),
        };
      }),
    ],
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

const formOf = ({ faces, slope }: EnteredEnd): End =>
  faces ? { kind: "twoPlanes", faces } : { kind: "plane", slope };

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
        look: member.look,
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
