/** The diagrams of one stock size on pages, to a stated scale. */
import type { Drawing } from "./display";
import { Flow, PAGE_SIZES, type PageSize, title } from "./flow";
import { type DiagramInput, layoutBlock } from "./print";

/** Pages with the diagrams of the tasks that `input` holds; `tall`: one page that is as long as they are. */
export function diagramPages(input: DiagramInput, page: PageSize | "tall"): readonly Drawing[] {
  const size =
    page === "tall" ? { name: "one page", width: 297, height: Number.POSITIVE_INFINITY } : PAGE_SIZES[page];
  const flow = new Flow(size);
  flow.add(9, title("Layouts"));
  for (const task of input.results.tasks) layoutBlock(flow, task, input);
  return flow.pages(input);
}
