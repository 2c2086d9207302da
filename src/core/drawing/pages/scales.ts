/**
 * Scales of views: those of ISO 5455, and those that shops with inch rules use (common practice). A scale is a number,
 * millimetres on paper for one of the design.
 */
import { err, ok, type Problem, type Result } from "../../kernel";
import { formatDecimal, type LengthUnit, parsePlainNumber } from "../../measure";

/** One to so much, and so much to one. */
const STEPS = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000] as const;
const METRIC: readonly number[] = [...STEPS.map((step) => 1 / step), ...STEPS.slice(1, 6)];

/** Inches that stand for a foot, by their words. */
const TO_THE_FOOT: readonly (readonly [string, number])[] = [
  ["3 in = 1 ft", 3],
  ["1 1/2 in = 1 ft", 1.5],
  ["1 in = 1 ft", 1],
  ["3/4 in = 1 ft", 0.75],
  ["1/2 in = 1 ft", 0.5],
  ["3/8 in = 1 ft", 0.375],
  ["1/4 in = 1 ft", 0.25],
  ["1/8 in = 1 ft", 0.125],
];
const INCH: readonly number[] = [1, 1 / 2, ...TO_THE_FOOT.map(([, inches]) => inches / 12), 2, 4];

const isInch = (unit: LengthUnit) => unit === "in" || unit === "ft";
const LEAST = 0.001;
const GREATEST = 100;

/** The standard scales that a job in this unit offers, from the largest to the smallest. */
export const offeredScales = (unit: LengthUnit): readonly number[] =>
  [...(isInch(unit) ? INCH : METRIC)].sort((a, b) => b - a);

/** A scale in words: "1:10", "2:1", "1 1/2 in = 1 ft". */
export function scaleWords(scale: number, unit: LengthUnit): string {
  const foot = isInch(unit) ? TO_THE_FOOT.find(([, inches]) => near(inches / 12, scale)) : undefined;
  if (foot) return foot[0];
  const short = (value: number) => formatDecimal(value, 3, false);
  return scale >= 1 ? `${short(scale)}:1` : `1:${short(1 / scale)}`;
}

const near = (a: number, b: number) => Math.abs(a - b) < 1e-9 * Math.max(a, b);

/** A typed scale: "1:10", "2:1", "1/4", "0.1", "1 1/2 in = 1 ft" (also without the units: "1 1/2 = 1'"). */
export function readScale(text: string): Result<number, Problem> {
  const refuse = (must: string) => err({ kind: "badValue", what: "The scale", value: text, must } as const);
  const foot = text.match(/^\s*(.+?)\s*(?:in|")?\s*=\s*1\s*(?:ft|'|foot)\s*$/i);
  const ratio = text.match(/^\s*(.+?)\s*[:/]\s*([^:/]+?)\s*$/);
  const value = foot?.[1]
    ? (mixed(foot[1]) ?? Number.NaN) / 12
    : ratio?.[1] && ratio[2]
      ? (parsePlainNumber(ratio[1]) ?? Number.NaN) / (parsePlainNumber(ratio[2]) ?? Number.NaN)
      : (parsePlainNumber(text.trim()) ?? Number.NaN);
  if (!Number.isFinite(value)) return refuse("is no scale; write 1:10, 2:1 or 1 1/2 in = 1 ft");
  if (value < LEAST) return refuse("is too small; the least is 1:1000");
  return value > GREATEST ? refuse("is too large; the greatest is 100:1") : ok(value);
}

/** "1 1/2", "3/4" or a plain number. */
function mixed(text: string): number | null {
  const parts = text.match(/^(?:(\d+)[\s-]+)?(\d+)\/(\d+)$/);
  if (!parts) return parsePlainNumber(text);
  const [, whole, above, below] = parts;
  return Number(whole ?? 0) + Number(above) / Number(below);
}

/** The largest standard scale at which something fits into a room, both in mm; the smallest where none does. */
export function bestScale(size: SheetLike, room: SheetLike, unit: LengthUnit): number {
  const scales = offeredScales(unit);
  const fits = scales.find((scale) => size.width * scale <= room.width && size.height * scale <= room.height);
  return fits ?? scales.at(-1) ?? LEAST;
}

type SheetLike = { readonly width: number; readonly height: number };
