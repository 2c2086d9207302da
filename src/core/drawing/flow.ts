/** The flow of blocks over pages of one size, each with a head that names the job, its revision and the page. */

import type { JobInfo } from "../job";
import { at } from "../kernel";
import { type DrawItem, type Drawing, movedBy } from "./display";
import { SHEETS } from "./pages/paper";
import { textWidth } from "./text-width";

export const PAGE_SIZES = { a4: SHEETS.a4, letter: SHEETS.letter };
export type PageSize = keyof typeof PAGE_SIZES;

/** Millimetres; a height without end is one page that grows with what is on it. */
export type Page = { readonly width: number; readonly height: number; readonly name: string };

/** A page on which a block has so much room. */
export const pageWithRoom = (width: number, height: number): Page => ({
  name: "",
  width: width + 2 * MARGIN,
  height: height + 2 * MARGIN + HEAD + FOOT,
});

/** What stands over and under every page. */
export type PageHead = {
  readonly info: JobInfo;
  readonly revision: number;
  /** As it is to stand in the head. */
  readonly date: string;
  readonly variantName: string | null;
  readonly shop: string;
};

const MARGIN = 14;
const HEAD = 20;
const FOOT = 10;

/** Puts blocks under one another and opens a new page when the next one has no room. */
export class Flow {
  readonly width: number;
  private readonly page: Page;
  private readonly done: DrawItem[][] = [[]];
  private y = MARGIN + HEAD;

  constructor(page: Page) {
    this.page = page;
    this.width = page.width - 2 * MARGIN;
  }

  get room(): number {
    return this.page.height - MARGIN - FOOT - this.y;
  }

  get fullRoom(): number {
    return this.page.height - 2 * MARGIN - HEAD - FOOT;
  }

  /** Adds items that take `height`; gives whether a new page was opened for them. */
  add(height: number, items: readonly DrawItem[]): boolean {
    const opens = height > this.room && this.y > MARGIN + HEAD;
    if (opens) this.newPage();
    at(this.done, this.done.length - 1).push(...movedBy(items, [MARGIN, this.y]));
    this.y += height;
    return opens;
  }

  newPage(): void {
    this.done.push([]);
    this.y = MARGIN + HEAD;
  }

  isFresh(): boolean {
    return this.y === MARGIN + HEAD;
  }

  /** What is on each page, without head, foot and margins, and how tall it is. */
  columns(): readonly { readonly items: readonly DrawItem[]; readonly height: number }[] {
    const top = MARGIN + HEAD;
    return this.done.map((items, i) => ({
      items: movedBy(items, [-MARGIN, -top]),
      height: i + 1 < this.done.length ? this.fullRoom : this.y - top,
    }));
  }

  /** The pages; one that grows with what is on it is as tall as that. */
  pages(input: PageHead): readonly Drawing[] {
    const { width } = this.page;
    const height = Number.isFinite(this.page.height) ? this.page.height : this.y + MARGIN + FOOT;
    const page = { ...this.page, height };
    return this.done.map((items, i) => ({
      width,
      height,
      items: [...headItems(input, width), ...items, ...footItems(input, page, i + 1, this.done.length)],
    }));
  }
}

function headItems(
  { info, revision, date, variantName, shop }: PageHead,
  width: number,
): readonly DrawItem[] {
  const y = MARGIN + 5;
  const codeWidth = textWidth(`${info.code}  `, 5.6, "slab");
  const facts = [
    `Revision ${revision}`,
    date,
    ...(info.batch > 1 ? [`batch of ${info.batch}`] : []),
    ...(variantName ? [variantName] : []),
  ].join(" · ");
  return [
    { kind: "text", at: [MARGIN, y], text: info.code, size: 5.6, face: "slab", align: "left", ink: "ink" },
    {
      kind: "text",
      at: [MARGIN + codeWidth, y],
      text: info.title,
      size: 5.6,
      face: "slab",
      align: "left",
      ink: "ink",
    },
    {
      kind: "text",
      at: [width - MARGIN, y - 1.6],
      text: shop,
      size: 3.2,
      face: "text",
      align: "right",
      ink: "soft",
    },
    {
      kind: "text",
      at: [width - MARGIN, y + 2.6],
      text: facts,
      size: 3.2,
      face: "text",
      align: "right",
      ink: "soft",
    },
    {
      kind: "line",
      from: [MARGIN, y + 6.5],
      to: [width - MARGIN, y + 6.5],
      stroke: { ink: "ink", width: 0.5 },
    },
  ];
}

function footItems(
  { info, revision }: PageHead,
  page: Page,
  number: number,
  count: number,
): readonly DrawItem[] {
  const y = page.height - MARGIN + 2;
  const foot = (x: number, text: string, align: "left" | "right"): DrawItem => ({
    kind: "text",
    at: [x, y],
    text,
    size: 2.8,
    face: "text",
    align,
    ink: "soft",
  });
  return [
    foot(MARGIN, `${info.code} revision ${revision} · drawn from the design by Rustic Tally`, "left"),
    foot(page.width - MARGIN, `${page.name} · page ${number} of ${count}`, "right"),
  ];
}

/** The heading of a section. */
export const title = (text: string): readonly DrawItem[] => [
  { kind: "text", at: [0, 4], text, size: 4.6, face: "slab", align: "left", ink: "ink" },
];
