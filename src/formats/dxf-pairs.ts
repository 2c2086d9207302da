/**
 * The group pairs of a DXF text (DXF reference: a line with a code, a line with its value), checked before anything else
 * reads them: a file without its end, or with an entity that is never closed, sends readers round for ever. What comes out
 * is a file of a header, of blocks and of those entities alone that an outline is made from.
 */

/** Millimetres of one unit by $INSUNITS of the header (DXF reference); 0, without unit, is not among them. */
export const MM_OF_UNIT: Readonly<Record<number, number>> = {
  1: 25.4,
  2: 304.8,
  4: 1,
  5: 10,
  6: 1000,
  14: 100,
};

type Pair = readonly [code: number, value: string];
export type CleanDrawing = {
  /** A whole DXF text, to be given to a reader. */
  readonly text: string;
  readonly entities: number;
};

/** What lines of a piece are drawn with. A VERTEX belongs to the POLYLINE before it, up to its SEQEND. */
const DRAWN = new Set([
  "LWPOLYLINE",
  "POLYLINE",
  "VERTEX",
  "SEQEND",
  "LINE",
  "ARC",
  "CIRCLE",
  "ELLIPSE",
  "SPLINE",
]);
/** Where blocks are put. */
const PUT = "INSERT";

/** The drawing as clean text, or why it cannot be read, as the end of a sentence. */
export function cleanDrawing(text: string): CleanDrawing | string {
  const pairs = pairsOf(text);
  if (typeof pairs === "string") return pairs;
  const last = pairs.at(-1);
  if (last?.[0] !== 0 || last[1] !== "EOF") return "its end is missing; save it again, or send it once more";
  const sections = sectionsOf(pairs);
  if (typeof sections === "string") return sections;
  const found = sections.get("ENTITIES");
  if (!found) return "it has no section of entities; save it as DXF text with what is drawn";
  const entities = entitiesOf(found);
  if (typeof entities === "string") return entities;
  const blocks = blocksOf(sections.get("BLOCKS") ?? []);
  if (typeof blocks === "string") return blocks;
  const unit = unitOf(sections.get("HEADER") ?? []);
  const kept: Pair[] = [
    [0, "SECTION"],
    [2, "HEADER"],
    ...(unit === null
      ? []
      : ([
          [9, "$INSUNITS"],
          [70, unit],
        ] as const)),
    [0, "ENDSEC"],
    [0, "SECTION"],
    [2, "BLOCKS"],
    ...blocks,
    [0, "ENDSEC"],
    [0, "SECTION"],
    [2, "ENTITIES"],
    ...entities.flat(),
    [0, "ENDSEC"],
    [0, "EOF"],
  ];
  return {
    text: kept.map(([code, value]) => `${code}\n${value}\n`).join(""),
    entities: entities.filter(([first]) => first?.[1] !== "VERTEX" && first?.[1] !== "SEQEND").length,
  };
}

/** Codes whose values are numbers, by the table of group codes. */
const isNumeric = (code: number) =>
  (code >= 10 && code <= 99) || (code >= 140 && code <= 179) || (code >= 210 && code <= 289);

function pairsOf(text: string): readonly Pair[] | string {
  const lines = text.split(/\r\n|\r|\n/);
  while (lines.length > 0 && lines.at(-1)?.trim() === "") lines.pop();
  if (lines.length % 2 !== 0) return "its lines are no pairs of code and value; save it as DXF text";
  const pairs: Pair[] = [];
  for (let i = 0; i < lines.length; i += 2) {
    const code = (lines[i] ?? "").trim();
    if (!/^-?\d{1,4}$/.test(code))
      return `line ${i + 1} should be a code and is "${code.slice(0, 20)}"; save it as DXF text`;
    const value = (lines[i + 1] ?? "").trim();
    if (isNumeric(Number(code)) && !/^[-+]?(\d+\.?\d*|\.\d+)(e[-+]?\d+)?$/i.test(value))
      return `line ${i + 2} should be a number and is "${value.slice(0, 20)}"; save it again`;
    pairs.push([Number(code), value]);
  }
  return pairs;
}

/** Pairs of each section by its name, without its head and its end. */
function sectionsOf(pairs: readonly Pair[]): ReadonlyMap<string, readonly Pair[]> | string {
  const sections = new Map<string, readonly Pair[]>();
  let open: { readonly name: string; readonly from: number } | null = null;
  for (const [i, [code, value]] of pairs.entries()) {
    if (code !== 0) continue;
    if (value === "SECTION") {
      if (open) return `its section ${open.name} does not end; save it again`;
      const name = pairs[i + 1];
      if (name?.[0] !== 2) return "it has a section without a name; save it again";
      open = { name: name[1], from: i + 2 };
    } else if (value === "ENDSEC") {
      if (!open) return "a section ends that did not begin; save it again";
      sections.set(open.name, pairs.slice(open.from, i));
      open = null;
    } else if (value === "EOF") {
      if (open) return `its section ${open.name} does not end; save it again`;
      if (i < pairs.length - 1) return "it goes on after its end; save it again";
    }
  }
  return sections;
}

/** Name, layer, base point and flags of a block. */
const OF_BLOCK = new Set([2, 8, 10, 20, 30, 70]);

/** The blocks with what is drawn in them; those of the drawing itself are its entities. */
function blocksOf(pairs: readonly Pair[]): readonly Pair[] | string {
  const kept: Pair[] = [];
  let from: number | null = null;
  for (const [i, [code, value]] of pairs.entries()) {
    if (code !== 0) continue;
    if (value === "BLOCK") {
      if (from !== null) return "a block in it does not end; save it again";
      from = i + 1;
    } else if (value === "ENDBLK") {
      if (from === null) return "a block ends that did not begin; save it again";
      const own = pairs.slice(from, i);
      const drawn = own.findIndex(([one]) => one === 0);
      const head = (drawn < 0 ? own : own.slice(0, drawn)).filter(([one]) => OF_BLOCK.has(one));
      const entities = drawn < 0 ? [] : entitiesOf(own.slice(drawn));
      if (typeof entities === "string") return entities;
      const name = head.find(([one]) => one === 2)?.[1] ?? "";
      if (!/^\*(model|paper)_space/i.test(name))
        kept.push([0, "BLOCK"], ...head, ...entities.flat(), [0, "ENDBLK"]);
      from = null;
    }
  }
  return from === null ? kept : "a block in it does not end; save it again";
}

/** Entities that are read, each from its own 0-pair on; every polyline has its end. */
function entitiesOf(pairs: readonly Pair[]): readonly (readonly Pair[])[] | string {
  const entities: Pair[][] = [];
  let [isSaved, isOpen] = [false, false];
  for (const pair of pairs) {
    const [code, value] = pair;
    if (code === 0) {
      const isPart = value === "VERTEX" || value === "SEQEND";
      if (isOpen && !isPart) return "a polyline in it does not end; save it again";
      if (!isOpen && isPart) {
        // An end of what is not read, such as the attributes of a block.
        isSaved = false;
        continue;
      }
      if (value === "POLYLINE") isOpen = true;
      if (value === "SEQEND") isOpen = false;
      isSaved = DRAWN.has(value) || value === PUT;
      if (isSaved) entities.push([pair]);
    } else if (isSaved) entities.at(-1)?.push(pair);
  }
  return isOpen ? "a polyline in it does not end; save it again" : entities.map(withWeights);
}

/**
 * A spline with its weights (41) as the heights (30) of its corners, since the reader keeps no weights and outlines have no
 * heights; 1 where it has none.
 */
function withWeights(entity: readonly Pair[]): readonly Pair[] {
  if (entity[0]?.[1] !== "SPLINE") return entity;
  const weights = entity.filter(([code]) => code === 41).map(([, value]) => value);
  let count = 0;
  return entity.flatMap(([code, value]): readonly Pair[] => {
    if (code === 30 || code === 41) return [];
    if (code !== 20) return [[code, value]];
    return [
      [code, value],
      [30, weights[count++] ?? "1"],
    ];
  });
}

/** The value of $INSUNITS; null: the drawing has no unit. */
function unitOf(header: readonly Pair[]): string | null {
  const at = header.findIndex(([code, value]) => code === 9 && value === "$INSUNITS");
  const unit = at < 0 ? undefined : header[at + 1];
  return unit?.[0] === 70 ? unit[1] : null;
}
