/** What items of pages and their settings are called. */

import { SHEETS } from "@/core/drawing";
import {
  type Job,
  LETTER_HEIGHTS,
  type ListCorner,
  type ListItem,
  PAPERS,
  type Page,
  type PageItem,
  type Projection,
  type SizeMeasure,
  type ViewItem,
  type ViewLook,
  type ViewSide,
} from "@/core/job";
import type { Freedom } from "@/core/placing";
import { partName } from "@/core/steps";
import type { Tally } from "@/core/tally";

export const SIDE_WORDS: Readonly<Record<ViewSide, string>> = {
  front: "Front",
  back: "Back",
  left: "Left",
  right: "Right",
  top: "Top",
  bottom: "Bottom",
  frontLeft: "Isometric, front left",
  frontRight: "Isometric, front right",
  backRight: "Isometric, back right",
  backLeft: "Isometric, back left",
};
export const LOOK_WORDS: Readonly<Record<ViewLook, string>> = {
  lines: "Visible lines",
  hidden: "Visible lines, hidden ones dashed",
  tints: "Visible lines, tinted by material",
  shaded: "Visible lines, tinted and shaded",
};
export const CORNER_WORDS: Readonly<Record<ListCorner, string>> = {
  topLeft: "Top left",
  topRight: "Top right",
  bottomLeft: "Bottom left",
  bottomRight: "Bottom right",
};
/** How lengths of a page can be written, as the chooser offers them. */
export const PAGE_LENGTHS: readonly {
  readonly value: string;
  readonly label: string;
  readonly lengths: Page["lengths"];
}[] = [
  { value: "", label: "as the job", lengths: null },
  ...(
    [
      ["mm", 0],
      ["mm", 1],
      ["mm", 2],
      ["cm", 1],
      ["m", 3],
      ["in", 3],
    ] as const
  ).map(([unit, places]) => ({
    value: `${unit} ${places}`,
    label: places === 0 ? `${unit}, whole` : `${unit}, ${places} ${places === 1 ? "place" : "places"}`,
    lengths: { unit, format: { kind: "decimal" as const, places, trailingZeros: false } },
  })),
  ...(["in", "ft"] as const).flatMap((unit) =>
    ([8, 16, 32, 64] as const).map((denominator) => ({
      value: `${unit} 1/${denominator}`,
      label: unit === "in" ? `in, to 1/${denominator}` : `ft and in, to 1/${denominator}`,
      lengths: { unit, format: { kind: "fraction" as const, denominator } },
    })),
  ),
];

/** The one of them that a page has. */
export const pageLengthsValue = ({ lengths }: Page): string =>
  PAGE_LENGTHS.find((one) => JSON.stringify(one.lengths) === JSON.stringify(lengths))?.value ?? "";

export const PROJECTION_WORDS: Readonly<Record<Projection, string>> = {
  first: "First angle",
  third: "Third angle",
};
export const PAPER_CHOICES = PAPERS.map((value) => ({ value, label: SHEETS[value].name }));
export const LETTER_CHOICES = LETTER_HEIGHTS.map((height) => ({
  value: String(height),
  label: `${height} mm`,
}));

/** What a view shows, in a few words. */
export function viewOfWords({ of }: Pick<ViewItem, "of">, job: Job): string {
  switch (of.kind) {
    case "job":
      return "whole job";
    case "assembly":
      return job.assemblies[of.assembly]?.name ?? "an assembly that is gone";
    case "pieces":
      return of.records.length === 1 ? nameOf(of.records[0] ?? "", job) : `${of.records.length} pieces`;
    case "piece":
      return `${nameOf(of.record, job)}, alone`;
    default:
      return of satisfies never;
  }
}

export const MEASURE_WORDS: Readonly<Record<SizeMeasure, string>> = {
  horizontal: "Horizontal",
  vertical: "Vertical",
  along: "Along",
  diameter: "Diameter",
  radius: "Radius",
  angle: "Angle",
};

/** How a piece can still move, as it is said in lists. */
export const FREEDOM_WORDS: Readonly<Record<Freedom, string>> = {
  width: "left to right",
  depth: "front to back",
  height: "up and down",
  turn: "how it is turned",
};

export const nameOf = (record: string, job: Job): string => partName(job, record) || "a piece that is gone";

export function listWords({ list }: Pick<ListItem, "list">, job: Job): string {
  switch (list.kind) {
    case "cut":
      return "Cut list";
    case "buying":
      return "Buying list";
    case "pages":
      return "Contents";
    case "own":
      return job.lists[list.list]?.name ?? "A list that is gone";
    case "layout":
      return "Layout";
    case "rest": {
      const before = job.pageItems[list.of];
      return before?.kind === "list" && before.list.kind !== "rest"
        ? `${listWords(before, job)}, continued`
        : "List, continued";
    }
    default:
      return list satisfies never;
  }
}

export const KIND_WORDS: Readonly<Record<PageItem["kind"], string>> = {
  view: "View",
  list: "List",
  balloon: "Balloon",
  callout: "Callout",
  size: "Size",
  note: "Note",
  rule: "Line",
  picture: "Picture",
  template: "Template",
  card: "Card",
  step: "Building step",
};

/** What an item is called where it is named by itself. */
export function itemWords(item: PageItem, job: Job, tally: Tally): string {
  switch (item.kind) {
    case "view":
      if (item.from.kind === "detail") return `Detail ${item.from.letter}`;
      return item.caption === null ? `View of ${viewOfWords(item, job)}` : `View ${item.caption}`;
    case "list":
      return listWords(item, job);
    case "balloon": {
      const row = tally.rowOfPiece.get(item.pieces[0]?.record ?? "");
      return row?.mark ? `Balloon ${row.mark}` : "Balloon";
    }
    case "callout":
      return "Callout";
    case "size":
      return item.typed === null ? "Size" : `Size, typed over: ${item.typed}`;
    case "note":
      return `Note ${item.text.split("\n")[0]?.slice(0, 30) ?? ""}`;
    case "picture":
      return "Picture";
    case "card": {
      const row = tally.rowOfPiece.get(item.record);
      return row?.mark ? `Card ${row.mark}` : "Card";
    }
    case "template": {
      const row = tally.rowOfPiece.get(item.record);
      return row?.mark ? `Template ${row.mark}` : "Template";
    }
    case "step":
      return `Building step ${item.heading}`;
    case "rule":
      return item.frame ? "Frame" : "Line";
    default:
      return item satisfies never;
  }
}
