/**
 * Rows of identical pieces. Distances are compared with a tolerance, never rounded keys. A linked set
 * whose pieces are all within the tolerance of one another is one row; otherwise it is walked in a
 * fixed order and said so. So the result does not depend on the order of input and no row spreads
 * beyond the tolerance.
 */
import type { Tolerance } from "../ends";
import { addTo, at, byKey, byText, byTuple, inTurn, invariant, type Nm, type Order } from "../kernel";
import type { Form, PanelForm } from "./forms";
import type { Group, HandedPiece } from "./group";
import {
  type Handedness,
  memberDistance,
  memberHandKey,
  memberOrderKey,
  NEAR_TWIN_LIMIT,
  TWIN_TOLERANCE,
} from "./member-twins";
import { hasWork } from "./member-work-twins";
import { newTallyMemory, type TallyMemory } from "./memory";
import { panelDistance, panelHandKey, panelOrderKey } from "./panel-twins";
import type { Piece } from "./piece";

/** Distance between two forms of one stock; infinite between kinds. */
function formDistance(a: Form, b: Form, handedness: Handedness, tolerance: Tolerance): number {
  if (a.kind === "member" && b.kind === "member") return memberDistance(a, b, handedness, tolerance);
  if (a.kind === "panel" && b.kind === "panel") return panelDistance(a, b, handedness, tolerance);
  return Number.POSITIVE_INFINITY;
}

/** The smaller of the distance and the distance to the mirror image. */
export function eitherDistance(a: Form, b: Form, tolerance: Tolerance): number {
  const proper = formDistance(a, b, "proper", tolerance);
  return proper <= 1 ? proper : Math.min(proper, formDistance(a, b, "mirrored", tolerance));
}

function orderKey(form: Form): readonly number[] {
  return form.kind === "member" ? memberOrderKey(form) : form.kind === "panel" ? panelOrderKey(form) : [];
}

/** What must agree before sizes are compared at all. */
export function stockKeyOf(piece: Piece): string {
  const parts = [
    piece.kind,
    piece.stock ?? `?${piece.stockName ?? ""}`,
    piece.material ?? "?",
    piece.typed ? `typed ${piece.typedMark ?? ""}` : "drawn",
  ];
  return parts.join("\u0000");
}

/** Exactly equal forms: distance zero, so they may be taken together before any comparison. */
type Bundle = { readonly form: Form; readonly key: readonly number[]; readonly pieces: Piece[] };

/** What must agree in a row by hand: typed-in pieces may be put to drawn ones there. */
const handKeyOf = (piece: Piece, row: string) =>
  ["by hand", piece.kind, piece.stock ?? `?${piece.stockName ?? ""}`, piece.material ?? "?", row].join(
    "\u0000",
  );

/**
 * Groups pieces into rows. The order of the pieces has no effect on who shares a row. `handRowOf` names the row by
 * hand of the pieces that are in one: they share it however they differ, as long as they are near twins.
 */
export function groupPieces(
  pieces: readonly Piece[],
  memory: TallyMemory = newTallyMemory(),
  handRowOf: ReadonlyMap<string, string> = new Map(),
): readonly Group[] {
  const byStock = new Map<string, Piece[]>();
  for (const piece of pieces) {
    const hand = handRowOf.get(piece.id);
    const key =
      hand === undefined ? memory.stockKey(piece, [], () => stockKeyOf(piece)) : handKeyOf(piece, hand);
    addTo(byStock, key, piece);
  }
  const groups: Group[] = [];
  for (const key of [...byStock.keys()].sort(byText)) {
    const own = byStock.get(key) ?? [];
    const hand = handRowOf.get(own[0]?.id ?? "") ?? null;
    groups.push(
      ...memory.stock(key, own, () =>
        hand === null ? groupStock(own, memory) : groupByHand(own, hand, memory),
      ),
    );
  }
  return groups;
}

function groupStock(pieces: readonly Piece[], memory: TallyMemory): readonly Group[] {
  const sized = pieces.filter((piece) => piece.form.kind !== "none");
  const loose = pieces.filter((piece) => piece.form.kind === "none");
  const groups = linked(bundles(sized, memory)).flatMap(({ bundles: set, parted }) =>
    set.map((row) => toGroup(row, parted)),
  );
  return [...groups, ...looseGroups(loose)];
}

/** Whether a row by hand that shows `shown` may hold `other`: a near twin that is not cut short by it. */
export function mayShareRow(shown: Form, other: Form): boolean {
  if (shown.kind === "none" || other.kind === "none") return shown.kind === other.kind;
  const own = sizeOf(other);
  const covered = sizeOf(shown).every((nm, i) => nm >= at(own, i) - TWIN_TOLERANCE.lengthNm);
  return covered && eitherDistance(shown, other, NEAR_TWIN_LIMIT) <= 1;
}

/** One row for pieces that somebody put together; those that have grown too unlike the first stand in rows of their own. */
function groupByHand(pieces: readonly Piece[], row: string, memory: TallyMemory): readonly Group[] {
  const all = bundles(
    pieces.filter((piece) => piece.form.kind !== "none"),
    memory,
  );
  const rest = looseGroups(pieces.filter((piece) => piece.form.kind === "none"));
  const [first, ...more] = all;
  const longest = more.reduce(
    (best, bundle) => (best && byTuple(sizeOf(bundle.form), sizeOf(best.form)) > 0 ? bundle : best),
    first,
  );
  const near = (bundle: Bundle) => longest !== undefined && mayShareRow(longest.form, bundle.form);
  const [own, far] = [all.filter(near), all.filter((bundle) => !near(bundle))];
  const twins = own.every(
    (bundle) => longest !== undefined && eitherDistance(longest.form, bundle.form, TWIN_TOLERANCE) <= 1,
  );
  return [
    ...(own.length === 0 ? [] : [{ ...toGroup(own, !twins), byHand: row }]),
    ...groupStock(
      far.flatMap((bundle) => bundle.pieces),
      memory,
    ),
    ...rest.map((group) => ({ ...group, byHand: row })),
  ];
}

/** Bought parts of one entry and length are one row; what cannot be computed stands alone. */
function looseGroups(pieces: readonly Piece[]): readonly Group[] {
  const rows = new Map<string, Piece[]>();
  for (const piece of pieces) {
    const key =
      piece.kind === "bought" && piece.stock
        ? `${piece.stock}|${piece.boughtLength ?? ""}`
        : `${piece.kind}|${piece.name}|${piece.stockName ?? ""}|${piece.why ?? ""}|${piece.why ? piece.id : ""}`;
    addTo(rows, key, piece);
  }
  return [...rows.values()].map((row) => ({
    pieces: row.map((piece) => ({ piece, hand: "asDrawn" as const, first: 0, quantity: piece.quantity })),
    shown: at(row, 0),
    spread: false,
    byHand: null,
  }));
}

function bundles(pieces: readonly Piece[], memory: TallyMemory): readonly Bundle[] {
  const found = new Map<string, Bundle>();
  for (const piece of pieces) {
    const text = memory.formText(piece.form, [], () => formText(piece.form));
    const bundle = found.get(text);
    if (bundle) bundle.pieces.push(piece);
    else found.set(text, { form: piece.form, key: orderKey(piece.form), pieces: [piece] });
  }
  const order: Order<Bundle> = inTurn(
    byKey(
      (bundle: Bundle) => bundle.key,
      (a, b) => byTuple(a, b) || a.length - b.length,
    ),
    byKey((bundle: Bundle) => formText(bundle.form), byText),
  );
  return [...found.values()].sort(order);
}

const formText = (form: Form): string =>
  form.kind === "member"
    ? `${form.centreNm}|${form.cutNm}|${JSON.stringify(form.ends)}${hasWork(form) ? JSON.stringify([form.holes, form.notches]) : ""}`
    : JSON.stringify(form);

type LinkedSet = { readonly bundles: readonly (readonly Bundle[])[]; readonly parted: boolean };

/** Sets linked by distances of at most one, each kept whole or walked into rows. */
function linked(sorted: readonly Bundle[]): readonly LinkedSet[] {
  const parent = sorted.map((_, i) => i);
  const root = (i: number): number => {
    let top = i;
    while (at(parent, top) !== top) top = at(parent, top);
    parent[i] = top;
    return top;
  };
  for (let i = 0; i < sorted.length; i++) {
    const a = at(sorted, i);
    // Keys start with a length: beyond the tolerance nothing further can link.
    for (let j = i + 1; j < sorted.length; j++) {
      const b = at(sorted, j);
      if (!mayLink(a, b)) break;
      if (root(i) !== root(j) && eitherDistance(a.form, b.form, TWIN_TOLERANCE) <= 1)
        parent[root(j)] = root(i);
    }
  }
  const sets = new Map<number, Bundle[]>();
  sorted.forEach((bundle, i) => {
    const top = root(i);
    addTo(sets, top, bundle);
  });
  return [...sets.values()].map(keptOrWalked);
}

// Slack of one grid step: the least tuple of a panel may start with either of two nearly equal sides.
const mayLink = (a: Bundle, b: Bundle) => at(b.key, 0) - at(a.key, 0) <= TWIN_TOLERANCE.lengthNm + 1;

function keptOrWalked(set: readonly Bundle[]): LinkedSet {
  const near = (a: Bundle, b: Bundle) => eitherDistance(a.form, b.form, TWIN_TOLERANCE) <= 1;
  if (set.every((a, i) => set.slice(i + 1).every((b) => near(a, b))))
    return { bundles: [set], parted: false };
  const rows: Bundle[][] = [];
  for (const bundle of set) {
    const home = rows.find((row) => row.every((other) => near(bundle, other)));
    if (home) home.push(bundle);
    else rows.push([bundle]);
  }
  return { bundles: rows, parted: true };
}

const sizeOf = (form: Form): readonly number[] =>
  form.kind === "member" ? [form.cutNm] : form.kind === "panel" ? [form.lengthNm, form.widthNm] : [];

/** The pieces of one hand: those whose form it is, and those of the other form that stand mirrored. */
type Side = {
  readonly drawn: Piece[];
  readonly counted: Omit<HandedPiece, "hand">[];
};

function toGroup(row: readonly Bundle[], spread: boolean): Group {
  invariant(row.length > 0, "a row has at least one piece");
  const sides: readonly [Side, Side] = [
    { drawn: [], counted: [] },
    { drawn: [], counted: [] },
  ];
  const told: { readonly bundle: Bundle; readonly side: 0 | 1 }[] = [];
  for (const bundle of row) {
    const { side, noHand } = handIn(told, bundle);
    told.push({ bundle, side });
    const [own, other] = side === 0 ? sides : ([sides[1], sides[0]] as const);
    own.drawn.push(...bundle.pieces);
    for (const piece of bundle.pieces) {
      const mirrored = noHand ? 0 : piece.mirrored;
      const plain = piece.quantity - mirrored;
      if (plain > 0) own.counted.push({ piece, first: 0, quantity: plain });
      if (mirrored > 0) other.counted.push({ piece, first: plain, quantity: mirrored });
    }
  }
  const [drawn, opposite] = asDrawnFirst(sides);
  const pieces = [
    ...drawn.counted.map((one) => ({ ...one, hand: "asDrawn" as const })),
    ...opposite.counted.map((one) => ({ ...one, hand: "opposite" as const })),
  ];
  const longest = drawn.drawn.reduce((best, piece) =>
    byTuple(sizeOf(piece.form), sizeOf(best.form)) > 0 ? piece : best,
  );
  const form = greatestForm(
    longest.form,
    row.map((bundle) => bundle.form),
  );
  const shown = form === longest.form ? longest : { ...longest, form };
  return { pieces, shown, spread, byHand: null };
}

/** In units of tolerance: less than this between two distances is noise of the grid, so that neither hand is nearer. */
const SAME_DISTANCE = 1e-3;

/**
 * The hand of a form in a row of which some hands are told: that of the pieces to which it is nearer, as it is or mirrored.
 * A form that is as near mirrored as it is has no hand. The first form of a row tells what its first hand is.
 */
function handIn(
  told: readonly { readonly bundle: Bundle; readonly side: 0 | 1 }[],
  { form }: Bundle,
): { readonly side: 0 | 1; readonly noHand: boolean } {
  const own = formDistance(form, form, "mirrored", TWIN_TOLERANCE);
  if (told.length === 0) return { side: 0, noHand: own <= SAME_DISTANCE };
  const least: [number, number] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
  for (const { bundle, side } of told) {
    const proper = formDistance(bundle.form, form, "proper", TWIN_TOLERANCE);
    const mirrored = formDistance(bundle.form, form, "mirrored", TWIN_TOLERANCE);
    least[0] = Math.min(least[0], side === 0 ? proper : mirrored);
    least[1] = Math.min(least[1], side === 0 ? mirrored : proper);
  }
  return { side: least[0] <= least[1] + SAME_DISTANCE ? 0 : 1, noHand: own <= SAME_DISTANCE };
}

/** A form with the greatest sizes of all forms of its row, however they are drawn: what is shown is never cut short. */
function greatestForm(shown: Form, all: readonly Form[]): Form {
  if (shown.kind === "member") {
    const members = all.filter((form) => form.kind === "member");
    const more = Math.max(...members.map((form) => form.cutNm)) - shown.cutNm;
    const longestNm = Math.max(...members.map((form) => form.longestNm), shown.longestNm + Math.max(0, more));
    if (more <= 0 && longestNm === shown.longestNm) return shown;
    const by = Math.max(0, more);
    return {
      ...shown,
      cutNm: (shown.cutNm + by) as Nm,
      centreNm: (shown.centreNm + by) as Nm,
      shortestNm: (shown.shortestNm + by) as Nm,
      longestNm: longestNm as Nm,
    };
  }
  if (shown.kind !== "panel" || shown.outline !== null) return shown;
  let { lengthNm, widthNm } = shown;
  for (const form of all) {
    if (form.kind !== "panel") continue;
    const [length, width] = liesAcross(shown, form)
      ? [form.widthNm, form.lengthNm]
      : [form.lengthNm, form.widthNm];
    if (length > lengthNm) lengthNm = length;
    if (width > widthNm) widthNm = width;
  }
  return lengthNm === shown.lengthNm && widthNm === shown.widthNm ? shown : { ...shown, lengthNm, widthNm };
}

/** Whether a panel of a row was drawn the other way round: its length is the width of the one that is shown. */
function liesAcross(shown: PanelForm, form: PanelForm): boolean {
  if (shown.grain) return false;
  const along = Math.max(Math.abs(form.lengthNm - shown.lengthNm), Math.abs(form.widthNm - shown.widthNm));
  const across = Math.max(Math.abs(form.widthNm - shown.lengthNm), Math.abs(form.lengthNm - shown.widthNm));
  return across < along;
}

const countOf = ({ counted }: Side) => counted.reduce((sum, { quantity }) => sum + quantity, 0);

/** The majority is as drawn, ties go to the smaller tuple; a hand of which nothing is drawn never is. */
function asDrawnFirst([a, b]: readonly [Side, Side]): readonly [Side, Side] {
  if (b.drawn.length === 0) return [a, b];
  const difference = countOf(a) - countOf(b);
  if (difference !== 0) return difference > 0 ? [a, b] : [b, a];
  return byTuple(handKey(a.drawn), handKey(b.drawn)) <= 0 ? [a, b] : [b, a];
}

function handKey(pieces: readonly Piece[]): readonly number[] {
  const form = at(pieces, 0).form;
  return form.kind === "member" ? memberHandKey(form) : form.kind === "panel" ? panelHandKey(form) : [];
}
