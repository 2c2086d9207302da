/**
 * Which pieces the pages of a job place, with a memory of its own: what the design tells by itself is read anew only when the
 * design changes. The browser runs it in a worker, tests and the demo run it as it is.
 */
import { isSquareView, placesOfViews, subjectOfView } from "./drawing";
import {
  type Assets,
  type Home,
  itemsOfPage,
  type Job,
  type PageItem,
  pagesInOrder,
  type Sizes,
  type VariantId,
} from "./job";
import { at, remembersLast } from "./kernel";
import { asksOfPages } from "./paper-set";
import { remembersDesign, remembersSizes } from "./pipeline";
import {
  type Body,
  changedShapes,
  type Freedom,
  type HomePlacing,
  type HowKnown,
  howKnown,
  type ProposedSize,
  placingOf,
  proposedSizes,
  type Repeated,
  toldByDesign,
  verifyPlacing,
} from "./placing";
import { createDocumentReceiver, type DocumentMessage, type SentDocument } from "./sent-document";
import { createShaper, type Shape } from "./shape";
import type { Stockroom } from "./stockroom";
import { createViews } from "./views";

export type PlacingInputs = SentDocument & { readonly variant: VariantId | null };

/** A body by its record, and which of several by it. */
export type BodyName = Pick<Body, "record" | "nth">;

export type LooseGroup = {
  readonly home: Home;
  readonly freedom: Freedom;
  /** They move as one. */
  readonly bodies: readonly BodyName[];
};

export type PlacingReport = {
  /** Pieces, and assemblies in each home, that have a place to be told. */
  readonly count: number;
  readonly loose: readonly LooseGroup[];
  readonly repeated: readonly Repeated[];
  readonly ofOnePiece: readonly string[];
  readonly contrary: readonly string[];
  /** Built from the numbers as they are written: what stands farthest from its place. */
  readonly farthest: { readonly body: BodyName; readonly mm: number } | null;
  /** Whether a second way of solving says the same. */
  readonly confirmed: boolean;
};

/** From what the place of a piece follows; `in`: the assembly in which it is, whose own place is told apart. */
export type PlacingOfPiece = {
  readonly body: BodyName;
  readonly isDatum: boolean;
  readonly known: readonly {
    readonly freedom: Freedom;
    readonly sizes: readonly string[];
    readonly beside: readonly {
      readonly kind: HowKnown[number]["relations"][number]["kind"];
      readonly body: BodyName | null;
    }[];
  }[];
};

export type Placings = {
  readonly check: (inputs: PlacingInputs) => PlacingReport;
  /** Sizes that a page should have; `only`: for what is loose in one home. */
  readonly propose: (
    inputs: PlacingInputs,
    page: string,
    only: { readonly home: Home; readonly bodies: readonly BodyName[] } | null,
  ) => readonly ProposedSize[];
  /** null: the record is no piece of the design. */
  readonly how: (inputs: PlacingInputs, record: string) => PlacingOfPiece | null;
};

export function createPlacings(): Placings {
  const design = remembersDesign();
  const sizesOf = remembersSizes();
  const shapeOf = remembersLast(createShaper());
  const shapers = new Map<string, ReturnType<typeof createShaper>>();
  const shaperOf = (size: string) => {
    const known = shapers.get(size) ?? createShaper();
    shapers.set(size, known);
    return known;
  };
  const told = remembersLast(
    (job: Job, variant: VariantId | null, stockroom: Stockroom, assets: Assets, shape: Shape) =>
      toldByDesign(job, shape, changedShapes({ job, variant, shape }, stockroom, shaperOf), assets),
  );
  const placing = remembersLast(placingOf);
  const draw = createViews();

  const placed = ({ job, stockroom, assets, variant }: PlacingInputs) => {
    const made = design(job);
    const sizes: Sizes = sizesOf(made, variant);
    const shape = shapeOf(made, sizes, stockroom);
    const own = told(made, variant, stockroom, assets, shape);
    return { sizes, shape, placing: placing(own, job, shape, variant, assets) };
  };

  return {
    check: (inputs) => {
      const { placing: found } = placed(inputs);
      const farthest = found.homes.flatMap(({ farthest: one, bodies }) =>
        one ? [{ body: nameOf(bodies, one.body), mm: one.mm }] : [],
      );
      return {
        count: found.homes.reduce((sum, { bodies }) => sum + bodies.length, 0),
        loose: found.homes.flatMap(({ home, loose, bodies }) =>
          loose.map((group) => ({
            home,
            freedom: group.freedom,
            bodies: group.bodies.map((one) => nameOf(bodies, one)),
          })),
        ),
        repeated: found.homes.flatMap(({ repeated }) => repeated),
        ofOnePiece: found.ofOnePiece,
        contrary: found.contrary,
        farthest: farthest.reduce<PlacingReport["farthest"]>((a, b) => (a && a.mm >= b.mm ? a : b), null),
        confirmed: found.homes.every((one) => isConfirmed(one)),
      };
    },
    propose: (inputs, id, only) => {
      const { job, stockroom, assets, variant } = inputs;
      const page = pagesInOrder(job).find((one) => one.id === id);
      if (!page) return [];
      const { sizes, shape, placing: found } = placed(inputs);
      const items = itemsOfPage(job, page.id);
      const views = new Map(
        asksOfPages(job, [page], variant)
          .filter((asked) => asked.variant === variant && isSquareView(asked.axes))
          .map((asked) => [asked.id, draw({ job: design(job), stockroom, assets }, asked)] as const),
      );
      const scales = new Map(
        [...placesOfViews(page, items, views)].map(([view, { scale }]) => [view, scale]),
      );
      const ground = { job, sizes, shape, assets, page, items, views, scales };
      if (only) {
        const home = found.homes.find((one) => one.home === only.home);
        const numbers = home ? only.bodies.map((body) => numberOf(home.bodies, body)) : [];
        return home ? proposedSizes(home, ground, numbers) : [];
      }
      // What an assembly has of its own belongs to the views of it, if the set has any.
      const shown = assembliesShown(job);
      return found.homes.flatMap((home) =>
        home.home === null || !shown.has(home.home) || isShownOn(items, home.home)
          ? proposedSizes(home, ground)
          : [],
      );
    },
    how: (inputs, record) => {
      const { placing: found } = placed(inputs);
      for (const home of found.homes) {
        const body = home.bodies.findIndex((one) => one.record === record);
        if (body < 0) continue;
        const known = howKnown(home, body).map(({ freedom, sizes, relations }) => ({
          freedom,
          sizes,
          beside: relations.map(({ kind, a, b }) => {
            const other = a === body ? b : a;
            return { kind, body: other < 0 ? null : nameOf(home.bodies, other) };
          }),
        }));
        return { body: nameOf(home.bodies, body), isDatum: body === home.datum, known };
      }
      return null;
    },
  };
}

const nameOf = (bodies: readonly Body[], number: number): BodyName => {
  const { record, nth } = at(bodies, number);
  return { record, nth };
};
const numberOf = (bodies: readonly Body[], { record, nth }: BodyName): number =>
  bodies.findIndex((one) => one.record === record && one.nth === nth);

function isConfirmed(home: HomePlacing): boolean {
  const { movable, held } = verifyPlacing(home);
  return movable.length === 0 && held.length === 0;
}

/** The assemblies that a view of the set shows by themselves. */
const assembliesShown = (job: Job): ReadonlySet<Home> =>
  new Set(
    Object.values(job.pageItems).flatMap((item) =>
      item.kind === "view" && item.of.kind === "assembly" ? [item.of.assembly] : [],
    ),
  );

function isShownOn(items: readonly PageItem[], home: Home): boolean {
  const find = (id: string) => items.find((item) => item.id === id);
  return items.some((item) => {
    const of = item.kind === "view" ? subjectOfView(item, find).of : null;
    return of?.kind === "assembly" && of.assembly === home;
  });
}

/** Questions to another thread. */
export type PlacingMessage = DocumentMessage & {
  readonly number: number;
  readonly variant: VariantId | null;
  readonly question: PlacingQuestion;
};
export type PlacingQuestion =
  | { readonly kind: "check" }
  | { readonly kind: "propose"; readonly page: string; readonly only: Parameters<Placings["propose"]>[2] }
  | { readonly kind: "how"; readonly record: string };
export type PlacingAnswer = {
  readonly number: number;
  readonly value: PlacingReport | readonly ProposedSize[] | PlacingOfPiece | null;
};

/** Answers one message after the other. Throws where the first does not say all. */
export function createPlacingAnswering(): (message: PlacingMessage) => PlacingAnswer {
  const placings = createPlacings();
  const receive = createDocumentReceiver();
  return ({ number, variant, question, ...document }) => {
    const inputs = { ...receive(document), variant };
    switch (question.kind) {
      case "check":
        return { number, value: placings.check(inputs) };
      case "propose":
        return { number, value: placings.propose(inputs, question.page, question.only) };
      case "how":
        return { number, value: placings.how(inputs, question.record) };
      default:
        return question satisfies never;
    }
  };
}
