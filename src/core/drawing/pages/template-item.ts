/** Templates on their page, at full size whatever the scale of the page is. */
import type { Vec2 } from "../../geometry";
import { jobStyle, type Paper, pageStyle, type TemplateItem } from "../../job";
import { err, ok, type Result } from "../../kernel";
import type { LengthStyle } from "../../measure";
import type { Stockroom } from "../../stockroom";
import type { TallyRow } from "../../tally";
import { endPattern, type Pattern, panelPattern, partOfPattern, partsFor } from "../templates";
import type { ItemFault, PatternFault } from "./item-fault";
import type { PageGround } from "./page-ground";
import { borderOf } from "./paper";
import type { PlacedItem } from "./placed";
import { faulty, remembered } from "./plain-items";

/** What is asked of a template, free of its place and of the part that stands there. */
export type TemplateAsked = Pick<TemplateItem, "ends" | "side" | "line" | "paper">;

/** The whole pattern of a row at full size; or why there is none. */
export function wholeTemplate(
  asked: TemplateAsked,
  row: TallyRow,
  ground: { readonly code: string; readonly stockroom: Stockroom; readonly style: LengthStyle },
): Result<Pattern, PatternFault> {
  const { form } = row.shown;
  const words = {
    title: [ground.code, row.mark, row.name].filter((one) => one !== "").join(" "),
    section: row.stockName ?? "",
    style: ground.style,
    opposite: row.hands.opposite,
  };
  if (form.kind === "panel") return ok(panelPattern(form, words, ground.stockroom));
  return form.kind === "member" ? endPattern(form, asked, words) : err("noSize");
}

type Drawn = Result<{ readonly whole: Pattern; readonly part: Pattern }, ItemFault>;

/** The whole pattern of a template, and the part of it that stands here; or why there is none. */
function drawnTemplate(item: TemplateItem, { job, tally, lists, head }: PageGround): Drawn {
  const row = tally.rowOfPiece.get(item.record);
  if (!row) return err({ kind: "lost", what: "pieceOfTemplate" });
  const page = job.pages[item.page];
  const style = page ? pageStyle(page, job) : jobStyle(job);
  const { code } = head.info;
  const { stockroom } = lists;
  return remembered(item, [row, code, stockroom, JSON.stringify(style)], () => {
    const whole = wholeTemplate(item, row, { code, stockroom, style });
    if (!whole.ok) return err({ kind: "noPattern", why: whole.problem });
    const inch = style.unit === "in" || style.unit === "ft";
    return ok({ whole: whole.value, part: partOfPattern(whole.value, item.part, { inch }) });
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
  if (!drawn.ok) return faulty(item, [x + 35, y + 10], drawn.problem);
  const { whole, part } = drawn.value;
  return {
    item,
    at: item.at,
    items: part.items,
    box: { x0: 0, y0: 0, x1: part.width, y1: part.height },
    fault: roomFault(item, whole, part, ground),
  };
}

/** Said where a template reaches past the border of its page. */
function roomFault(item: TemplateItem, whole: Pattern, part: Pattern, { job }: PageGround): ItemFault | null {
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
  if (part.width <= room.width && part.height <= room.height) return { kind: "templatePastBorder" };
  const parts = partsFor(whole, room);
  return { kind: "templateTooLarge", parts: parts && parts.columns * parts.rows };
}
