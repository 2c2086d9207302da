/** From the shape and the typed-in rows of a job to its pieces, and what is missing about each. */
import { type Check, type Home, type Job, NO_EDGING, plainCheck, type Role, type TypedPiece } from "../job";
import { fromNm, toNm } from "../kernel";
import { roundTo } from "../measure";
import {
  type BoughtCount,
  type MemberSolid,
  memberLengths,
  type PanelSolid,
  type Shape,
  type Uncomputed,
} from "../shape";
import { type SectionShape, type Stockroom, sectionKindName } from "../stockroom";
import type { TallyMemory } from "./memory";
import { type Form, memberForm, type Piece, panelForm } from "./piece";
import { typedSlopes } from "./stand";

type Parts = Pick<Piece, "id" | "kind" | "name" | "form" | "stock" | "stockName" | "material" | "leftOut"> &
  Partial<Pick<Piece, "quantity" | "typed" | "typedMark" | "boughtLength" | "why">>;

type Times = Partial<Pick<Piece, "quantity" | "mirrored" | "leftOut">>;

/** Written out field by field: spreading twenty thousand times costs more than all that follows. */
function newPiece(parts: Parts, times: Times = {}): Piece {
  return {
    id: parts.id,
    kind: parts.kind,
    name: parts.name,
    quantity: times.quantity ?? parts.quantity ?? 1,
    mirrored: times.mirrored ?? 0,
    form: parts.form,
    stock: parts.stock,
    stockName: parts.stockName,
    material: parts.material,
    typed: parts.typed ?? false,
    typedMark: parts.typedMark ?? null,
    leftOut: times.leftOut ?? parts.leftOut,
    boughtLength: parts.boughtLength ?? null,
    why: parts.why ?? null,
  };
}

/** How often what lives in a home stands in the job, by how it counts. */
type Standing = {
  readonly listed: number;
  /** Of those listed, in a mirrored assembly. */
  readonly mirrored: number;
  readonly leftOut: number;
  readonly guide: number;
};

const NOWHERE: Standing = { listed: 0, mirrored: 0, leftOut: 0, guide: 0 };

function standings(shape: Shape): ReadonlyMap<Home, Standing> {
  const found = new Map<Home, Standing>();
  for (const [home, instances] of shape.places) {
    const sum = { listed: 0, mirrored: 0, leftOut: 0, guide: 0 };
    for (const { counted, boughtWhole, pose } of instances) {
      if (boughtWhole || counted === "within") continue;
      sum[counted]++;
      if (counted === "listed" && pose.mirrored) sum.mirrored++;
    }
    found.set(home, sum);
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
  const standing = standings(shape);
  const pieces: Piece[] = [];
  let guides = 0;
  const stands = (home: Home, role: Role, each = 1): Standing => {
    const found = standing.get(home) ?? NOWHERE;
    const { listed, leftOut, guide } = found;
    guides += (role === "guide" ? listed + leftOut + guide : guide) * each;
    return role === "guide" ? NOWHERE : found;
  };
  const take = (solid: MemberSolid | PanelSolid, home: Home, role: Role, parts: () => Parts) => {
    const times = stands(home, role);
    const from = [times.listed, times.mirrored, times.leftOut];
    pieces.push(...memory.solid(solid, from, () => asOften(parts(), times, role)));
  };
  for (const solid of shape.members) take(solid, solid.home, solid.member.role, () => memberParts(solid));
  for (const solid of shape.panels)
    take(solid, solid.panel.assembly, solid.panel.role, () => panelParts(solid));
  for (const piece of shape.uncomputed) {
    const role = (job.members[piece.id] ?? job.panels[piece.id])?.role ?? "made";
    pieces.push(...asOften(uncomputedParts(piece), stands(piece.home, role), role));
  }
  pieces.push(...typedPieces(job, stockroom), ...boughtWhole(job, shape));
  for (const one of shape.bought) {
    const each = one.count ?? 0;
    const times = stands(one.part.assembly, "made", each);
    pieces.push(...asOften(boughtParts(one), times, "made", each));
  }
  return { pieces, guides };
}

/** A piece as often as it stands: those in lists, and those left out. */
function asOften(parts: Parts, times: Standing, role: Role, each = 1): readonly Piece[] {
  const { listed, mirrored, leftOut } = times;
  const own = role === "bought" ? boughtAs(parts) : parts;
  const pieces: Piece[] = [];
  if (listed > 0) pieces.push(newPiece(own, { quantity: listed * each, mirrored: mirrored * each }));
  if (leftOut > 0) pieces.push(newPiece(own, { quantity: leftOut * each, leftOut: true }));
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

function uncomputedParts(piece: Uncomputed): Parts {
  return {
    id: piece.id,
    kind: piece.kind,
    name: piece.name,
    form: { kind: "none" },
    stock: null,
    stockName: null,
    material: null,
    leftOut: piece.leftOut,
    why: piece.why,
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
function boughtAs(parts: Parts): Parts {
  const { form } = parts;
  const mm = (nm: number) => String(roundTo(fromNm(nm), 1));
  const size =
    form.kind === "member"
      ? `${mm(form.cutNm)} mm`
      : form.kind === "panel"
        ? `${mm(form.lengthNm)} × ${mm(form.widthNm)} mm`
        : "";
  const stockName = [parts.stockName, size].filter(Boolean).join(", ");
  return { ...parts, kind: "bought", form: { kind: "none" }, stock: null, stockName, material: null };
}

/** Assemblies that are bought as a whole: one piece each. */
function boughtWhole(job: Job, shape: Shape): readonly Piece[] {
  return Object.values(job.assemblies).flatMap((assembly) => {
    if (assembly.role !== "bought") return [];
    const all = shape.places.get(assembly.id) ?? [];
    const piece = (leftOut: boolean): readonly Piece[] => {
      const wanted = leftOut ? "leftOut" : "listed";
      const quantity = all.filter(({ counted }) => counted === wanted).length;
      if (quantity === 0) return [];
      const parts: Parts = {
        id: assembly.id,
        kind: "bought",
        name: assembly.name,
        form: { kind: "none" },
        stock: null,
        stockName: "bought as a whole",
        material: null,
        leftOut,
      };
      return [newPiece({ ...parts, quantity })];
    };
    return [...piece(false), ...piece(true)];
  });
}

const byPosition = (a: TypedPiece, b: TypedPiece) => a.position - b.position;

function typedPieces(job: Job, stockroom: Stockroom): readonly Piece[] {
  return Object.values(job.typedPieces)
    .sort(byPosition)
    .map((typed): Piece => {
      const entry =
        typed.stock === null
          ? null
          : typed.kind === "panel"
            ? stockroom.boardById.get(typed.stock)
            : stockroom.sectionById.get(typed.stock);
      return newPiece({
        id: typed.id,
        kind: typed.kind,
        name: typed.name,
        quantity: typed.quantity,
        form: typedForm(typed, stockroom),
        stock: entry?.id ?? null,
        stockName: entry?.name ?? typed.stockText,
        material: typed.material ?? entry?.material ?? null,
        typed: true,
        typedMark: typed.mark,
        leftOut: typed.leftOut,
      });
    });
}

function typedForm(typed: TypedPiece, stockroom: Stockroom): Form {
  switch (typed.kind) {
    case "other":
      return { kind: "none" };
    case "member": {
      const shape: SectionShape | null =
        (typed.stock === null ? null : stockroom.sectionById.get(typed.stock)?.shape) ?? typed.shape;
      return typedMemberForm(shape, typed.length, typedSlopes(typed.angles, typed.stand));
    }
    case "panel": {
      const board = typed.stock === null ? undefined : stockroom.boardById.get(typed.stock);
      const thickness = typed.thickness ?? board?.thickness ?? null;
      const edging = { ...NO_EDGING };
      for (const edge of typed.edged) edging[edge] = typed.edgingText ?? "edged";
      return {
        kind: "panel",
        lengthNm: toNm(typed.length),
        widthNm: toNm(typed.width),
        thicknessNm: thickness === null ? null : toNm(thickness),
        grain: typed.grain && board?.grain !== null,
        goodFace: false,
        edging,
        grooves: [],
        holes: [],
        notches: [],
      };
    }
    default:
      return typed satisfies never;
  }
}

/** A bar whose cut length, tip to tip, is given: the centre length follows from the ends. */
function typedMemberForm(
  shape: SectionShape | null,
  cut: number,
  [start, end]: ReturnType<typeof typedSlopes>,
): Form {
  const cutNm = toNm(cut);
  if (shape === null) {
    return {
      kind: "member",
      shape,
      centreNm: cutNm,
      cutNm,
      longestNm: cutNm,
      shortestNm: cutNm,
      start,
      end,
      copes: [null, null],
    };
  }
  const beyond = memberLengths(shape, 0, start, end);
  return {
    kind: "member",
    shape,
    centreNm: toNm(cut - beyond.cut),
    cutNm,
    longestNm: toNm(cut - beyond.cut + beyond.longestEdge),
    shortestNm: toNm(cut - beyond.cut + beyond.shortestEdge),
    start,
    end,
    copes: [null, null],
  };
}

/** What is missing about single pieces: material, section or board, stock, a crossed typed-in end. */
export function pieceChecks(job: Job, pieces: readonly Piece[], stockroom: Stockroom): readonly Check[] {
  const checks: Check[] = [];
  const missing = new Map<
    string,
    {
      names: Set<string>;
      ids: string[];
      check: Pick<Check, "kind" | "severity">;
      words: (names: string) => string;
    }
  >();
  const gather = (
    key: string,
    piece: Piece,
    check: Pick<Check, "kind" | "severity">,
    words: (names: string) => string,
  ) => {
    const found = missing.get(key) ?? { names: new Set<string>(), ids: [], check, words };
    found.names.add(piece.name);
    found.ids.push(piece.id);
    missing.set(key, found);
  };
  for (const piece of pieces) {
    if (piece.leftOut || piece.why !== null || piece.kind === "bought") continue;
    if (piece.kind === "other") {
      gather(
        "other",
        piece,
        { kind: "unknownStock", severity: "warning" },
        (names) => `${names}: it has no length, so it is only counted; type one to lay it out.`,
      );
      continue;
    }
    if (piece.stock === null) {
      const what = piece.kind === "panel" ? "board" : "section";
      const said = piece.stockName;
      gather(
        `stock ${what} ${said}`,
        piece,
        {
          kind: said === null ? (what === "board" ? "noBoard" : "noSection") : "unknownStock",
          severity: "error",
        },
        (names) =>
          said === null
            ? `${names}: no ${what} is chosen.`
            : `${names}: there is no ${what} "${said}" in the stockroom; choose one or add it there.`,
      );
    }
    if (piece.material === null)
      gather(
        "material",
        piece,
        { kind: "noMaterial", severity: "warning" },
        (names) => `${names}: no material is given.`,
      );
    const stock =
      piece.stock === null
        ? null
        : (stockroom.sectionById.get(piece.stock) ?? stockroom.boardById.get(piece.stock));
    if (stock && stock.stock.length === 0) {
      gather(
        `sizes ${stock.id}`,
        piece,
        { kind: "noStock", severity: "warning" },
        (names) => `${names}: ${stock.name} has no stock sizes in the stockroom, so it cannot be laid out.`,
      );
    }
    if (piece.typed) checks.push(...typedChecks(job, piece));
  }
  for (const { names, ids, check, words } of missing.values()) {
    const list = [...names];
    const shown = list.slice(0, 3).join(", ") + (list.length > 3 ? ` and ${list.length - 3} more` : "");
    checks.push(plainCheck(check.kind, check.severity, words(shown), ids));
  }
  return checks;
}

function typedChecks(job: Job, piece: Piece): readonly Check[] {
  const typed = job.typedPieces[piece.id];
  if (typed?.kind !== "member" || piece.form.kind !== "member") return [];
  const checks: Check[] = [];
  if (piece.form.shortestNm < 0) {
    checks.push(
      plainCheck(
        "endsCross",
        "error",
        `${piece.name}: with these angles its ends cross on ${fromNm(piece.form.cutNm)} mm.`,
        [piece.id],
      ),
    );
  }
  if (typed.angles.every((angle) => angle !== 0) && typed.stand === null) {
    checks.push(
      plainCheck(
        "endCut",
        "warning",
        `${piece.name}: the list does not say how its two ends stand; opposed is assumed.`,
        [piece.id],
      ),
    );
  }
  const section = piece.form.shape === null ? null : sectionKindName(piece.form.shape.kind);
  if (section === null && piece.stockName !== null && typed.angles.some((angle) => angle !== 0)) {
    checks.push(
      plainCheck(
        "endCut",
        "warning",
        `${piece.name}: its section is not known, so edge lengths cannot be computed.`,
        [piece.id],
      ),
    );
  }
  return checks;
}
