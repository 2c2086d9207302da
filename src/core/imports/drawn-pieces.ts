/** Closed outlines of a drawing as panels that lie where they are drawn, each with the board of its layer. */
import type { Vec2 } from "../geometry";
import {
  type CornerPlace,
  type DrawnOutline,
  type InsertEdit,
  type Job,
  newInsert,
  newPanel,
  panelFromDrawing,
  textOf,
} from "../job";
import { MM_PER_UNIT, roundTo } from "../measure";
import type { BoardEntry } from "../stockroom";
import type { NewId } from "./member-record";

export type DrawnPieces = {
  readonly name: string;
  /** Millimetres of one unit; null: the file tells none, and all lengths are in units of the file. */
  readonly unit: number | null;
  readonly pieces: readonly {
    readonly layer: string;
    readonly outline: DrawnOutline;
    /** The low corner of its box in the drawing. */
    readonly low: Vec2;
  }[];
  /** Runs of lines that close to no outline: those of a frame do not. */
  readonly open: number;
  /** What is no piece and stays behind. */
  readonly told: readonly string[];
};

/** Lines of a frame close to nothing; where all do, the drawing is one of panels. */
export const isOfPanels = ({ pieces, open }: DrawnPieces): boolean => pieces.length > 0 && open === 0;

/** The board that a layer is called as: by its name, or by the only thickness that is a number of it; null: none. */
export function boardOfLayer(layer: string, boards: readonly BoardEntry[]): string | null {
  const plain = (text: string) => text.trim().toLowerCase();
  const named = boards.find((board) => plain(board.name) === plain(layer));
  if (named) return named.id;
  const numbers = new Set(
    [...layer.matchAll(/\d+(?:[.,]\d+)?/g)].map(([text]) => Number(text.replace(",", "."))),
  );
  const fitting = boards.filter(({ thickness }) => numbers.has(roundTo(thickness, 2)));
  return fitting.length === 1 ? (fitting[0]?.id ?? null) : null;
}

/** The panels; `scale`: millimetres of one unit where the file tells none. */
export function piecesEdit(
  { pieces, unit }: DrawnPieces,
  { scale, boards }: { readonly scale: number; readonly boards: ReadonlyMap<string, string> },
  job: Job,
  newId: NewId,
): InsertEdit {
  const jobUnit = job.info.job.unit;
  const by = unit === null ? scale : 1;
  const text = (mm: number) => textOf(roundTo(mm / MM_PER_UNIT[jobUnit], 7));
  const counts = new Map<string, number>();
  return newInsert("panels of a drawing", {
    panels: pieces.map(({ layer, outline, low }) => {
      const count = (counts.get(layer) ?? 0) + 1;
      counts.set(layer, count);
      const own = scaledOutline(outline, by);
      const bare = newPanel(newId("panel"), {
        name: `${layer.slice(0, 50) || "Panel"} ${count}`,
        board: boards.get(layer) ?? null,
        origin: [text(low[0] * by), text(low[1] * by), "0"],
        lengthAxis: ["1", "0", "0"],
        faceAxis: ["0", "0", "1"],
        length: text(own.length),
        width: text(own.width),
        grain: "any",
      });
      return { ...bare, ...panelFromDrawing(own, bare, jobUnit, () => newId("work")) };
    }),
  });
}

function scaledOutline({ length, width, corners, holes, cutOuts }: DrawnOutline, by: number): DrawnOutline {
  const corner = ({ x, y, radius }: CornerPlace): CornerPlace => ({
    x: x * by,
    y: y * by,
    radius: radius * by,
  });
  return {
    length: length * by,
    width: width * by,
    corners: corners.map(corner),
    holes: holes.map(({ x, y, diameter }) => ({ x: x * by, y: y * by, diameter: diameter * by })),
    cutOuts: cutOuts.map((one) => one.map(corner)),
  };
}
