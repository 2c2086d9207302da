/**
 * The lines of the views of a job's pages, with a memory of their own: the shape of each variant that a view shows, and the
 * views as they were drawn last. The browser runs it in a worker, the server and the command line run it as it is.
 */
import { createViewDrawer, type DrawnView, type ViewAsked } from "./drawing";
import { type Assets, applyDiff, type Diff, type Job, lengthWith, type Sizes, type VariantId } from "./job";
import { invariant, remembersLast } from "./kernel";
import { remembersSizes } from "./pipeline";
import { createShaper, type Shape } from "./shape";
import { indexStockroom, type Stockroom, type StockroomData } from "./stockroom";
import { createSender, type Parcel } from "./transfer";

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
    const sizes = shaping.sizes(job, variant);
    const at = asked.cut ? lengthWith(sizes, asked.cut.at) : null;
    // What cannot be computed is told where the view stands.
    return draw(shaping.shape(job, sizes, stockroom), { ...asked, cutAt: at?.ok ? at.value : null }, assets);
  };
}

/** Asks another thread for one view. What is not there is as it was before; the first message has all. */
export type ViewMessage = {
  readonly number: number;
  readonly job?: Job;
  readonly diff?: Diff;
  readonly stockroom?: StockroomData;
  readonly assets?: Assets;
  readonly asked: ViewAsked;
};
export type ViewAnswer = {
  readonly number: number;
  /** `DrawnView`. */
  readonly parcel: Parcel;
};

/** Answers one message after the other. Throws where the first does not say all. */
export function createViewAnswering(): (message: ViewMessage) => ViewAnswer {
  const draw = createViews();
  const send = createSender();
  let known: Partial<ViewInputs> = {};
  return ({ number, diff, stockroom, asked, ...given }) => {
    const told = {
      ...known,
      ...(given.job ? { job: given.job } : {}),
      ...(given.assets ? { assets: given.assets } : {}),
      ...(stockroom ? { stockroom: indexStockroom(stockroom) } : {}),
    };
    invariant(told.job && told.stockroom && told.assets, "the job was not sent");
    const inputs = {
      job: diff ? applyDiff(told.job, diff) : told.job,
      stockroom: told.stockroom,
      assets: told.assets,
    };
    known = inputs;
    return { number, parcel: send(draw(inputs, asked)) };
  };
}
