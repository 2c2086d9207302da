/** Sections and boards of what was found, matched to the stockroom; those that it lacks as new entries. */
import {
  type BoardEntry,
  plainBoard,
  plainSection,
  type SectionEntry,
  type SectionShape,
  type Stockroom,
  sectionText,
} from "../stockroom";
import { type FoundFile, type FoundReading, readingFor, type TakeWay, timesOf } from "./found";

/** mm. Sizes that differ by less are one. */
const SAME = 0.05;

export type Ways = ReadonlyMap<string, TakeWay>;
export const wayOf = (ways: Ways, key: string): TakeWay => ways.get(key) ?? "taken";

/** A section that pieces of the file need. */
export type NeededSection = {
  readonly key: string;
  readonly shape: SectionShape;
  readonly material: string | null;
  readonly pieces: number;
  /** Entries of the stockroom that are the same section, the best first. */
  readonly entries: readonly SectionEntry[];
};
export type NeededBoard = {
  readonly key: string;
  readonly thickness: number;
  readonly material: string | null;
  readonly pieces: number;
  readonly entries: readonly BoardEntry[];
};

export const sectionKey = (shape: SectionShape, material: string | null): string =>
  `${sectionText(shape, String, " x ")} ${material ?? ""}`;

export const boardKey = (thickness: number, material: string | null): string =>
  `${thickness} ${material ?? ""}`;

/** All sections and boards that what enters needs. */
export function neededStock(
  file: FoundFile,
  ways: Ways,
  stockroom: Stockroom,
): { readonly sections: readonly NeededSection[]; readonly boards: readonly NeededBoard[] } {
  const times = timesOf(file);
  const sections = new Map<string, NeededSection>();
  const boards = new Map<string, NeededBoard>();
  for (const product of file.products) {
    const count = times.get(product.id) ?? 0;
    const { material } = product;
    if (count === 0) continue;
    for (const part of product.parts) {
      const read = readingFor(part, wayOf(ways, part.key));
      if (read?.kind === "member") {
        const key = sectionKey(read.shape, material);
        const known = sections.get(key);
        sections.set(key, {
          key,
          shape: read.shape,
          material,
          pieces: (known?.pieces ?? 0) + count,
          entries: known?.entries ?? sameSections(read.shape, material, stockroom),
        });
      } else if (read?.kind === "panel") {
        const key = boardKey(read.thickness, material);
        const known = boards.get(key);
        boards.set(key, {
          key,
          thickness: read.thickness,
          material,
          pieces: (known?.pieces ?? 0) + count,
          entries: known?.entries ?? sameBoards(read.thickness, material, stockroom),
        });
      }
    }
  }
  return { sections: [...sections.values()], boards: [...boards.values()] };
}

const isSameMaterial = (a: string | null, b: string | null) =>
  a !== null && b !== null && a.trim().toLowerCase() === b.trim().toLowerCase();

/** Those of the material first, then those whose material is not known to differ. */
const ranked = <E extends { readonly material: string | null }>(
  entries: readonly E[],
  material: string | null,
) =>
  entries.toSorted(
    (a, b) => Number(isSameMaterial(b.material, material)) - Number(isSameMaterial(a.material, material)),
  );

const sameSections = (
  shape: SectionShape,
  material: string | null,
  stockroom: Stockroom,
): readonly SectionEntry[] =>
  ranked(
    stockroom.sections
      .filter((entry) => isSameShape(entry.shape, shape))
      .toSorted((a, b) => likeness(b.shape, shape) - likeness(a.shape, shape)),
    material,
  );

/** Of two sections of one size the one whose flanges taper alike goes first, then the one whose roots are rounded alike. */
function likeness(a: SectionShape, b: SectionShape): number {
  const isLike = (x: number, y: number) => Number(Math.abs(x - y) <= SAME);
  return 2 * isLike(taperOf(a), taperOf(b)) + isLike(rootOf(a), rootOf(b));
}

/** The root radius of a section with flanges; those of angles go with their sizes. */
const rootOf = (shape: SectionShape): number =>
  shape.kind === "channel" || shape.kind === "tee" || shape.kind === "beam" ? (shape.rootRadius ?? 0) : 0;
const taperOf = (shape: SectionShape): number =>
  shape.kind === "channel" || shape.kind === "beam" ? (shape.taper?.percent ?? 0) : 0;

const sameBoards = (thickness: number, material: string | null, stockroom: Stockroom) =>
  ranked(
    stockroom.boards.filter((entry) => Math.abs(entry.thickness - thickness) <= SAME),
    material,
  );

/**
 * How parts enter where nobody has said: what could be a plate or a bar is what the stockroom has in its material and size.
 */
export function usualWays(file: FoundFile, stockroom: Stockroom): Ways {
  const ways = new Map<string, TakeWay>();
  const isKept = (read: FoundReading, material: string | null): boolean =>
    read.kind === "member"
      ? sameSections(read.shape, material, stockroom).some((entry) =>
          isSameMaterial(entry.material, material),
        )
      : read.kind === "panel" &&
        sameBoards(read.thickness, material, stockroom).some((entry) =>
          isSameMaterial(entry.material, material),
        );
  for (const { parts, material } of file.products)
    for (const part of parts) {
      const [other] = part.otherwise;
      if (!other || part.taken.kind === "other" || other.kind === part.taken.kind) continue;
      const whole =
        other.kind === "member"
          ? other.leftOver === 0 && other.start.kind === "plane" && other.end.kind === "plane"
          : true;
      if (whole && isKept(other, material) && !isKept(part.taken, material)) ways.set(part.key, "otherwise");
    }
  return ways;
}

const BLOCKS: ReadonlySet<string> = new Set(["flat", "timber", "squareBar"]);

/** Whether two shapes have the same sizes; bars of timber and of steel have one outline. */
function isSameShape(a: SectionShape, b: SectionShape): boolean {
  const isBlock = BLOCKS.has(a.kind) && BLOCKS.has(b.kind);
  if (a.kind !== b.kind && !isBlock) return false;
  const sizes = (shape: SectionShape) =>
    isBlock || shape.kind === "rectangularTube"
      ? [...shape.size.slice(0, 2).toSorted((x, y) => y - x), ...shape.size.slice(2)]
      : [...shape.size];
  const [ours, theirs] = [sizes(a), sizes(b)];
  if (ours.some((size, i) => Math.abs(size - (theirs[i] ?? 0)) > SAME)) return false;
  return !("corners" in a && "corners" in b) || a.corners === b.corners;
}

const tidy = (value: number) => String(Math.round(value * 100) / 100);

/** What a section is called where the stockroom has no name for it. */
export const plainSectionName = (shape: SectionShape): string => {
  const words = sectionText(shape, tidy, " × ");
  return `${words[0]?.toUpperCase()}${words.slice(1)}`;
};

/** A new entry for a section that the stockroom lacks; stock lengths and prices are the shop's to fill in. */
export const newSection = (
  id: string,
  { shape, material }: Pick<NeededSection, "shape" | "material">,
): SectionEntry =>
  plainSection({
    id,
    name: `${plainSectionName(shape)}${material === null ? "" : ` ${material}`}`.slice(0, 80),
    shape,
    material,
    source: "read from a file",
  });

export const newBoard = (
  id: string,
  { thickness, material }: Pick<NeededBoard, "thickness" | "material">,
): BoardEntry =>
  plainBoard({
    id,
    name: `${material ?? "Board"} ${tidy(thickness)} mm`.slice(0, 80),
    material,
    thickness,
    grain: null,
    stages: null,
  });
