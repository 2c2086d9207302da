/** What has to be drawn for the views of a page, free of place and scale: moving or scaling a view asks for nothing new. */
import { cross, type Vec3 } from "../../geometry";
import type {
  Feature,
  FollowerSide,
  Page,
  PageItem,
  Projection,
  VariantId,
  ViewCut,
  ViewItem,
  ViewOf,
} from "../../job";
import type { StepAsked } from "../../steps";
import { VIEW_DIRECTIONS, type ViewFrame, viewFrom } from "../lines";

export type ViewAsked = {
  /** The item that it is for. */
  readonly id: string;
  readonly of: ViewOf;
  /** In the axes of what it shows: of the job or assembly, or of the piece itself. */
  readonly axes: ViewFrame;
  readonly hidden: readonly string[];
  readonly cut: ViewCut | null;
  /** How far it is pulled apart, from 0 to 1; null: it is not. */
  readonly apart: number | null;
  /** What stands apart as a hand put it. */
  readonly apartBy: ViewItem["apartBy"];
  /** The building step that it shows; null: it shows all. */
  readonly step: StepAsked | null;
  readonly variant: VariantId | null;
  /** Lines that are hidden are wanted as well. */
  readonly behind: boolean;
  /** What is seen of each piece is wanted, to be tinted. */
  readonly tints: "none" | "flat" | "shaded";
  /** Places that leaders may point at are wanted. */
  readonly parts: boolean;
  /** The places that its sizes measure from and to. */
  readonly features: readonly Feature[];
};

const reversed = ([x, y, z]: Vec3): Vec3 => [0 - x, 0 - y, 0 - z];

/** From where a view looks that stands on a side of another: ISO 5456-2; first angle shows the far side, third the near one. */
export function followerAxes(axes: ViewFrame, side: FollowerSide, projection: Projection): ViewFrame {
  const { right, up } = axes;
  const third = projection === "third";
  switch (side) {
    case "right":
    case "left": {
      const towards = (side === "right") === third ? right : reversed(right);
      return { right: cross(up, towards), up, towards };
    }
    case "above":
    case "below": {
      const towards = (side === "above") === third ? up : reversed(up);
      return { right, up: cross(towards, right), towards };
    }
    default:
      return side satisfies never;
  }
}

/** The axes of a view; null where what it follows is not there. */
export function axesOfView(
  view: ViewItem,
  itemById: (id: string) => PageItem | undefined,
  projection: Projection,
  depth = 0,
): ViewFrame | null {
  const { from } = view;
  switch (from.kind) {
    case "named":
      return viewFrom(VIEW_DIRECTIONS[from.side]);
    case "typed":
      return viewFrom(from.towards);
    case "follower": {
      const parent = itemById(from.of);
      if (parent?.kind !== "view" || depth > 100) return null;
      const axes = axesOfView(parent, itemById, projection, depth + 1);
      return axes && followerAxes(axes, from.side, projection);
    }
    case "detail": {
      const parent = itemById(from.of);
      return parent?.kind === "view" && depth < 100
        ? axesOfView(parent, itemById, projection, depth + 1)
        : null;
    }
    default:
      return from satisfies never;
  }
}

/** The view whose subject a view shows: a detail shows that of the view that it is of. */
export function subjectOfView(
  view: ViewItem,
  itemById: (id: string) => PageItem | undefined,
  depth = 0,
): ViewItem {
  const parent = view.from.kind === "detail" && depth < 100 ? itemById(view.from.of) : undefined;
  return parent?.kind === "view" ? subjectOfView(parent, itemById, depth + 1) : view;
}

/** All that the views of a page ask for; places for leaders where there are any, or where somebody may want some. */
export function viewsAsked(
  page: Pick<Page, "projection">,
  items: readonly PageItem[],
  variant: VariantId | null,
  stepOf: (id: string) => StepAsked | null,
  allParts = false,
): readonly ViewAsked[] {
  const byId = new Map<string, PageItem>(items.map((item) => [item.id, item]));
  const pointedAt = new Set(
    items.flatMap((item) => (item.kind === "balloon" || item.kind === "callout" ? [item.view] : [])),
  );
  return items.flatMap((item): ViewAsked[] => {
    if (item.kind === "card") return item.sits ? [{ ...whereItSits, id: item.id, variant }] : [];
    if (item.kind !== "view") return [];
    const axes = axesOfView(item, (id) => byId.get(id), page.projection);
    if (!axes) return [];
    const subject = subjectOfView(item, (id) => byId.get(id));
    return [
      {
        id: item.id,
        of: subject.of,
        axes,
        hidden: subject.hidden,
        cut: subject.cut,
        apart: subject.apart,
        apartBy: subject.apartBy,
        step: stepOfView(subject, stepOf),
        variant: (subject.variant as VariantId | null) ?? variant,
        behind: item.look === "hidden",
        tints: item.look === "tints" ? "flat" : item.look === "shaded" ? "shaded" : "none",
        parts: allParts || pointedAt.has(item.id),
        features: items.flatMap((one) => featuresFor(item.id, one)),
      },
    ];
  });
}

/** The step that a view shows; null: none, or it is gone or builds something else. */
function stepOfView(
  { step, of }: Pick<ViewItem, "step" | "of">,
  stepOf: (id: string) => StepAsked | null,
): StepAsked | null {
  const found = step === null ? null : stepOf(step);
  if (!found || (of.kind !== "job" && of.kind !== "assembly")) return null;
  return found.home === (of.kind === "assembly" ? of.assembly : null) ? found : null;
}

/** The picture of where a piece sits: the same for all cards. */
const whereItSits: Omit<ViewAsked, "id" | "variant"> = {
  of: { kind: "job" },
  axes: viewFrom(VIEW_DIRECTIONS.frontLeft),
  hidden: [],
  cut: null,
  apart: null,
  apartBy: [],
  step: null,
  // What is not seen of a piece is dashed.
  behind: true,
  tints: "none",
  parts: false,
  features: [],
};

/** The places that an item wants to know of in a view. */
function featuresFor(view: string, item: PageItem): readonly Feature[] {
  if (item.kind === "size")
    return item.view === view ? [item.from, ...(item.to ? [item.to] : []), ...item.between] : [];
  if (item.kind !== "view" || item.from.kind !== "detail") return [];
  return item.id === view || item.from.of === view ? [item.from.about] : [];
}
