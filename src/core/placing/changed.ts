/** The same design with each of its key sizes changed a little: what holds in all of them is no chance. */
import { type Job, type KeySize, resolveSizes, type VariantId } from "../job";
import { MM_PER_UNIT, parseTypedLength, parseTypedNumber } from "../measure";
import { type Shape, withKeySize } from "../shape";
import { type Stockroom, sectionProperties } from "../stockroom";

/** mm, and degrees. Far above what is taken to be one plane, far below what would break a design. */
const CHANGE_MM = 0.5;
const CHANGE_DEG = 0.2;

export type Shaping = (job: Job, sizes: ReturnType<typeof resolveSizes>, stockroom: Stockroom) => Shape;

/** The lengths and angles of a job that are typed, not computed from others, and free to change, in one variant. */
function typedSizes(job: Job, variant: VariantId | null): readonly KeySize[] {
  const { unit } = job.info.job;
  const formulas = variant === null ? undefined : job.variants[variant]?.formulas;
  return Object.values(job.keySizes).filter((size) => {
    if (size.locked) return false;
    const text = formulas?.[size.name] ?? size.formula;
    if (size.measure === "length") {
      const read = parseTypedLength(text, unit);
      return read.ok && (read.value.kind === "length" || read.value.formula.names.length === 0);
    }
    const read = size.measure === "angle" ? parseTypedNumber(text, unit) : null;
    return read?.ok === true && read.value.names.length === 0;
  });
}

/** mm. A key size that is as large as a section or a board of the design stands for it: it does not change without it. */
const OF_STOCK = 0.01;

/** Sizes of the sections and boards of a design, in mm. */
const stockSizes = ({ members, panels }: Shape): readonly number[] => [
  ...new Set([
    ...members.flatMap(({ entry }) => sectionProperties(entry.shape).extent),
    ...panels.flatMap(({ thickness }) => thickness ?? []),
  ]),
];

/** `shaperOf` gives a shaper by the id of a key size, so that each may remember its last shape. */
export function changedShapes(
  { job, variant, shape }: { readonly job: Job; readonly variant: VariantId | null; readonly shape: Shape },
  stockroom: Stockroom,
  shaperOf: (keySize: string) => Shaping,
): readonly Shape[] {
  const { scope } = resolveSizes(job, variant);
  const unit = MM_PER_UNIT[job.info.job.unit];
  const stock = stockSizes(shape);
  return typedSizes(job, variant).flatMap((size) => {
    const value = scope.get(size.name);
    if (typeof value !== "number") return [];
    if (size.measure === "length" && stock.some((one) => Math.abs(one - value * unit) < OF_STOCK)) return [];
    const change = size.measure === "angle" ? CHANGE_DEG : CHANGE_MM / unit;
    const changed = withKeySize(job, size, value + change, variant);
    return [shaperOf(size.id)(changed.job, changed.sizes, stockroom)];
  });
}
