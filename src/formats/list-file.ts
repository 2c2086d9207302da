/** A list as a file of any of its formats. */
import { listPages, type PageHead, type PageSize } from "@/core/drawing";
import type { ListTable } from "@/core/lists";
import type { Tally } from "@/core/tally";
import { type CsvNumbers, listToCsv } from "./csv";
import { listToJson } from "./list-json";
import { pagesToPdf } from "./pdf";
import { drawingToSvg } from "./svg";
import { tableToXlsx } from "./xlsx";

export const LIST_FORMATS = {
  csv: "text/csv; charset=utf-8",
  json: "application/json",
  xlsx: "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
  pdf: "application/pdf",
  svg: "image/svg+xml",
} as const;
export type ListFormat = keyof typeof LIST_FORMATS;

export const isListFormat = (text: string): text is ListFormat => Object.hasOwn(LIST_FORMATS, text);

export type ListFileInput = {
  readonly table: ListTable;
  readonly tally: Tally;
  readonly head: PageHead;
  readonly made: Date;
  readonly page: PageSize;
  /** In CSV. */
  readonly numbers?: CsvNumbers;
};

/** Writes a list; every format but CSV names the job, its revision and the date. */
export async function listFile(
  format: ListFormat,
  { table, tally, head, made, page, numbers }: ListFileInput,
): Promise<Uint8Array | string> {
  const { code, title } = head.info;
  switch (format) {
    case "csv":
      return listToCsv(table, numbers);
    case "json": {
      const about = { code, title, revision: head.revision, variant: head.variantName };
      return `${JSON.stringify({ job: about, ...listToJson(table) }, null, 2)}\n`;
    }
    case "xlsx": {
      const variant = head.variantName ? `, ${head.variantName}` : "";
      return tableToXlsx(table, {
        line: `${code} ${title}${variant}, revision ${head.revision}, ${head.date}`,
        created: made,
      });
    }
    case "pdf":
      return pagesToPdf(`${code} ${table.title}`, made, listPages(head, { table, tally }, page));
    case "svg": {
      const [sheet] = listPages(head, { table, tally }, "tall");
      return sheet ? drawingToSvg(sheet, `${code} ${table.title}`) : "";
    }
    default:
      return format satisfies never;
  }
}
