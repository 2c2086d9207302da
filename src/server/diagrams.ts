/** Diagrams of saved layouts as files, and labels for the rack. */
import { type DiagramInput, diagramPages, fullSizeDrawing, rackLabelPages } from "@/core/drawing";
import { savedFor } from "@/core/layout";
import { styleOf } from "@/core/lists";
import { saySizes } from "@/core/measure";
import { entryStyle } from "@/core/stockroom";
import { type Connection, readRack } from "@/db";
import { drawingToDxf } from "@/formats/dxf";
import { isPageFormat, PAGE_FORMATS, type PageFormat } from "@/formats/pages-file";
import { pagesToPdf } from "@/formats/pdf";
import { drawingToSvg } from "@/formats/svg";
import { currentStockroom } from "./jobs";

export const DIAGRAM_FORMATS = PAGE_FORMATS;
export type DiagramFormat = PageFormat;
export const isDiagramFormat = isPageFormat;

/** The diagrams of one task; null when it has no layout. */
export async function printDiagrams(
  input: DiagramInput,
  taskId: string,
  format: DiagramFormat,
  made: Date,
): Promise<Uint8Array | string | null> {
  const task = input.results.tasks.find((one) => one.id === taskId);
  const found = task ? savedFor(task, input.saved) : null;
  if (!task || !found) return null;
  const one: DiagramInput = { ...input, results: { tasks: [task] } };
  const heading = `${input.info.code} ${task.name}`;
  if (format === "dxf")
    return drawingToDxf(fullSizeDrawing(found.saved, styleOf(input.info)), input.info.unit);
  if (format === "pdf") return pagesToPdf(heading, made, diagramPages(one, "a4"));
  const [drawing] = diagramPages(one, "tall");
  return drawing ? drawingToSvg(drawing, heading) : null;
}

/** Labels of rack pieces as a PDF, in the order in which they are asked for. */
export async function printRackLabels(
  db: Connection,
  ids: readonly string[],
  made: Date,
): Promise<Uint8Array | null> {
  const [rack, stockroom] = await Promise.all([readRack(db), currentStockroom(db)]);
  const labels = ids.flatMap((id) => {
    const piece = rack.find((one) => one.id === id);
    if (!piece) return [];
    const entry = stockroom.sectionById.get(piece.entry) ?? stockroom.boardById.get(piece.entry);
    const size = [piece.length, ...(piece.width === null ? [] : [piece.width])];
    return [
      {
        piece,
        stock: entry?.name ?? "no longer in the stockroom",
        size: saySizes(size, entryStyle(entry?.unit ?? "mm")),
      },
    ];
  });
  return labels.length === 0 ? null : pagesToPdf("Rack labels", made, rackLabelPages(labels));
}
