/** What rows have by themselves: cards, and full-size templates of ends that no saw is set to. */
import { borderOf, pagesForTemplate, rowCard, wholeTemplate } from "../drawing";
import { kindOf } from "../ends";
import { jobStyle, type Page, type PageItem, plainCard, plainTemplate } from "../job";
import type { PlacingInputs } from "../placings";
import type { MemberForm, TallyRow } from "../tally";
import { type Drafts, GAP } from "./drafts";

/** Cards are so high, or twice, or three times as high. */
const CARD_ROWS = 3;

/** A card for each row that is made and has none, as far as it is wanted. */
export function cardPages(
  set: Drafts,
  { job, stockroom }: Pick<PlacingInputs, "job" | "stockroom">,
  isWanted: (row: TallyRow) => boolean = () => true,
): void {
  const { tally } = set.results;
  const has = new Set(set.all("card").map(({ record }) => tally.rowOfPiece.get(record)?.id));
  const rows = tally.rows
    .filter(({ id, shown }) => shown.form.kind !== "none" && !has.has(id))
    .filter(isWanted);
  const sample = set.paper();
  const lying = set.recipe.paper !== "small";
  const border = borderOf({ paper: sample, lying });
  const columns = set.columns();
  const width = Math.floor((border.x1 - border.x0 - GAP * (columns + 1)) / columns);
  const unit = Math.floor((border.y1 - border.y0 - GAP * (CARD_ROWS + 1)) / CARD_ROWS);
  const heightOf = (rowsTall: number) => unit * rowsTall + GAP * (rowsTall - 1);
  const ground = { style: jobStyle(job), stockroom };
  const tallOf = (row: TallyRow): number => {
    for (let tall = 1; tall < CARD_ROWS; tall++)
      if (rowCard(row, width, heightOf(tall), ground).fault === null && !isTooSmall(row, tall)) return tall;
    return CARD_ROWS;
  };
  let [page, column, used]: [Page | null, number, number] = [null, 0, 0];
  for (const row of rows) {
    const tall = tallOf(row);
    if (page && used + tall > CARD_ROWS) [column, used] = [column + 1, 0];
    if (!page || column >= columns) {
      page = set.page("Cards", { titleBlock: false, lying, scale: 1 });
      [column, used] = [0, 0];
      set.add([page], []);
    }
    const at: [number, number] = [
      border.x0 + GAP + column * (width + GAP),
      border.y0 + GAP + used * (unit + GAP),
    ];
    const record = row.pieces[0]?.id ?? "";
    set.add(
      [],
      [plainCard({ id: set.ids.item(), page: page.id, record, at, width, height: heightOf(tall) })],
    );
    used += tall;
  }
}

/** Panels with work in them want more room than the least: their sizes are many. */
function isTooSmall({ shown: { form } }: TallyRow, tall: number): boolean {
  if (form.kind !== "panel") return false;
  const { grooves, holes, notches, cutOuts, outline } = form;
  const worked = [grooves, holes, notches, outline ?? [], ...cutOuts].flat().length;
  return tall === 1 && worked > 1;
}

/** Whether an end is better marked round the member than set on a saw: curved, of two planes, or leaning two ways or on a round tube. */
function wantsTemplate({ ends, shape }: MemberForm): boolean {
  const isRound = shape?.kind === "roundTube" || shape?.kind === "roundBar";
  return ends.some((end) => {
    if (end.kind !== "plane") return true;
    const [slope] = kindOf(end).slopes(end);
    const [x, y] = slope ?? [0, 0];
    const leans = Math.hypot(x, y) > 1e-6;
    return leans && (isRound || (Math.abs(x) > 1e-6 && Math.abs(y) > 1e-6));
  });
}

/** Templates for rows that want one and have none. */
export function templatePages(set: Drafts, { job, stockroom }: PlacingInputs): void {
  const { tally } = set.results;
  const has = new Set(set.all("template").map(({ record }) => tally.rowOfPiece.get(record)?.id));
  const style = jobStyle(job);
  for (const row of tally.rows) {
    const { form } = row.shown;
    if (form.kind !== "member" || has.has(row.id) || !wantsTemplate(form)) continue;
    const record = row.pieces[0]?.id ?? "";
    const plain = plainTemplate({ id: set.ids.item(), page: "", record });
    const whole = wholeTemplate(plain, row, { code: job.info.job.code, stockroom, style });
    // What cannot be wrapped has its angles on its card.
    const needed = whole.ok ? pagesForTemplate(whole.value, set.isInch) : null;
    if (!needed) continue;
    const { columns, rows, paper, lying, at } = needed;
    for (let part = 0; part < columns * rows; part++) {
      const count = columns * rows;
      const heading = `Template ${row.mark}${count === 1 ? "" : `, ${part + 1} of ${count}`}`;
      const page = set.page(heading, { paper, lying, titleBlock: false, scale: 1 });
      const item: PageItem = {
        ...plain,
        id: set.ids.item(),
        page: page.id,
        at: [...at],
        part: { column: part % columns, row: Math.floor(part / columns), columns, rows },
      };
      set.add([page], [item]);
    }
  }
}
