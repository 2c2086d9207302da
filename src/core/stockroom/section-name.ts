/**
 * Reading a section from the words of a cutting list: "SHS 40 x 40 x 3", "tube 2 1/2 x 2 1/2 x 3/16",
 * "L30x30x3", "flat 40 x 5", "88 x 18", "beam 100 x 55 x 4.1 x 5.7 r 7" with its root radius, "channel 100 x 50 x 6 x 8.5 r 8.5
 * taper 8 % toe 4.5" with flanges that taper. Sizes without a unit are in the list's measure.
 */
import { type LengthUnit, parseLength } from "../measure";
import { type SectionKind, type SectionShape, sectionKindName } from "./section-shape";

const WORDS: readonly (readonly [RegExp, SectionKind | "tube" | "angle" | "bar"])[] = [
  [/\b(shs|square (?:hollow|tube)|sq\.? tube)\b/, "squareTube"],
  [/\b(rhs|rectangular (?:hollow|tube)|rect\.? tube)\b/, "rectangularTube"],
  [/\b(chs|round (?:hollow|tube)|pipe)\b/, "roundTube"],
  [/\b(round bar|rod)\b/, "roundBar"],
  [/\bsquare bar\b/, "squareBar"],
  [/\b(unequal angle|ua)\b/, "unequalAngle"],
  [/\b(equal angle|ea)\b/, "equalAngle"],
  [/\b(angle|l)(?=\b|\d)/, "angle"],
  [/\b(channel|pfc|u)(?=\b|\d)/, "channel"],
  [/\b(tee|t)(?=\b|\d)/, "tee"],
  [/\b(beam|i|h)(?=\b|\d)/, "beam"],
  [/\b(flat|flat bar|fl)(?=\b|\d)/, "flat"],
  [/\b(tube|hollow|box)\b/, "tube"],
  [/\b(timber|wood|board|slat|batten|larch|oak|pine|ash|spruce|birch)\b/, "timber"],
];

/** EN 10056-1 root radii of the sizes that are met most: leg × thickness → r1. Others are drawn sharp. */
const ROOT_RADIUS: Readonly<Record<string, number>> = { "30x3": 5, "40x4": 6, "50x5": 7 };

/** The shape that the words name, or null when they do not name one for certain. */
export function parseSectionName(text: string, unit: LengthUnit): SectionShape | null {
  const words = text.toLowerCase().replace(/[×*]/g, "x").trim();
  const kind = WORDS.find(([pattern]) => pattern.test(words))?.[1] ?? null;
  const { bare, said } =
    kind !== null && FLANGED.has(kind) ? withoutOptions(words) : { bare: words, said: NONE };
  const sizes = sizesIn(bare, unit);
  if (sizes === null || sizes.length === 0) return null;
  const shape = shapeOf(kind, sizes);
  return shape && said.size > 0 ? withOptions(shape, said, unit) : shape;
}

const FLANGED: ReadonlySet<string> = new Set(["channel", "tee", "beam"]);
/** At the end of the words, one after the other: root radius, slope of the flanges, rounding at their edges. */
const OPTION = /\b(r|taper|toe)\s*((?:\d|\.\d)[\d\s./]*(?:mm|inches|inch|in|"|″|%)?)\s*$/;
type Options = ReadonlyMap<string, string>;
const NONE: Options = new Map();

function withoutOptions(words: string): { readonly bare: string; readonly said: Options } {
  const said = new Map<string, string>();
  let bare = words;
  for (let found = OPTION.exec(bare); found; found = OPTION.exec(bare)) {
    said.set(found[1] ?? "", (found[2] ?? "").trim());
    bare = bare.slice(0, found.index);
  }
  return { bare, said };
}

/** The shape with what was said of it; null: that cannot be read, or it is of another kind. */
function withOptions(shape: SectionShape, said: Options, unit: LengthUnit): SectionShape | null {
  const lengthOf = (option: string): number | null | undefined => {
    const text = said.get(option);
    return text === undefined ? undefined : (sizesIn(text, unit)?.[0] ?? null);
  };
  const [rootRadius, toe] = [lengthOf("r"), lengthOf("toe")];
  const percent = said.get("taper")?.replace("%", "").trim();
  if (rootRadius === null || toe === null) return null;
  if (shape.kind !== "channel" && shape.kind !== "beam" && shape.kind !== "tee") return null;
  const rooted = rootRadius === undefined ? shape : { ...shape, rootRadius };
  if (percent === undefined) return toe === undefined ? rooted : null;
  const slope = Number(percent);
  if (rooted.kind === "tee" || !(slope > 0 && slope <= 50)) return null;
  return { ...rooted, taper: { percent: slope, toeRadius: toe ?? 0 } };
}

/** Kind, sizes, and what else a section has, as `parseSectionName` reads them; lengths by `write`, with `times` between them. */
export function sectionText(shape: SectionShape, write: (mm: number) => string, times: string): string {
  const words = [`${sectionKindName(shape.kind)} ${shape.size.map(write).join(times)}`];
  if (shape.kind === "channel" || shape.kind === "tee" || shape.kind === "beam") {
    if ((shape.rootRadius ?? 0) > 0) words.push(`r ${write(shape.rootRadius ?? 0)}`);
    const taper = shape.kind === "tee" ? undefined : shape.taper;
    if (taper) words.push(`taper ${taper.percent} %`);
    if (taper && taper.toeRadius > 0) words.push(`toe ${write(taper.toeRadius)}`);
  }
  return words.join(" ");
}

const SIZE = String.raw`(?:\d|\.\d)[\d\s./'-]*(?:mm|inches|inch|in|"|″)?`;
const SIZES = new RegExp(String.raw`${SIZE}(?:\s*x\s*${SIZE})*`);

/** The sizes in millimetres. A unit after the last one counts for all that have none: "2 x 2 x 1/8 in". */
function sizesIn(words: string, unit: LengthUnit): readonly number[] | null {
  const measured = SIZES.exec(words);
  if (!measured) return null;
  const parts = measured[0].split("x").map((part) => part.trim());
  const own = /mm$/.test(parts.at(-1) ?? "")
    ? "mm"
    : /(?:in|inch|inches|"|″)$/.test(parts.at(-1) ?? "")
      ? "in"
      : unit;
  const sizes: number[] = [];
  for (const part of parts) {
    const read = parseLength(part, own);
    if (!read.ok || read.value <= 0 || read.value > 2000) return null;
    sizes.push(read.value);
  }
  return sizes;
}

function shapeOf(
  kind: SectionKind | "tube" | "angle" | "bar" | null,
  sizes: readonly number[],
): SectionShape | null {
  const [a, b, c, d] = sizes;
  if (a === undefined) return null;
  const square = b !== undefined && Math.abs(a - b) < 1e-6;
  switch (kind) {
    case "squareTube":
      if (b !== undefined && c === undefined) return { kind, size: [a, a, b], corners: "coldFormed" };
      return c !== undefined && square ? { kind, size: [a, a, c], corners: "coldFormed" } : null;
    case "rectangularTube":
    case "tube":
      if (b === undefined || c === undefined)
        return kind === "tube" && b !== undefined && b < a / 2 ? { kind: "roundTube", size: [a, b] } : null;
      return { kind: square ? "squareTube" : "rectangularTube", size: [a, b, c], corners: "coldFormed" };
    case "roundTube":
      return b !== undefined && c === undefined ? { kind, size: [a, b] } : null;
    case "angle":
    case "equalAngle":
    case "unequalAngle":
      return angleOf(a, b, c);
    case "channel":
    case "tee":
    case "beam":
      return b !== undefined && c !== undefined && d !== undefined ? { kind, size: [a, b, c, d] } : null;
    case "flat":
    case "timber":
      return b !== undefined && c === undefined ? { kind, size: [a, b] } : null;
    case "roundBar":
      return b === undefined ? { kind, size: [a] } : null;
    case "squareBar":
      return { kind, size: [a, b ?? a] };
    case "bar":
    case null:
      // Two bare numbers could be a flat or timber, three a tube or an angle: nobody said which.
      return null;
    default:
      return null;
  }
}

function angleOf(a: number, b: number | undefined, c: number | undefined): SectionShape | null {
  if (b === undefined) return null;
  const [second, thickness] = c === undefined ? [a, b] : [b, c];
  const equal = Math.abs(a - second) < 1e-6;
  const rootRadius = equal ? (ROOT_RADIUS[`${a}x${thickness}`] ?? 0) : 0;
  return { kind: equal ? "equalAngle" : "unequalAngle", size: [a, second, thickness], rootRadius };
}
