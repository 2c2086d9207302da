/**
 * What holds for a piece whose material was typed over: a price and a mass belong to a stock of one material, and are never
 * taken for a piece of another.
 */
import { sectionProperties } from "./section-shape";
import { type BoardEntry, massPerMetre, type SectionEntry, type Stockroom } from "./stockroom";

const plain = (material: string) => material.trim().toLowerCase();

/** Whether a stock may be taken for a material; one that says no material of its own may be taken for any. */
export const isOfMaterial = (own: string | null, material: string | null): boolean =>
  own === null || material === null || plain(own) === plain(material);

/** The entry whose price and mass hold for a section in a material: its own, or that of the same shape in the material. */
export function sectionInMaterial(
  stockroom: Pick<Stockroom, "sections">,
  entry: SectionEntry,
  material: string | null,
): SectionEntry | null {
  if (isOfMaterial(entry.material, material)) return entry;
  const shape = JSON.stringify([entry.shape.kind, entry.shape.size]);
  return (
    stockroom.sections.find(
      (other) =>
        other.material !== null &&
        isOfMaterial(other.material, material) &&
        JSON.stringify([other.shape.kind, other.shape.size]) === shape,
    ) ?? null
  );
}

/** The same for a board: of the same thickness and way of the grain. */
export function boardInMaterial(
  stockroom: Pick<Stockroom, "boards">,
  entry: BoardEntry,
  material: string | null,
): BoardEntry | null {
  if (isOfMaterial(entry.material, material)) return entry;
  return (
    stockroom.boards.find(
      (other) =>
        other.material !== null &&
        isOfMaterial(other.material, material) &&
        other.thickness === entry.thickness &&
        other.grain === entry.grain,
    ) ?? null
  );
}

/** A figure with what it goes by, where that is not the stock itself. */
export type Known = { readonly value: number; readonly by: string | null };

type Materials = Pick<Stockroom, "sections" | "boards">;

/** The density of a material as some entry of the stockroom has it, and which; null: none says one. */
function densityOf({ sections, boards }: Materials, material: string | null): Known | null {
  if (material === null) return null;
  for (const { name, material: own, densityKgM3 } of [...sections, ...boards])
    if (own !== null && densityKgM3 !== null && plain(own) === plain(material))
      return { value: densityKgM3, by: `density ${densityKgM3} kg/m³ of ${name}` };
  return null;
}

/** kg/m of a section in a material; null: nobody said how dense that material is. */
export function sectionMass(
  stockroom: Materials,
  entry: SectionEntry,
  material: string | null,
): Known | null {
  const found = sectionInMaterial(stockroom, entry, material);
  if (found) {
    const value = massPerMetre(found);
    return value === null ? null : { value, by: found === entry ? null : `mass of ${found.name}` };
  }
  const density = densityOf(stockroom, material);
  return density && { value: sectionProperties(entry.shape).areaMm2 * density.value * 1e-6, by: density.by };
}

/** kg/m³ of a board in a material; null: nobody said it. */
export function boardDensity(stockroom: Materials, entry: BoardEntry, material: string | null): Known | null {
  const found = boardInMaterial(stockroom, entry, material);
  if (!found) return densityOf(stockroom, material);
  return found.densityKgM3 === null
    ? null
    : { value: found.densityKgM3, by: found === entry ? null : `density of ${found.name}` };
}
