/** A job as products for other programs: every piece a solid of its own, assemblies as products that stand where they are placed. */
import type { EndFace } from "../ends";
import { type Frame, frameIn, type Mesh, reversedLoop, solidMesh, toLocal, type Vec2 } from "../geometry";
import type { Assets, Home, Job, Look } from "../job";
import { at, grouped } from "../kernel";
import {
  type Instance,
  type MemberSolid,
  meshOfStandIn,
  type PanelSolid,
  type Shape,
  solidOfMember,
  solidOfPanel,
} from "../shape";
import { sectionProperties } from "../stockroom";
import { type Brep, facetedBrep, mirroredBrep } from "./brep";
import { copedEnd } from "./coped";
import { type Drilling, drilled } from "./drilled";
import { flatBrep } from "./flat";
import { groovedBrep, notchedBrep } from "./layers";
import { type BarEnd, type FlatEnd, prismBrep, type SlantedEnd } from "./prism";

/** A piece as a solid, whatever colour it has. */
type BarePiece = {
  readonly name: string;
  readonly material: string | null;
  readonly brep: Brep;
  /** For pictures. */
  readonly mesh: () => Mesh;
};
type ModelPiece = BarePiece & { readonly look: Look | null };
export type ModelProduct = {
  readonly key: string;
  readonly name: string;
  readonly material: string | null;
  /** The colour that somebody gave it, or its assembly; null: it has that of its material. */
  readonly look: Look | null;
  /** null: it only holds others. */
  readonly brep: Brep | null;
  /** The same as triangles. */
  readonly mesh: (() => Mesh) | null;
  readonly holds: readonly { readonly product: string; readonly name: string; readonly frame: Frame }[];
};
export type Model = {
  readonly root: string;
  readonly products: readonly ModelProduct[];
  /** Names of pieces that have no closed solid and are left out. */
  readonly leftOut: readonly string[];
  /** Names of pieces whose curved faces go out as facets. */
  readonly faceted: readonly string[];
};

/** What somebody should know of a model that goes out. */
export const modelWords = ({ leftOut, faceted }: Model): readonly string[] => [
  ...(leftOut.length > 0 ? [`Left out, since they do not close to solids: ${leftOut.join(", ")}.`] : []),
  ...(faceted.length > 0 ? [`With flat facets in place of curved faces: ${faceted.join(", ")}.`] : []),
];

/** How fine curved faces are where they go out as facets. */
const FACETS = { step: Math.PI / 24 };

/** The model of a job, or of one of its assemblies. */
export function modelOf(job: Job, shape: Shape, assets: Assets, only: Home = null): Model {
  const products = new Map<string, ModelProduct>();
  const leftOut: string[] = [];
  const faceted: string[] = [];
  const placed = [...shape.places]
    .flatMap(([home, instances]) => instances.map((instance) => ({ home, instance })))
    .filter(({ instance: { key, counted } }) => key !== "" && counted !== "leftOut" && counted !== "guide");
  const byParent = grouped(placed, ({ instance: { key } }) =>
    key.slice(0, key.lastIndexOf("/", key.length - 2) + 1),
  );

  const pieceProduct = (
    key: string,
    piece: ModelPiece | null,
    name: string,
    mirrored: boolean,
  ): string | null => {
    if (!piece) {
      if (!leftOut.includes(name)) leftOut.push(name);
      return null;
    }
    const id = `${key}${mirrored ? " mirrored" : ""}`;
    if (!products.has(id)) {
      if (piece.brep.isFaceted && !faceted.includes(name)) faceted.push(name);
      products.set(id, {
        key: id,
        name: piece.name,
        material: piece.material,
        look: piece.look,
        brep: mirrored ? mirroredBrep(piece.brep) : piece.brep,
        mesh: mirrored ? () => mirroredMesh(piece.mesh()) : piece.mesh,
        holds: [],
      });
    }
    return id;
  };
  const cached = new Map<string, ModelPiece | null>();
  const once = (key: string, make: () => ModelPiece | null) => {
    const known = cached.get(key);
    if (known !== undefined) return known;
    const made = make();
    cached.set(key, made);
    return made;
  };

  const homeProduct = (home: Home, instance: Instance): string => {
    const { mirrored } = instance.pose;
    const id = `${home ?? "job"}${mirrored ? " mirrored" : ""} whole`;
    if (products.has(id)) return id;
    const name = home === null ? job.info.job.title : (job.assemblies[home]?.name ?? "Assembly");
    const holds: { product: string; name: string; frame: Frame }[] = [];
    // Held while it is filled: nothing stands in itself.
    products.set(id, { key: id, name, material: null, look: null, brep: null, mesh: null, holds });
    const own = rightHanded(instance.pose.frame, mirrored);
    const put = (product: string | null, as: string, frame: Frame, isMirrored: boolean) => {
      if (product !== null)
        holds.push({ product, name: as, frame: within(own, rightHanded(frame, isMirrored)) });
    };
    const looked = (piece: BarePiece | null, own: Look | null): ModelPiece | null =>
      piece && { ...piece, look: own ?? lookOfHome(job, home) };
    const place = (frame: Frame) => frameIn(instance.pose.frame, frame);
    for (const solid of shape.members) {
      if (solid.home !== home || solid.member.role === "guide") continue;
      const piece = once(solid.member.id, () => looked(memberPiece(solid), solid.member.look));
      put(
        pieceProduct(solid.member.id, piece, solid.member.name, mirrored),
        solid.member.name,
        place(solid.frame),
        mirrored,
      );
    }
    for (const solid of shape.panels) {
      if (solid.panel.assembly !== home || solid.panel.role === "guide") continue;
      const piece = once(solid.panel.id, () => looked(panelPiece(solid), solid.panel.look));
      put(
        pieceProduct(solid.panel.id, piece, solid.panel.name, mirrored),
        solid.panel.name,
        place(solid.frame),
        mirrored,
      );
    }
    for (const bought of shape.bought) {
      if (bought.part.assembly !== home || !bought.stand) continue;
      for (const [i, mesh] of meshOfStandIn(bought, assets).entries()) {
        const brep = facetedBrep(mesh);
        const key = `${bought.part.id} ${i}`;
        const bare = brep && { name: bought.part.name, material: null, brep, mesh: () => mesh };
        const piece = looked(bare, bought.part.look);
        put(
          pieceProduct(key, piece, bought.part.name, mirrored),
          bought.part.name,
          instance.pose.frame,
          mirrored,
        );
      }
    }
    for (const child of byParent.get(instance.key) ?? [])
      put(
        homeProduct(child.home, child.instance),
        job.assemblies[child.home ?? ""]?.name ?? "",
        child.instance.pose.frame,
        child.instance.pose.mirrored,
      );
    return id;
  };
  const first = (shape.places.get(only) ?? [])[0];
  const root = first ? homeProduct(only, first) : "";
  return { root, products: [...products.values()], leftOut, faceted };
}

/** The model of one member, panel or bought part in its own axes; null: there is no such piece that stands somewhere. */
export function pieceModelOf(job: Job, shape: Shape, assets: Assets, record: string): Model | null {
  const member = shape.members.find((one) => one.member.id === record);
  const panel = shape.panels.find((one) => one.panel.id === record);
  const bought = shape.bought.find((one) => one.part.id === record);
  const [stand] = bought ? meshOfStandIn(bought, assets) : [];
  const name = member?.member.name ?? panel?.panel.name ?? (stand && bought ? bought.part.name : null);
  if (name === null) return null;
  const brep = stand ? facetedBrep(stand) : null;
  const piece = member
    ? memberPiece(member)
    : panel
      ? panelPiece(panel)
      : stand && brep && { name, material: null, brep, mesh: () => stand };
  if (!piece) return { root: "", products: [], leftOut: [name], faceted: [] };
  const own = member?.member.look ?? panel?.panel.look ?? bought?.part.look ?? null;
  const home = member?.home ?? panel?.panel.assembly ?? bought?.part.assembly ?? null;
  const look = own ?? lookOfHome(job, home);
  return {
    root: record,
    products: [
      { key: record, name, material: piece.material, look, brep: piece.brep, mesh: piece.mesh, holds: [] },
    ],
    leftOut: [],
    faceted: piece.brep.isFaceted ? [name] : [],
  };
}

const lookOfHome = (job: Job, home: Home): Look | null =>
  home === null ? null : (job.assemblies[home]?.look ?? null);

const mirroredMesh = ({ vertices, triangles, edges }: Mesh): Mesh => ({
  vertices: vertices.map(([x, y, z]) => [0 - x, y, z]),
  // Turned round, so that they still look outwards.
  triangles: triangles.map((_, i) => at(triangles, i % 3 === 0 ? i : i % 3 === 1 ? i + 1 : i - 1)),
  edges,
});

/** The frame of a mirrored thing with its x axis turned round: its solid is mirrored in x instead. */
const rightHanded = (frame: Frame, mirrored: boolean): Frame =>
  mirrored ? { ...frame, x: [-frame.x[0], -frame.x[1], -frame.x[2]] } : frame;

/** A frame as it stands in the axes of another. */
function within(outer: Frame, inner: Frame): Frame {
  const home: Frame = { ...outer, origin: [0, 0, 0] };
  return {
    origin: toLocal(outer, inner.origin),
    x: toLocal(home, inner.x),
    y: toLocal(home, inner.y),
    z: toLocal(home, inner.z),
  };
}

function memberPiece(solid: MemberSolid): BarePiece | null {
  const { member, material, entry, work } = solid;
  const mesh = () => solidMesh(solidOfMember(solid, FACETS));
  const named = { name: member.name, material, mesh };
  const { loops, extent } = sectionProperties(entry.shape);
  const [low, high] = [barEnd(solid, "start", -1), barEnd(solid, "end", 1)];
  const isAllFlat =
    loops.every((loop) => loop.every(({ kind }) => kind === "line")) &&
    [solid.start, solid.end].every(({ form }) => form.kind !== "cope");
  const bare =
    work === null || work.notches.length === 0
      ? low && high && prismBrep(loops, low, high)
      : isAllFlat
        ? // Notches have square corners: without its holes such a member is all flat.
          flatBrep(solidOfMember({ ...solid, work: { ...work, holes: [] } }, FACETS), false)
        : low && high && notchedBrep(solid, loops, low, high);
  const far = 2 * Math.hypot(...extent);
  const whole =
    bare &&
    drilledAll(
      bare,
      (work?.holes ?? []).map(
        ({ begins: [x, y], outwards: [u, v], z, diameter, slot, walls }): Drilling => ({
          from: [x + u * far, y + v * far, z],
          way: [0 - u, 0 - v, 0],
          radius: diameter / 2,
          slot: slot > diameter ? [0, 0, (slot - diameter) / 2] : null,
          to: walls === "all" ? "all" : "first",
        }),
      ),
    );
  if (whole) return { ...named, brep: whole };
  const brep = flatBrep(solidOfMember(solid, FACETS), true);
  return brep && { ...named, brep };
}

/** An end on planes or on a cylinder; null: it is neither. `sign`: slopes say how far an end reaches out, which at the start is down. */
function barEnd(solid: MemberSolid, side: "start" | "end", sign: 1 | -1): BarEnd | null {
  const { form, z } = solid[side];
  const plane = ({ slope, beyond }: EndFace): SlantedEnd => ({
    height: z + sign * beyond,
    slope: [sign * slope[0] + 0, sign * slope[1] + 0],
  });
  switch (form.kind) {
    case "plane":
      return [plane({ slope: form.slope, beyond: 0 })];
    case "twoPlanes":
      return [plane(form.faces[0]), plane(form.faces[1])];
    case "cope":
      return copedEnd(form, z, sign, solid.entry.shape);
    default:
      return form satisfies never;
  }
}

function panelPiece(solid: PanelSolid): BarePiece | null {
  const { panel, material, length, width, thickness, outline, grooves, notches, holes, cutOuts } = solid;
  if (thickness === null) return null;
  const mesh = () => solidMesh(solidOfPanel(solid, FACETS));
  const named = { name: panel.name, material, mesh };
  const flat: Vec2 = [0, 0];
  const corners: readonly Vec2[] = [
    [0, 0],
    [length, 0],
    [length, width],
    [0, width],
  ];
  const rectangle = corners.map((from, i) => ({ kind: "line" as const, from, to: at(corners, (i + 1) % 4) }));
  const loops = [outline?.loop ?? rectangle, ...cutOuts.map(({ loop }) => reversedLoop(loop))];
  const hasArcs = loops.flat().some(({ kind }) => kind === "arc");
  const [low, high]: readonly [FlatEnd, FlatEnd] = [
    [{ height: 0, slope: flat }],
    [{ height: thickness, slope: flat }],
  ];
  const isWhole = grooves.length === 0 && notches.length === 0;
  const bare = isWhole
    ? prismBrep(loops, low, high)
    : hasArcs
      ? groovedBrep(solid, loops, low, high)
      : // Grooves and notches have square corners: without its holes such a panel is all flat.
        flatBrep(solidOfPanel({ ...solid, holes: [] }, FACETS), false);
  const whole =
    bare &&
    drilledAll(
      bare,
      holes.map(
        ({ x, y, diameter, depth, face }): Drilling => ({
          from: [x, y, face === "good" ? 2 * thickness : -thickness],
          way: [0, 0, face === "good" ? -1 : 1],
          radius: diameter / 2,
          slot: null,
          to: depth ?? "all",
        }),
      ),
    );
  if (whole) return { ...named, brep: whole };
  const brep = flatBrep(solidOfPanel(solid, FACETS), true);
  return brep && { ...named, brep };
}

/** All holes one after the other; null: one of them cannot be said exactly. */
const drilledAll = (brep: Brep, drillings: readonly Drilling[]): Brep | null =>
  drillings.reduce<Brep | null>((body, one) => body && drilled(body, one), brep);
