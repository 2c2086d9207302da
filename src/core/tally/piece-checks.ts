/** What is missing about single pieces, and what is odd about typed-in ones. */

import { type Check, type Job, jobStyle, plainCheck } from "../job";
import { fromNm } from "../kernel";
import { sayLength } from "../measure";
import { type Stockroom, sectionKindName } from "../stockroom";
import type { Piece } from "./piece";

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
        `${piece.name}: with these angles its ends cross on ${sayLength(fromNm(piece.form.cutNm), jobStyle(job))}.`,
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
