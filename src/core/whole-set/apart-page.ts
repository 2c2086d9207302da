/** The job whole and pulled apart, side by side. */
import { bestScale, borderOf, sizeOfView, titleBox, viewFrom } from "../drawing";
import { type Page, plainView, type ViewItem } from "../job";
import type { PlacingInputs } from "../placings";
import { type Drafts, ISOMETRIC } from "./drafts";

/** mm on paper. Room for balloons round the view that is apart. */
const BALLOONS = 26;

/** A page of it, where no view of the job is pulled apart yet and there is anything to take apart. */
export function apartPage(
  set: Drafts,
  { assets, stockroom }: PlacingInputs,
): { readonly page: Page; readonly apart: ViewItem } | null {
  const { shape } = set.results;
  if (set.all("view").some(({ of, apart, step }) => of.kind === "job" && apart !== null && step === null))
    return null;
  const subject = { of: { kind: "job" }, axes: viewFrom([-1, -1, 1]), hidden: [] } as const;
  const whole = sizeOfView(shape, subject, assets);
  const spread = sizeOfView(shape, { ...subject, apart: 1 }, assets);
  if (!whole || !spread) return null;
  // Nothing to take apart.
  if (Math.abs(spread.width - whole.width) < 1 && Math.abs(spread.height - whole.height) < 1) return null;
  const sheet = set.page("Pulled apart");
  const border = borderOf(sheet);
  const title = titleBox(border, stockroom.titleBlock);
  const { unit } = set.job.info.job;
  const [free, high] = [border.x1 - border.x0, title.y0 - border.y0];
  const left = { width: 0.3 * free, height: high - 40 };
  const right = { width: free - left.width - 2 * BALLOONS - 10, height: high - 2 * BALLOONS };
  const scale = bestScale(spread, right, unit);
  const small = bestScale(whole, left, unit);
  const own = { page: sheet.id as string, from: ISOMETRIC };
  const page = { ...sheet, scale };
  const beside = plainView({
    ...own,
    id: set.ids.item(),
    at: [border.x0 + 10 + left.width / 2, border.y0 + high / 2],
    look: "shaded",
    scale: small === scale ? null : small,
  });
  const apart = plainView({
    ...own,
    id: set.ids.item(),
    at: [border.x1 - BALLOONS - right.width / 2, border.y0 + high / 2],
    look: "tints",
    apart: 1,
  });
  set.add([page], [beside, apart]);
  return { page, apart };
}
