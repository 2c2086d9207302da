/**
 * How a member ends, whatever made it so. An end stands at a place z on the axis (the line of centroids) and, over a
 * point p of the section, at a height h(p) beyond it: the start surface is z − h, the end surface z + h. So h is counted
 * outwards at both ends, and a slope points to the long point.
 */
import type { Vec2 } from "../geometry";
import type { LengthStyle } from "../measure";
import type { PlaneTurn, SectionShape } from "../stockroom";

/** h = s·p; |s| is the tangent of the angle from square. */
export type PlaneEnd = { readonly kind: "plane"; readonly slope: Vec2 };

/** One plane of several: h = beyond + s·p, in mm. */
export type EndFace = { readonly slope: Vec2; readonly beyond: number };

/** Cut by two planes, of which the lower one stands at each point. The lesser `beyond` is 0. */
export type TwoPlaneEnd = { readonly kind: "twoPlanes"; readonly faces: readonly [EndFace, EndFace] };

/**
 * A round member that fits round another round one. `u`: the unit vector in the section to the side where the axes
 * enclose θ; `offset`: of its axis from the other's, across u; `radius`: what is met, gap included. All in mm.
 */
export type CopeEnd = {
  readonly kind: "cope";
  readonly u: Vec2;
  readonly offset: Vec2;
  readonly cos: number;
  readonly sin: number;
  readonly radius: number;
  readonly curve: CopeCurve;
};
/** `surface`: the other's true surface; `fit`: for a blade held square to the member, so that its bore clears too. */
export type CopeCurve = "surface" | "fit";

export type End = PlaneEnd | TwoPlaneEnd | CopeEnd;

/** What two ends may differ by and still be one: lengths in nanometres, slopes as numbers. */
export type Tolerance = { readonly lengthNm: number; readonly slope: number };

/** Two vectors of which the first is turned onto the second, and the tolerance between them. */
export type Wave = { readonly from: Vec2; readonly to: Vec2; readonly unit: number };

/** One way to turn an end onto another: what a turn brings nearer, and the difference that none changes. */
export type Way = { readonly waves: readonly Wave[]; readonly fixed: number };

/** A point of an end seen from the side: where across the depth, from its upper edge (0) to the lower (1), and how far out. */
export type ProfilePoint = { readonly across: number; readonly out: number };

/** From which side an end is seen: along x one sees the depth along y, and the other way round. */
export type SeenAlong = {
  readonly axis: 0 | 1;
  readonly depth: number;
  readonly section: SectionShape | null;
};

/** Everything that a kind of end has to say of itself; one module each, and the registry holds them all. */
export type EndKind<E extends End> = {
  /** In one word, for a cell in which there is no room for more. */
  readonly name: string;
  /** Whether a saw cuts it, one plane after the other. */
  readonly sawn: boolean;
  /** h over the points of a section, in mm. */
  height(end: E, section: SectionShape): (point: Vec2) => number;
  /** The mean of h over the section: what it adds to the exact volume, per area. */
  mean(end: E, section: SectionShape): number;
  /** The planes of which the lowest stands at each point; null: the end is curved. */
  faces(end: E): readonly EndFace[] | null;
  /** On the grid on which pieces are compared. */
  snapped(end: E): E;
  /** Seen after a turn or a mirror of the section. */
  turned(end: E, rows: PlaneTurn["rows"]): E;
  /** The greatest difference between two ends as they lie, in units of tolerance. */
  apart(a: E, b: E, tolerance: Tolerance): number;
  /** The ways in which one can be turned onto the other about the axis. */
  ways(a: E, b: E, tolerance: Tolerance): readonly Way[];
  /** Numbers that no turn and no mirror changes; for order only. */
  sizes(end: E): readonly number[];
  /** All its numbers; for order only. */
  numbers(end: E): readonly number[];
  /** Where it leans to, zero where it leans nowhere; `either`: the opposite direction says the same. */
  lean(end: E): { readonly towards: Vec2; readonly either: boolean };
  /** The slopes of its planes; of a curved end the one that it follows on the whole. */
  slopes(end: E): readonly Vec2[];
  /** What the bench has to know beside its angles; null: nothing. */
  note(end: E, style: LengthStyle): string | null;
  /** All its numbers in words, so that it can be made from them alone; angles from square towards the sides of the section. */
  told(end: E, style: LengthStyle): string;
  /** Its outline from the side, in drawn units, from the upper edge to the lower one. */
  profile(end: E, seen: SeenAlong): readonly ProfilePoint[];
  /** As files tell it: angles in degrees, lengths in mm. */
  record(end: E): EndRecord;
};

type Angles = { readonly angle: number; readonly compound: readonly [number, number] };
export type EndRecord =
  | ({ readonly kind: "plane" } & Angles)
  | { readonly kind: "twoPlanes"; readonly planes: readonly (Angles & { readonly beyond: number })[] }
  | ({
      readonly kind: "cope";
      readonly radius: number;
      readonly offset: number;
      readonly curve: CopeCurve;
    } & Angles);
