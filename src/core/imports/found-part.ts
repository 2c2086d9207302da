/** A solid of a file as a part that may enter; and an open one with its rims joined. */
import type { Vec3 } from "../geometry";
import { at, grouped } from "../kernel";
import {
  closing,
  type FlatRule,
  type OtherReading,
  reading,
  type SolidMesh,
  USUAL_FLAT_RULE,
} from "../recognise";
import type { FoundFile, FoundPart } from "./found";
import { hasRecord } from "./records";

/** As many as a shape of a job may have. */
const MOST_TRIANGLES = 4_000;

const NO_RECORD: OtherReading = { kind: "other", hardware: null };

type Named = Pick<FoundPart, "key" | "name" | "colour">;

/** What a solid is found to be. Its name is "" where it has none of its own. */
export function foundPart({ key, name, colour }: Named, mesh: SolidMesh, rule: FlatRule): FoundPart {
  const { body, volume, gaps, ...read } = reading(mesh, rule);
  const otherwise = read.otherwise.filter(hasRecord);
  // What no record can hold stands with its shape, as a bought part.
  const taken = read.taken.kind === "other" || hasRecord(read.taken) ? read.taken : NO_RECORD;
  // Surface by surface, so that what is open can be closed with its faces known.
  const bySurface = [...grouped(body.triangles, ({ surface }) => surface).values()];
  const triangles = body.triangles.length > MOST_TRIANGLES ? null : numbersOf(bySurface, body.points);
  let past = 0;
  return {
    key,
    name,
    taken,
    otherwise,
    volume,
    low: body.low,
    high: body.high,
    wasInverted: body.wasInverted,
    gaps: gaps.map(({ length, middle, rim }) => ({ length, middle, rim })),
    triangles,
    joinedWithin: null,
    colour,
    faces:
      gaps.length > 0 && triangles
        ? bySurface.map((own) => {
            const from = past;
            past += own.length;
            return [from, past] as const;
          })
        : [],
  };
}

/** Nine numbers a triangle. */
function numbersOf(
  bySurface: readonly (readonly { readonly corners: readonly number[] }[])[],
  points: readonly Vec3[],
): readonly number[] {
  const numbers: number[] = [];
  for (const own of bySurface)
    for (const { corners } of own)
      for (const corner of corners) {
        const [x, y, z] = at(points, corner);
        numbers.push(x, y, z);
      }
  return numbers;
}

export type ClosedPart = {
  readonly part: FoundPart;
  /** mm. How far a corner was moved at the most. */
  readonly moved: number;
};

/**
 * An open part with its rims joined where they are no farther apart than `gap`, in mm; what is still open it says itself.
 * null: it is not open, or has too many triangles for its shape to be known.
 */
export function closedPart(
  part: FoundPart,
  gap: number,
  rule: FlatRule = USUAL_FLAT_RULE,
): ClosedPart | null {
  if (part.faces.length === 0 || !part.triangles) return null;
  const { mesh, moved } = closing(
    {
      positions: part.triangles,
      corners: [...part.triangles.keys()].slice(0, part.triangles.length / 3),
      faces: part.faces,
    },
    gap,
  );
  const joined = foundPart(part, mesh, rule);
  return { part: { ...joined, wasInverted: part.wasInverted, joinedWithin: gap }, moved };
}

/** mm. */
const GAPS = [0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5] as const;

/** The least gap of a row of round ones with which an open part is closed wholly; null: it is not with any. */
export function gapThatCloses(part: FoundPart): number | null {
  return GAPS.find((gap) => closedPart(part, gap)?.part.gaps.length === 0) ?? null;
}

/** A file with parts of it closed, each with the gap in mm that it has in `gaps`. */
export function withClosed(file: FoundFile, gaps: ReadonlyMap<string, number>): FoundFile {
  if (gaps.size === 0) return file;
  const closed = (part: FoundPart): FoundPart => {
    const gap = gaps.get(part.key);
    return gap === undefined ? part : (closedPart(part, gap)?.part ?? part);
  };
  return {
    ...file,
    products: file.products.map((product) => ({ ...product, parts: product.parts.map(closed) })),
  };
}
