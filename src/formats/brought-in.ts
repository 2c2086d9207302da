/** A file of solids, or a drawing, brought into a job as it comes, with what has to be told of it: where nobody is asked. */
import {
  boardOfLayer,
  type DrawnPieces,
  type FoundFile,
  imported,
  isOfPanels,
  keptWith,
  layersOf,
  type NewId,
  piecesEdit,
  scaledFile,
  skeletonEdit,
} from "@/core/imports";
import type { Asset, Edit, Job } from "@/core/job";
import { counted, err, ok, type Problem, type Result } from "@/core/kernel";
import type { BoardEntry, SectionEntry, Stockroom } from "@/core/stockroom";
import { readPieces } from "./dxf-in";
import { readSkeleton } from "./skeleton-in";

export type BringGround = { readonly job: Job; readonly stockroom: Stockroom; readonly scale: number };

export type Brought = {
  readonly edit: Edit;
  readonly assets: readonly Asset[];
  /** The stockroom with what it lacked, and the entries that were added. */
  readonly stockroom: Stockroom;
  readonly added: { readonly sections: readonly SectionEntry[]; readonly boards: readonly BoardEntry[] };
  /** What somebody should know, in sentences. */
  readonly told: readonly string[];
};

/** Whether a file is a drawing rather than one of solids, by its name. */
export const isDrawingFile = (name: string): boolean => /\.dxf$/i.test(name);

/** What was found in a STEP file, with its sections and boards matched by their sizes. */
export function broughtSolids(
  found: FoundFile,
  { job, stockroom, scale }: BringGround,
): Result<Brought, Problem> {
  const file = scaledFile(found, scale);
  const newId = idsIn(job, stockroom);
  const entered = imported(file, {}, job, stockroom, newId);
  if (entered.refusal !== null) return err({ kind: "malformed", what: file.name, why: entered.refusal });
  const { stockroom: whole, added, remarks } = entered;
  const { edit, assets } = keptWith(entered, file.name, newId);
  const names = new Map(
    file.products.flatMap((one) => one.parts.map((part) => [part.key, part.name || one.name])),
  );
  const told = remarks.map(({ part, words }) => (part === null ? words : `${names.get(part)}: ${words}`));
  return ok({ edit, assets, stockroom: whole, added, told });
}

export const DRAWINGS = ["frame", "panels"] as const;
/** What a drawing holds: lines that members stand on, or outlines of panels. */
export type DrawingOf = (typeof DRAWINGS)[number];

/** A drawing as what it is said to hold; null: panels where all its lines close to outlines, else a frame. */
export function broughtDrawing(
  name: string,
  bytes: Uint8Array,
  ground: BringGround,
  of: DrawingOf | null,
): Result<Brought, Problem> {
  const text = new TextDecoder().decode(bytes);
  if (of === "frame") return broughtLines(name, text, ground);
  const read = readPieces(name, text);
  if (of === "panels") return read.ok ? broughtPieces(read.value, ground) : read;
  return read.ok && isOfPanels(read.value)
    ? broughtPieces(read.value, ground)
    : broughtLines(name, text, ground);
}

const NO_UNIT = "The file tells no unit; millimetres are taken. Say a scale to change this.";

/** The outlines of a drawing as panels, of the boards that their layers are called as. */
function broughtPieces(drawn: DrawnPieces, { job, stockroom, scale }: BringGround): Result<Brought, Problem> {
  if (drawn.pieces.length === 0)
    return err({
      kind: "malformed",
      what: drawn.name,
      why: "no outline in it closes; join the ends of its lines",
    });
  const layers = new Set(drawn.pieces.map(({ layer }) => layer));
  const boards = new Map(
    [...layers].flatMap((layer) => {
      const board = boardOfLayer(layer, stockroom.boards);
      return board === null ? [] : [[layer, board] as const];
    }),
  );
  const without = [...layers].filter((layer) => !boards.has(layer));
  const edit = piecesEdit(drawn, { scale, boards }, job, idsIn(job, stockroom));
  const told = [
    ...(drawn.unit === null ? [NO_UNIT] : []),
    ...(without.length > 0
      ? [
          `Without a board, since no layer is called as one: ${without.map((layer) => layer || "0").join(", ")}.`,
        ]
      : []),
    ...drawn.told.map((words) => `Left out: ${words}.`),
  ];
  return ok({ edit, assets: [], stockroom, added: { sections: [], boards: [] }, told });
}

/** The lines of a drawing, with members on layers that are called as a section of the stockroom. */
function broughtLines(
  name: string,
  text: string,
  { job, stockroom, scale }: BringGround,
): Result<Brought, Problem> {
  const read = readSkeleton(name, text);
  if (!read.ok) return read;
  const skeleton = read.value;
  const sections = new Map(
    layersOf(skeleton.lines).flatMap((layer) => {
      const entry = stockroom.sections.find((one) => one.name === layer.name || one.id === layer.name);
      return entry ? [[layer.name, entry.id] as const] : [];
    }),
  );
  const unit = (skeleton.unit ?? 1) * scale;
  const { edit, double } = skeletonEdit(skeleton, { unit, sections }, job, idsIn(job, stockroom));
  const told = [
    ...(skeleton.unit === null ? [NO_UNIT] : []),
    ...(skeleton.skipped.length > 0
      ? [`Left out, since no member is curved: ${skeleton.skipped.join(", ")}.`]
      : []),
    ...(double > 0 ? [`${counted(double, "line")} left out, since each lies on another.`] : []),
  ];
  return ok({ edit, assets: [], stockroom, added: { sections: [], boards: [] }, told });
}

/** Ids that no table of a job has yet, nor any entry of the stockroom. */
function idsIn(job: Job, { sections, boards }: Stockroom): NewId {
  const ids = [
    ...Object.values(job).flatMap((table) => Object.keys(table)),
    ...[...sections, ...boards].map(({ id }) => id),
  ];
  let prefix = "read";
  while (ids.some((id) => id.startsWith(prefix))) prefix += "+";
  let count = 0;
  return (kind) => `${prefix}-${kind}${++count}`;
}
