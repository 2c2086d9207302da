/** Drawing pages of a job as files: all in one PDF, or one as SVG or DXF. */
import type { Drawing } from "@/core/drawing";
import type { JobInfo } from "@/core/job";
import { drawingToDxf } from "./dxf";
import { pagesToPdf } from "./pdf";
import { drawingToSvg } from "./svg";

export const PAGE_FORMATS = { pdf: "application/pdf", svg: "image/svg+xml", dxf: "image/vnd.dxf" } as const;
export type PageFormat = keyof typeof PAGE_FORMATS;
export const isPageFormat = (text: string): text is PageFormat => Object.hasOwn(PAGE_FORMATS, text);

/** SVG and DXF hold one page: the first. */
export async function pagesFile(
  format: PageFormat,
  pages: readonly Drawing[],
  { info, made }: { readonly info: JobInfo; readonly made: Date },
): Promise<Uint8Array | string | null> {
  const heading = `${info.code} ${info.title}`;
  const [first] = pages;
  if (!first) return null;
  switch (format) {
    case "pdf":
      return pagesToPdf(heading, made, pages);
    case "svg":
      return drawingToSvg(first, heading);
    case "dxf":
      return drawingToDxf(first, info.unit);
    default:
      return format satisfies never;
  }
}
