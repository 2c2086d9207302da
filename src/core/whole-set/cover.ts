/** The cover: the picture of the job and the list of all pages. */
import { bestScale, borderOf, sizeOfView, viewFrom } from "../drawing";
import { type PageItem, pagesInOrder, plainList, plainView } from "../job";
import type { PlacingInputs } from "../placings";
import { type Drafts, ISOMETRIC } from "./drafts";

/** The picture of the job and the list of all pages, before all others. */
export function cover(set: Drafts, { job, assets }: PlacingInputs): void {
  const has = set.all("list").some(({ list }) => list.kind === "pages");
  if (has) return;
  const first = pagesInOrder(job)[0];
  const page = set.page("Cover", first ? { position: first.position - 1 } : {});
  const border = borderOf(page);
  const width = 0.36 * (border.x1 - border.x0);
  const room = { width: border.x1 - border.x0 - width - 40, height: border.y1 - border.y0 - 70 };
  const axes = viewFrom([-1, -1, 1]);
  const size = sizeOfView(set.results.shape, { of: { kind: "job" }, axes, hidden: [] }, assets);
  const scale = size ? bestScale(size, room, job.info.job.unit) : page.scale;
  const own = { page: page.id as string };
  const title: PageItem = {
    ...own,
    id: set.ids.item(),
    kind: "note",
    at: [border.x0 + 10, border.y0 + 10],
    text: job.info.job.title === "" ? "Drawings" : job.info.job.title,
    letters: 10,
    width: border.x1 - border.x0 - 20,
    strong: true,
  };
  const view = plainView({
    ...own,
    id: set.ids.item(),
    at: [border.x0 + 15 + room.width / 2, border.y0 + 45 + room.height / 2],
    from: ISOMETRIC,
    look: "shaded",
  });
  const contents = plainList({
    ...own,
    id: set.ids.item(),
    list: { kind: "pages" },
    at: [border.x1 - 8, border.y0 + 40],
    corner: "topRight",
    width: Math.max(60, width),
    height: border.y1 - border.y0 - 90,
    columns: 1,
  });
  set.add([{ ...page, scale }], [title, ...(size ? [view] : []), contents]);
}
