/**
 * The lines of the views of a job's pages, with a memory of their own: the shape of each variant that a view shows, and the
 * views as they were drawn last. The browser runs it in a worker, the server and the command line run it as it is.
 */
import { createViewDrawer, type DrawnView, type ViewAsked } from "./drawing";
import { type Job, lengthWith, type Sizes, type VariantId } from "./job";
import { remembersLast } from "./kernel";
import { remembersSizes } from "./pipeline";
import { createDocumentReceiver, type DocumentMessage, type SentDocument } from "./sent-document";
import { createShaper, type Shape } from "./shape";
import { builtIn } from "./steps";
import type { Stockroom } from "./stockroom";
import { createSender, type Parcel } from "./transfer";

export type ViewInputs = SentDocument;

type Shaping = {
  readonly sizes: (job: Job, variant: VariantId | null) => Sizes;
  readonly shape: (job: Job, sizes: Sizes, stockroom: Stockroom) => Shape;
};

/** Draws views one by one; what stands as it did is the object of the call before. */
export function createViews(): (inputs: ViewInputs, asked: ViewAsked) => DrawnView {
  const byVariant = new Map<VariantId | null, Shaping>();
  const draw = createViewDrawer();
  return ({ job, stockroom, assets }, asked) => {
    const { variant, step } = asked;
    const shaping = byVariant.get(variant) ?? {
      sizes: remembersSizes(),
      shape: remembersLast(createShaper()),
    };
    byVariant.set(variant, shaping);
    const sizes = shaping.sizes(job, variant);
    const at = asked.cut ? lengthWith(sizes, asked.cut.at) : null;
    const shape = shaping.shape(job, sizes, stockroom);
    const built = step && { home: step.home, ...builtIn(step, shape) };
    const cutAt = at?.ok ? at.value : null;
    // What cannot be computed is told where the view stands.
    return draw(shape, { ...asked, cutAt, built }, assets);
  };
}

/** Asks another thread for one view. */
export type ViewMessage = DocumentMessage & { readonly number: number; readonly asked: ViewAsked };
export type ViewAnswer = {
  readonly number: number;
  /** `DrawnView`. */
  readonly parcel: Parcel;
};

/** Answers one message after the other. Throws where the first does not say all. */
export function createViewAnswering(): (message: ViewMessage) => ViewAnswer {
  const draw = createViews();
  const send = createSender();
  const receive = createDocumentReceiver();
  return ({ number, asked, ...document }) => ({ number, parcel: send(draw(receive(document), asked)) });
}
