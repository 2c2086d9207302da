/**
 * A list by assembly: what stands in the job itself, and each assembly as one line with its count and what is in one
 * of it under it. Counts go by the places that the shape has found, so that they are those of the tally.
 */
import { findAssembly, type Home, homeOf, type ListSetup } from "../job";
import { addTo, at } from "../kernel";
import type { Instance } from "../shape";
import type { TallyRow } from "../tally";
import {
  type AssemblyLine,
  type Line,
  type ListGround,
  listedPlaces,
  type PieceLine,
  rowQuantities,
} from "./list-ground";
import { lineOf, rowGoesIn } from "./list-rows";

type Outer = { readonly home: Home; readonly level: number; readonly times: number; readonly key: string };
type Order = (lines: readonly PieceLine[]) => readonly PieceLine[];

/** The lines of a list by assembly, assemblies before the pieces beside them; `order` puts pieces of one home in order. */
export function levelledLines(setup: ListSetup, ground: ListGround, order: Order): readonly Line[] {
  const { job, tally } = ground;
  const quantities = rowQuantities(ground);
  const rowsIn = rowsByHome(setup, ground);

  /** Rows whose pieces live in a home, with how many are in one of it. */
  const piecesIn = ({ home, level, times, key }: Outer): readonly PieceLine[] => {
    const places = Math.max(1, listedPlaces(ground, home).length);
    return (rowsIn.get(home) ?? []).map(({ row, pieces }) => {
      const inOne = (hand?: "asDrawn" | "opposite") =>
        pieces
          .filter((piece) => hand === undefined || piece.hand === hand)
          .reduce((sum, piece) => sum + piece.quantity, 0) / places;
      return {
        ...lineOf(row, quantities, level),
        id: `${key}${row.id}`,
        records: pieces.map(({ id }) => id),
        inOne: inOne(),
        count: inOne() * times,
        asDrawn: inOne("asDrawn") * times,
        opposite: inOne("opposite") * times,
      };
    });
  };

  const linesIn = (outer: Outer): readonly Line[] => {
    const { home, level, times, key } = outer;
    const own = [...piecesIn(outer)];
    const assemblies: Line[] = [];
    const places = Math.max(1, listedPlaces(ground, home).length);
    for (const [id, instances] of childrenOf(home, ground)) {
      const assembly = findAssembly(job, id);
      if (!assembly) continue;
      const inOne = instances.length / places;
      const count = inOne * times;
      if (assembly.role === "bought") {
        const row = tally.rowOfPiece.get(assembly.id);
        if (row && rowGoesIn(row, setup)) {
          const counts = { records: [id], inOne, count, asDrawn: count, opposite: 0 };
          own.push({ ...lineOf(row, quantities, level), id: `${key}${row.id}`, ...counts });
        }
        continue;
      }
      const inner = `${key}${assembly.id}/`;
      const under = linesIn({ home: assembly.id, level: level + 1, times: count, key: inner });
      const inside = under.filter((line): line is PieceLine => line.kind === "pieces");
      if (inside.length === 0) continue;
      const line: AssemblyLine = {
        kind: "assembly",
        id: inner,
        level,
        assembly,
        records: [assembly.id],
        inOne,
        count,
        inside,
      };
      assemblies.push(line, ...under);
    }
    return [...assemblies, ...order(own)];
  };
  return linesIn({ home: null, level: 1, times: tally.batch, key: "" });
}

type RowsOfHome = { readonly row: TallyRow; readonly pieces: TallyRow["pieces"] }[];

function rowsByHome(setup: ListSetup, { job, tally }: ListGround): ReadonlyMap<Home, RowsOfHome> {
  const found = new Map<Home, RowsOfHome>();
  for (const row of tally.rows) {
    if (!rowGoesIn(row, setup)) continue;
    const own = new Map<Home, TallyRow["pieces"][number][]>();
    for (const piece of row.pieces) {
      // An assembly that is bought as a whole stands where it is placed, not here.
      if (job.assemblies[piece.id]) continue;
      const home = homeOf(job, piece.id) ?? null;
      addTo(own, home, piece);
    }
    for (const [home, pieces] of own) addTo(found, home, { row, pieces });
  }
  return found;
}

/** Assemblies placed straight into a home, with the instances of theirs that count there. */
function childrenOf(home: Home, ground: ListGround): ReadonlyMap<string, readonly Instance[]> {
  const found = new Map<string, readonly Instance[]>();
  for (const { id, assembly, into } of Object.values(ground.job.placements)) {
    if (into !== home) continue;
    const here = listedPlaces(ground, assembly).filter(({ path }) => at(path, path.length - 1) === id);
    if (here.length > 0) found.set(assembly, [...(found.get(assembly) ?? []), ...here]);
  }
  return found;
}
