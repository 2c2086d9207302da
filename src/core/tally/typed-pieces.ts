/** Typed-in rows as pieces: their forms come from the sizes that were typed. */

import { lengthsBetween } from "../ends";
import { type Job, NO_EDGING, type TypedPiece, UNNAMED_EDGING } from "../job";
import { toNm } from "../kernel";
import type { SectionShape, Stockroom } from "../stockroom";
import type { Form } from "./forms";
import { newPiece } from "./new-piece";
import { NO_WORK, type Piece } from "./piece";
import { typedEnds } from "./stand";

const byPosition = (a: TypedPiece, b: TypedPiece) => a.position - b.position;

export function typedPieces(job: Job, stockroom: Stockroom): readonly Piece[] {
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
      return typedMemberForm(shape, typed.length, typedEnds(typed.angles, typed.stand));
    }
    case "panel": {
      const board = typed.stock === null ? undefined : stockroom.boardById.get(typed.stock);
      const thickness = typed.thickness ?? board?.thickness ?? null;
      const edging = { ...NO_EDGING };
      for (const edge of typed.edged)
        edging[edge] = edgingNamed(typed.edgingTexts?.[edge] ?? typed.edgingText, stockroom);
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
        cutOuts: [],
        outline: null,
      };
    }
    default:
      return typed satisfies never;
  }
}

const plain = (text: string) => text.trim().toLowerCase().replace(/\s+/g, " ");

/** The entry of the stockroom that the words for an edging name, else the words themselves. */
function edgingNamed(words: string | null, stockroom: Stockroom): string {
  if (words === null) return UNNAMED_EDGING;
  return stockroom.edging.find(({ name, id }) => plain(name) === plain(words) || id === words)?.id ?? words;
}

/** A bar whose cut length, tip to tip, is given: the centre length follows from the ends. */
function typedMemberForm(shape: SectionShape | null, cut: number, ends: ReturnType<typeof typedEnds>): Form {
  const cutNm = toNm(cut);
  if (shape === null) {
    return {
      kind: "member",
      shape,
      centreNm: cutNm,
      cutNm,
      longestNm: cutNm,
      shortestNm: cutNm,
      ends,
      ...NO_WORK,
    };
  }
  const beyond = lengthsBetween(shape, 0, ...ends);
  return {
    kind: "member",
    shape,
    centreNm: toNm(cut - beyond.cut),
    cutNm,
    longestNm: toNm(cut - beyond.cut + beyond.longestEdge),
    shortestNm: toNm(cut - beyond.cut + beyond.shortestEdge),
    ends,
    ...NO_WORK,
  };
}
