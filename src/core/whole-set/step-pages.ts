/** Building steps, one on a page: those of each assembly first, innermost ones before what they stand in, then those of the job. */
import { bestScale, borderOf, type DrawnPage, newBalloons, sizeOfView, titleBox, viewFrom } from "../drawing";
import type { PlaneBox } from "../geometry";
import {
  type Home,
  type Job,
  type Page,
  type PageItem,
  plainView,
  type StepItem,
  type ViewItem,
} from "../job";
import type { PlacingInputs } from "../placings";
import type { Shape } from "../shape";
import { builtIn, findSteps, furtherStep, type ProposedStep, proposedSteps, standingSteps } from "../steps";
import { type Drafts, ISOMETRIC } from "./drafts";

/** mm on paper. Room for balloons round the view, and between it and the text. */
const BALLOONS = 22;
const INSIDE = 6;
/** The text takes so much of the width, at least so many mm. */
const TEXT_SHARE = 0.3;
const LEAST_TEXT = 75;

type Made = { readonly page: Page; readonly step: StepItem; readonly view: ViewItem };

/** Assemblies in the order in which they are built: what stands in another comes before it. */
function homesInOrder(job: Job, shape: Shape): readonly Home[] {
  const depth = new Map<Home, number>();
  for (const [home, instances] of shape.places) {
    const built = instances.filter(({ counted }) => counted !== "guide" && counted !== "leftOut");
    // What is bought as a whole is not built.
    const made = built.filter(({ boughtWhole, counted }) => !boughtWhole && counted !== "within");
    if (home === null || made.length > 0)
      depth.set(home, Math.max(0, ...made.map(({ path }) => path.length)));
  }
  const name = (home: Home) => (home === null ? "" : (job.assemblies[home]?.name ?? ""));
  return [...depth.keys()].sort(
    (a, b) => (depth.get(b) ?? 0) - (depth.get(a) ?? 0) || name(a).localeCompare(name(b)),
  );
}

/** Steps for all that has none, and one more for what no step builds in. */
export function stepPages(set: Drafts, inputs: PlacingInputs, draw: (page: Page) => DrawnPage): void {
  const { job, assets } = inputs;
  const { shape } = set.results;
  const standing = standingSteps(job, shape);
  for (const home of homesInOrder(job, shape)) {
    const there = standing.get(home);
    const steps = there
      ? there.never.length > 0
        ? [furtherStep(job, shape, home, there.never)]
        : []
      : proposedSteps(job, shape, home, assets);
    const made = steps.map((step) => onPage(set, home, step, inputs));
    set.add(
      made.map(({ page }) => page),
      made.flatMap(({ step, view }): readonly PageItem[] => [step, view]),
    );
    const scale = scaleOf(set, made, inputs);
    for (const one of made) {
      const page = { ...one.page, scale };
      set.add([page], []);
      set.add([], balloonsOf(set, draw(page), one));
    }
  }
}

/** Room on a page of a step: for its text, and for its view. */
function roomsOf(
  page: Page,
  { stockroom }: PlacingInputs,
): { readonly text: number; readonly view: PlaneBox } {
  const border = borderOf(page);
  const title = titleBox(border, stockroom.titleBlock);
  const text = Math.max(LEAST_TEXT, Math.round((border.x1 - border.x0) * TEXT_SHARE));
  return {
    text,
    view: {
      x0: border.x0 + INSIDE + text + BALLOONS,
      y0: border.y0 + BALLOONS,
      x1: border.x1 - BALLOONS,
      y1: title.y0 - BALLOONS,
    },
  };
}

function onPage(
  set: Drafts,
  home: Home,
  { heading, text, comes }: ProposedStep,
  inputs: PlacingInputs,
): Made {
  const page = set.page(heading);
  const border = borderOf(page);
  const rooms = roomsOf(page, inputs);
  const step: StepItem = {
    id: set.ids.item(),
    page: page.id,
    kind: "step",
    at: [border.x0 + INSIDE, border.y0 + INSIDE],
    width: rooms.text,
    home,
    heading,
    text,
    comes: [...comes],
  };
  const view = plainView({
    id: set.ids.item(),
    page: page.id,
    at: [(rooms.view.x0 + rooms.view.x1) / 2, (rooms.view.y0 + rooms.view.y1) / 2],
    of: home === null ? { kind: "job" } : { kind: "assembly", assembly: home },
    from: ISOMETRIC,
    look: "tints",
    step: step.id,
    apart: 1,
  });
  return { page, step, view };
}

/** The largest standard scale at which all steps of a home have room: what is built keeps its size from page to page. */
function scaleOf(set: Drafts, made: readonly Made[], inputs: PlacingInputs): number {
  const { job, results } = set;
  const stepOf = findSteps(job);
  const sizes = made.flatMap(({ view, step }) => {
    const found = stepOf(step.id);
    const built = found && { home: found.home, ...builtIn(found, results.shape) };
    const asked = { of: view.of, axes: viewFrom([-1, -1, 1]), hidden: [], apart: view.apart, built } as const;
    return sizeOfView(results.shape, asked, inputs.assets) ?? [];
  });
  const [first] = made;
  if (!first || sizes.length === 0) return 1;
  const { view: room } = roomsOf(first.page, inputs);
  return bestScale(
    {
      width: Math.max(...sizes.map(({ width }) => width)),
      height: Math.max(...sizes.map(({ height }) => height)),
    },
    { width: room.x1 - room.x0, height: room.y1 - room.y0 },
    job.info.job.unit,
  );
}

/** A balloon for each row of which something comes in, on what comes in. */
function balloonsOf(set: Drafts, drawn: DrawnPage, { page, view }: Made): readonly PageItem[] {
  const ring = drawn.rings.get(view.id);
  if (!ring) return [];
  const coming = new Set(ring.drawn.coming ?? []);
  const isComing = ({ piece }: { readonly piece: number }) =>
    coming.has(ring.drawn.pieces[piece]?.record ?? "");
  const parts = ring.drawn.parts.filter(isComing);
  const seen = new Set(parts.map(({ piece }) => ring.drawn.pieces[piece]?.record));
  const rows = set.results.tally.rows.filter(
    ({ mark, pieces }) => mark !== "" && pieces.some(({ id }) => seen.has(id)),
  );
  const own = { ...ring, drawn: { ...ring.drawn, parts } };
  return newBalloons({ page: page.id, view: view.id }, rows, [], own, set.ids.item as () => never);
}
