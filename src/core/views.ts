/**
 * The lines of the views of a job's pages, with a memory of their own: the shape of each variant that a view shows, and the
 * views as they were drawn last. The browser runs it in a worker, the server and the command line run it as it is.
 */
import { createViewDrawer, type DrawnView, type ViewAsked } from "./drawing";
import type { Assets, Job, Sizes, VariantId } from "./job";
import { remembersLast } from "./kernel";
import { remembersSizes } from "./pipeline";
import { createShaper, type Shape } from "./shape";
import type { Stockroom } from "./stockroom";

export type ViewInputs = {
  readonly job: Job;
  readonly stockroom: Stockroom;
  readonly assets: Assets;
};

type Shaping = {
  readonly sizes: (job: Job, variant: VariantId | null) => Sizes;
  readonly shape: (job: Job, sizes: Sizes, stockroom: Stockroom) => Shape;
};

/** Draws views one by one; what stands as it did is the object of the call before. */
export function createViews(): (inputs: ViewInputs, asked: ViewAsked) => DrawnView {
  const byVariant = new Map<VariantId | null, Shaping>();
  const draw = createViewDrawer();
  return ({ job, stockroom, assets }, asked) => {
    const { variant } = asked;
    const shaping = byVariant.get(variant) ?? {
      sizes: remembersSizes(),
      shape: remembersLast(createShaper()),
    };
    byVariant.set(variant, shaping);
    return draw(shaping.shape(job, shaping.sizes(job, variant), stockroom), asked, assets);
  };
}
