/**
 * Marks: A, B, … Z, AA, AB, … They stay with the row that keeps most of its pieces; a new row gets the
 * next mark that was never used, so that gaps close only when somebody asks for it.
 */
import { at, byKey, byNumber, byText, inTurn } from "../kernel";
import type { Group } from "./group";

/** 0 → A, 25 → Z, 26 → AA. */
export function markOf(index: number): string {
  let rest = index;
  let text = "";
  do {
    text = String.fromCharCode(65 + (rest % 26)) + text;
    rest = Math.floor(rest / 26) - 1;
  } while (rest >= 0);
  return text;
}

/** The inverse of `markOf`; null for marks of another form. */
export function indexOfMark(mark: string): number | null {
  if (!/^[A-Z]{1,4}$/.test(mark)) return null;
  return [...mark].reduce((sum, letter) => sum * 26 + letter.charCodeAt(0) - 64, 0) - 1;
}

export type MarkedGroup = { readonly group: Group; readonly mark: string };
export type Marking = {
  readonly marked: readonly MarkedGroup[];
  /** Marks that a list gave to pieces of different size; the later ones were given another. */
  readonly shared: readonly { readonly mark: string; readonly instead: string }[];
};

type Claim = {
  /** Somebody typed this mark for one of the pieces: it goes before all others. */
  readonly held: boolean;
  readonly mark: string;
  readonly group: number;
  /** Its pieces were put there by hand: where it counts as many as the row that they left, that one keeps the mark. */
  readonly parted: boolean;
  readonly pieces: number;
  readonly oldest: number;
};

type KeptMarks = ReadonlyMap<string, { readonly mark: string; readonly held?: boolean | undefined }>;

/**
 * Gives each group a mark. `kept` is the mark that each piece had last; `groups` stand in the order in
 * which new marks are given out.
 */
export function giveMarks(groups: readonly Group[], kept: KeptMarks): Marking {
  const marks: (string | null)[] = groups.map(() => null);
  const taken = new Set<string>();
  const shared: { mark: string; instead: string }[] = [];
  const wanted: (string | null)[] = groups.map((group) => group.shown.typedMark);
  groups.forEach((_, i) => {
    const mark = wanted[i];
    if (mark && !taken.has(mark)) {
      marks[i] = mark;
      taken.add(mark);
    }
  });
  for (const claim of claimsOf(groups, kept)) {
    if (marks[claim.group] !== null || taken.has(claim.mark)) continue;
    marks[claim.group] = claim.mark;
    taken.add(claim.mark);
  }
  const fresh = nextMarks([...taken, ...[...kept.values()].map(({ mark }) => mark)]);
  const marked = groups.map((group, i) => {
    let mark = marks[i] ?? null;
    if (mark === null) {
      mark = fresh();
      taken.add(mark);
      const claimed = wanted[i];
      if (claimed) shared.push({ mark: claimed, instead: mark });
    }
    return { group, mark };
  });
  return { marked, shared };
}

/** Marks that were never used: on in numbers where most are numbers, under the prefix that most bear, else in letters. */
function nextMarks(used: readonly string[]): () => string {
  const numbered = used.flatMap((mark) => {
    const [, prefix, digits] = /^(\D*)(\d+)$/.exec(mark) ?? [];
    return prefix === undefined || digits === undefined ? [] : [{ prefix, number: Number(digits) }];
  });
  if (numbered.length > used.length / 2) {
    const counts = new Map<string, number>();
    for (const { prefix } of numbered) counts.set(prefix, (counts.get(prefix) ?? 0) + 1);
    const [[prefix]] = [...counts].sort((a, b) => b[1] - a[1]) as [[string, number]];
    let number = Math.max(...numbered.filter((one) => one.prefix === prefix).map((one) => one.number));
    return () => `${prefix}${++number}`;
  }
  let index = Math.max(-1, ...used.map((mark) => indexOfMark(mark) ?? -1));
  return () => markOf(++index);
}

function claimsOf(groups: readonly Group[], kept: KeptMarks): readonly Claim[] {
  const claims: Claim[] = [];
  const age = new Map([...kept.keys()].map((id, i) => [id, i]));
  groups.forEach((group, index) => {
    const counts = new Map<string, { pieces: number; oldest: number; held: boolean }>();
    for (const { piece, quantity } of group.pieces) {
      const known = kept.get(piece.id);
      if (known === undefined) continue;
      const { mark } = known;
      const count = counts.get(mark) ?? { pieces: 0, oldest: Number.POSITIVE_INFINITY, held: false };
      count.held ||= known.held === true;
      count.pieces += quantity;
      count.oldest = Math.min(count.oldest, age.get(piece.id) ?? Number.POSITIVE_INFINITY);
      counts.set(mark, count);
    }
    const parted = group.byHand !== null;
    for (const [mark, count] of counts) claims.push({ mark, group: index, parted, ...count });
  });
  return claims.sort(
    inTurn(
      byKey((claim: Claim) => (claim.held ? 0 : 1), byNumber),
      byKey((claim: Claim) => -claim.pieces, byNumber),
      byKey((claim: Claim) => (claim.parted ? 1 : 0), byNumber),
      byKey((claim: Claim) => claim.oldest, byNumber),
      byKey((claim: Claim) => claim.mark, byText),
    ),
  );
}

/** The part of a marking that differs from what was kept: what an edit must store. */
export function marksToKeep(
  marking: readonly MarkedGroup[],
  kept: KeptMarks,
): readonly { readonly id: string; readonly mark: string }[] {
  const changed = new Map<string, string>();
  for (const { group, mark } of marking) {
    for (let i = 0; i < group.pieces.length; i++) {
      const { id } = at(group.pieces, i).piece;
      if (kept.get(id)?.mark !== mark) changed.set(id, mark);
    }
  }
  return [...changed].map(([id, mark]) => ({ id, mark }));
}
