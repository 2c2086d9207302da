/**
 * Edging as lists write it: which edges, and with which tape. In one column ("front + left", "2L 1W", "iron-on front",
 * "front: Birch 1 mm; back: Iron-on") or in a column a side with the name of the tape or a mark in it.
 */
import { err, ok, type Result } from "../kernel";
import type { ListColumn } from "./cutting-list-columns";
import { PANEL_EDGES, type PanelEdge } from "./panel";
import type { RowFault } from "./row-fault";
import type { TypedPiece } from "./typed-piece";

type Edged = Pick<Extract<TypedPiece, { kind: "panel" }>, "edged" | "edgingText" | "edgingTexts">;

const EDGE_WORDS: Readonly<Record<string, readonly PanelEdge[]>> = {
  all: PANEL_EDGES,
  "4": PANEL_EDGES,
  round: PANEL_EDGES,
  front: ["front"],
  back: ["back"],
  left: ["left"],
  right: ["right"],
  long: ["front", "back"],
  short: ["left", "right"],
  "1l": ["front"],
  "2l": ["front", "back"],
  "1w": ["left"],
  "2w": ["left", "right"],
  "1s": ["left"],
  "2s": ["left", "right"],
};
const edgesOf = (word: string): readonly PanelEdge[] | null =>
  Object.hasOwn(EDGE_WORDS, word) ? (EDGE_WORDS[word] ?? null) : null;

/** Words that join edges and say nothing of the tape when they stand beside them. */
const JOINING = /^(and|edges?|sides?|both|ends?|with|in|of|the|on)$/;
const NONE = /^(-|–|no|none|0|n)$/i;
const YES = /^(x|y|yes|1|true|✓|✔|•|edged)$/i;

const SIDES = [
  ["edgeFront", "front"],
  ["edgeBack", "back"],
  ["edgeLeft", "left"],
  ["edgeRight", "right"],
] as const satisfies readonly (readonly [ListColumn, PanelEdge])[];

/** The edging of a row: what its column says, and what the columns of single sides say. */
export function readEdges(cell: (column: ListColumn) => string): Result<Edged, RowFault> {
  const tapes = new Map<PanelEdge, string | null>();
  for (const clause of cell("edging").split(";")) {
    const read = readClause(clause.trim());
    if (!read.ok) return read;
    for (const edge of read.value.edges) tapes.set(edge, read.value.tape);
  }
  for (const [column, edge] of SIDES) {
    const text = cell(column).trim();
    if (text === "" || NONE.test(text)) continue;
    tapes.set(edge, YES.test(text) ? (tapes.get(edge) ?? null) : text.slice(0, 80));
  }
  const edged = PANEL_EDGES.filter((edge) => tapes.has(edge));
  const names = new Set(edged.map((edge) => tapes.get(edge) ?? null));
  const [only = null] = names;
  if (names.size < 2) return ok({ edged, edgingText: only });
  const edgingTexts = Object.fromEntries(
    edged.flatMap((edge) => {
      const tape = tapes.get(edge) ?? null;
      return tape === null ? [] : [[edge, tape] as const];
    }),
  );
  return ok({ edged, edgingText: null, edgingTexts });
}

type Clause = { readonly edges: readonly PanelEdge[]; readonly tape: string | null };

/** "front + left", "front: Birch 1 mm", "iron-on edging front", "2L 1W". */
function readClause(text: string): Result<Clause, RowFault> {
  if (text === "" || NONE.test(text)) return ok({ edges: [], tape: null });
  const colon = text.indexOf(":");
  if (colon > 0) {
    const edges = onlyEdges(text.slice(0, colon));
    const tape = text.slice(colon + 1).trim();
    if (edges !== null) return ok({ edges, tape: tape === "" ? null : tape.slice(0, 80) });
  }
  const edges = onlyEdges(text);
  if (edges !== null) return ok({ edges, tape: null });
  // The name of the tape before the edges, or after them.
  const words = text.split(/(?<=[\s,+/&])|(?=[\s,+/&])/);
  for (let i = 1; i < words.length; i++) {
    const [first, second] = [words.slice(0, i).join("").trim(), words.slice(i).join("").trim()];
    for (const [part, tape] of [
      [second, first],
      [first, second],
    ] as const) {
      const found = onlyEdges(part);
      const name = tape.replace(/^[,+/&\s]+|[,+/&\s]+$/g, "");
      if (found !== null && found.length > 0 && name !== "")
        return ok({ edges: found, tape: name.slice(0, 80) });
    }
  }
  return err({ kind: "edges", text });
}

/** The edges that a text names and nothing else; null when there is another word in it. */
function onlyEdges(text: string): readonly PanelEdge[] | null {
  const parts = text
    .toLowerCase()
    .split(/[\s,+/&]+/)
    .filter((part) => part !== "" && !JOINING.test(part));
  const edges = new Set<PanelEdge>();
  for (const part of parts) {
    const known = edgesOf(part);
    if (known === null) return null;
    for (const edge of known) edges.add(edge);
  }
  return edges.size === 0 ? null : PANEL_EDGES.filter((edge) => edges.has(edge));
}
