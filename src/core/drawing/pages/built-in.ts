/** What a view of a building step shows: what is there already, and what comes in. */
import { type Arriving, arriving, baseKeyOf, unitOf } from "../../apart";
import type { Assets } from "../../job";
import { remembersEach } from "../../kernel";
import type { Instance, Shape } from "../../shape";
import type { BuiltIn, StepAsked } from "../../steps";

/** A step as a view shows it. */
export type ShownStep = BuiltIn & Pick<StepAsked, "home">;

/** Tells whether a piece is shown, by its record and where it stands: whether its unit is there or comes. */
export function unitsShown(
  shape: Shape,
  { home, there, coming }: ShownStep,
): (record: string, instance: Pick<Instance, "key">) => boolean {
  const base = baseKeyOf(shape, home) ?? "";
  const units = new Set([...there, ...coming]);
  return (record, { key }) => units.has(unitOf(record, key, base));
}

const arrivals = remembersEach<ShownStep, Arriving>();

/** How what comes in gets to its place: found once for all that a view asks of it. */
export const arrivingIn = (shape: Shape, step: ShownStep, assets: Assets): Arriving =>
  arrivals(step, [shape, assets], () => arriving(shape, step.home, assets, step));
