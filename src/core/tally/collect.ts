/** From the shape and the typed-in rows of a job to its pieces, and what is missing about each. */
import { type Home, type Job, jobStyle, type Role } from "../job";
import { fromNm, remembersEach } from "../kernel";
import { type LengthStyle, sayLength, saySizes } from "../measure";
import {
  type BoughtCount,
  type Counted,
  faultWords,
  type MemberSolid,
  type PanelSolid,
  type Places,
  type Shape,
  type Uncomputed,
} from "../shape";
import type { Stockroom } from "../stockroom";
import type { TallyMemory } from "./memory";
import { newPiece, type Parts } from "./new-piece";
import { memberForm, type Piece, panelForm } from "./piece";
import { typedPieces } from "./typed-pieces";

/** Where what lives in a home stands in the job, by how it counts: the ways through placements. */
type Standing = {
  /** Those of mirrored assemblies last. */
  readonly listed: readonly string[];
  readonly mirrored: number;
  readonly leftOut: readonly string[];
  readonly guide: number;
};

const NOWHERE: Standing = { listed: [], mirrored: 0, leftOut: [], guide: 0 };

/** The same as long as the places are, so that what was made of them is too. */
const standings = remembersEach<Places, ReadonlyMap<Home, Standing>>();

function standingsIn(places: Places): ReadonlyMap<Home, Standing> {
  const found = new Map<Home, Standing>();
  for (const [home, instances] of places) {
    const counting = instances.filter(({ boughtWhole }) => !boughtWhole);
    const keys = (wanted: Counted, mirrored: boolean) =>
      counting.flatMap(({ counted, pose, key }) =>
        counted === wanted && pose.mirrored === mirrored ? [key] : [],
      );
    const opposite = keys("listed", true);
    found.set(home, {
      listed: [...keys("listed", false), ...opposite],
      mirrored: opposite.length,
      leftOut: [...keys("leftOut", false), ...keys("leftOut", true)],
      guide: counting.filter(({ counted }) => counted === "guide").length,
    });
  }
  return found;
}

export type Collected = {
  readonly pieces: readonly Piece[];
  /** Pieces that stand there to look at only: counted beside the balance. */
  readonly guides: number;
};

/** All pieces of one job, drawn ones first, in the order of their records. */
export function collectPieces(job: Job, shape: Shape, stockroom: Stockroom, memory: TallyMemory): Collected {
  const style = jobStyle(job);
  const standing = standings(shape.places, [], () => standingsIn(shape.places));
  const pieces: Piece[] = [];
  let guides = 0;
  const stands = (home: Home, role: Role, each = 1): Standing => {
    const found = standing.get(home) ?? NOWHERE;
    const { listed, leftOut, guide } = found;
    guides += (role === "guide" ? listed.length + leftOut.length + guide : guide) * each;
    return role === "guide" ? NOWHERE : found;
  };
  const take = (solid: MemberSolid | PanelSolid, home: Home, role: Role, parts: () => Parts) => {
    const times = stands(home, role);
    const from = [times.listed, times.mirrored, times.leftOut, style.unit, style.format];
    pieces.push(...memory.solid(solid, from, () => asOften(parts(), times, role, style)));
  };
  for (const solid of shape.members) take(solid, solid.home, solid.member.role, () => memberParts(solid));
  for (const solid of shape.panels)
    take(solid, solid.panel.assembly, solid.panel.role, () => panelParts(solid));
  for (const piece of shape.uncomputed) {
    const role = (job.members[piece.id] ?? job.panels[piece.id])?.role ?? "made";
    pieces.push(...asOften(uncomputedParts(piece, style), stands(piece.home, role), role, style));
  }
  pieces.push(...typedPieces(job, stockroom), ...boughtWhole(job, shape, stockroom));
  for (const one of shape.bought) {
    const each = one.count ?? 0;
    const times = stands(one.part.assembly, "made", each);
    pieces.push(...asOften(boughtParts(one), times, "made", style, each));
  }
  return { pieces, guides };
}

/** A piece as often as it stands: those in lists, and those left out. */
function asOften(parts: Parts, times: Standing, role: Role, style: LengthStyle, each = 1): readonly Piece[] {
  const { listed, mirrored, leftOut } = times;
  const own = role === "bought" ? boughtAs(parts, style) : parts;
  const pieces: Piece[] = [];
  if (listed.length > 0)
    pieces.push(newPiece(own, { quantity: listed.length * each, mirrored: mirrored * each, places: listed }));
  if (leftOut.length > 0)
    pieces.push(newPiece(own, { quantity: leftOut.length * each, leftOut: true, places: leftOut }));
  return pieces;
}

function memberParts(solid: MemberSolid): Parts {
  return {
    id: solid.member.id,
    kind: "member",
    name: solid.member.name,
    form: memberForm(solid),
    stock: solid.entry.id,
    stockName: solid.entry.name,
    material: solid.material,
    leftOut: solid.member.leftOut,
  };
}

function panelParts(solid: PanelSolid): Parts {
  return {
    id: solid.panel.id,
    kind: "panel",
    name: solid.panel.name,
    form: panelForm(solid),
    stock: solid.board?.id ?? null,
    stockName: solid.board?.name ?? null,
    material: solid.material,
    leftOut: solid.panel.leftOut,
  };
}

function uncomputedParts(piece: Uncomputed, style: LengthStyle): Parts {
  return {
    id: piece.id,
    kind: piece.kind,
    name: piece.name,
    form: { kind: "none" },
    stock: null,
    stockName: null,
    material: null,
    leftOut: piece.leftOut,
    why: faultWords(piece.why, style),
  };
}

function boughtParts({ part, entry, length }: BoughtCount): Parts {
  return {
    id: part.id,
    kind: "bought",
    name: part.name,
    form: { kind: "none" },
    stock: entry?.id ?? null,
    stockName: entry?.name ?? null,
    material: null,
    leftOut: part.leftOut,
    boughtLength: length,
  };
}

/** A member or panel that comes cut: its size is told where other bought parts name their entry. */
function boughtAs(parts: Parts, style: LengthStyle): Parts {
  const { form } = parts;
  const size =
    form.kind === "member"
      ? sayLength(fromNm(form.cutNm), style)
      : form.kind === "panel"
        ? saySizes([fromNm(form.lengthNm), fromNm(form.widthNm)], style)
        : "";
  const stockName = [parts.stockName, size].filter(Boolean).join(", ");
  return { ...parts, kind: "bought", form: { kind: "none" }, stock: null, stockName, material: null };
}

/** Assemblies that are bought as a whole: one piece each. */
function boughtWhole(job: Job, shape: Shape, { boughtById }: Stockroom): readonly Piece[] {
  return Object.values(job.assemblies).flatMap((assembly) => {
    if (assembly.role !== "bought") return [];
    const all = shape.places.get(assembly.id) ?? [];
    const entry = assembly.entry === null ? undefined : boughtById.get(assembly.entry);
    const piece = (leftOut: boolean): readonly Piece[] => {
      const wanted = leftOut ? "leftOut" : "listed";
      const places = all.flatMap(({ counted, key }) => (counted === wanted ? [key] : []));
      if (places.length === 0) return [];
      const parts: Parts = {
        id: assembly.id,
        kind: "bought",
        name: assembly.name,
        form: { kind: "none" },
        stock: entry?.id ?? null,
        stockName: entry?.name ?? "bought as a whole",
        material: null,
        leftOut,
      };
      return [newPiece({ ...parts, quantity: places.length, places })];
    };
    return [...piece(false), ...piece(true)];
  });
}
