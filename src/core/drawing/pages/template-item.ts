/** Templates on their page, at full size whatever the scale of the page is. */
import type { Vec2 } from "../../geometry";
import { jobStyle, type Paper, pageStyle, type TemplateItem } from "../../job";
import type { LengthStyle } from "../../measure";
import type { Stockroom } from "../../stockroom";
import type { TallyRow } from "../../tally";
import {
  type EndTemplateFault,
  endPattern,
  type Pattern,
  panelPattern,
  partOfPattern,
  partsFor,
} from "../templates";
import type { PageGround } from "./page-ground";
import { borderOf } from "./paper";
import type { PlacedItem } from "./placed";
import { faulty, remembered } from "./plain-items";

const FAULTS: Readonly<Record<EndTemplateFault, string>> = {
  open: "Paper cannot be wrapped round this section: templates are for tubes, bars and angles.",
  solid: "This section has no inside that paper could lie on. Choose the outside.",
  noSection: "This piece has no section, so its ends cannot be laid flat.",
  crossed: "The two ends of this member cross: make a template of one end.",
};

/** What is asked of a template, free of its place and of the part that stands there. */
export type TemplateAsked = Pick<TemplateItem, "ends" | "side" | "line" | "paper">;

type Told = { readonly fault: string };

/** The whole pattern of a row at full size; or the sentence why there is none. */
export function wholeTemplate(
  asked: TemplateAsked,
  row: TallyRow,
  ground: { readonly code: string; readonly stockroom: Stockroom; readonly style: LengthStyle },
): Pattern | Told {
  const { form } = row.shown;
  const words = {
    title: [ground.code, row.mark, row.name].filter((one) => one !== "").join(" "),
    section: row.stockName ?? "",
    style: ground.style,
    opposite: row.hands.opposite,
  };
  if (form.kind === "panel") return panelPattern(form, words, ground.stockroom);
  if (form.kind !== "member")
    return { fault: "This piece has no size, so there is nothing to draw at full size." };
  const made = endPattern(form, asked, words);
  return made.ok ? made.value : { fault: FAULTS[made.problem] };
}

type Drawn = { readonly whole: Pattern; readonly part: Pattern } | Told;

/** The whole pattern of a template, and the part of it that stands here; or the sentence why there is none. */
function drawnTemplate(item: TemplateItem, { job, tally, lists, head }: PageGround): Drawn {
  const row = tally.rowOfPiece.get(item.record);
  if (!row) return { fault: "The piece that this template is for is gone. Remove the template." };
  const page = job.pages[item.page];
  const style = page ? pageStyle(page, job) : jobStyle(job);
  const { code } = head.info;
  const { stockroom } = lists;
  return remembered(item, [row, code, stockroom, JSON.stringify(style)], () => {
    const whole = wholeTemplate(item, row, { code, stockroom, style });
    if ("fault" in whole) return whole;
    const inch = style.unit === "in" || style.unit === "ft";
    return { whole, part: partOfPattern(whole, item.part, { inch }) };
  });
}

/** mm. Between a template and the border of its page. */
const MARGIN = 3;

/** The paper that a pattern needs, and in how many parts: as few as A4 or letter allow; larger paper only where it has no room in many. */
export function pagesForTemplate(
  whole: Pattern,
  inch: boolean,
): {
  readonly paper: Paper;
  readonly lying: boolean;
  readonly columns: number;
  readonly rows: number;
  readonly at: Vec2;
} | null {
  const papers: readonly Paper[] = inch ? ["letter", "tabloid", "ansiC", "ansiD"] : ["a4", "a3", "a2", "a1"];
  for (const paper of papers) {
    const ways = [false, true].flatMap((lying) => {
      const border = borderOf({ paper, lying });
      const room = {
        width: border.x1 - border.x0 - 2 * MARGIN,
        height: border.y1 - border.y0 - 2 * MARGIN,
      };
      const parts = partsFor(whole, room);
      const at: Vec2 = [border.x0 + MARGIN, border.y0 + MARGIN];
      return parts ? [{ paper, lying, ...parts, at }] : [];
    });
    const [best] = ways.sort((a, b) => a.columns * a.rows - b.columns * b.rows);
    if (best) return best;
  }
  return null;
}

export function placedTemplate(item: TemplateItem, ground: PageGround): PlacedItem {
  const drawn = drawnTemplate(item, ground);
  const [x, y] = item.at;
  if ("fault" in drawn) return faulty(item, [x + 35, y + 10], drawn.fault);
  const { whole, part } = drawn;
  return {
    item,
    at: item.at,
    items: part.items,
    box: { x0: 0, y0: 0, x1: part.width, y1: part.height },
    fault: roomFault(item, whole, part, ground),
  };
}

/** Said where a template reaches past the border of its page. */
function roomFault(item: TemplateItem, whole: Pattern, part: Pattern, { job }: PageGround): string | null {
  const page = job.pages[item.page];
  if (!page) return null;
  const border = borderOf(page);
  const [x, y] = item.at;
  const slack = 0.01;
  const inside =
    x >= border.x0 - slack &&
    y >= border.y0 - slack &&
    x + part.width <= border.x1 + slack &&
    y + part.height <= border.y1 + slack;
  if (inside) return null;
  const room = { width: border.x1 - border.x0, height: border.y1 - border.y0 };
  if (part.width <= room.width && part.height <= room.height)
    return "This template reaches past the border of the page. Move it.";
  const parts = partsFor(whole, room);
  return parts === null
    ? "This template has no room on the page, not even in parts. Choose larger paper."
    : `This template has no room on the page. Print it in ${parts.columns * parts.rows} parts, or choose larger paper.`;
}
