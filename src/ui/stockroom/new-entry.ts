/** New entries of the stockroom from their name, as far as it says what they are. */
import { ok, type Result } from "@/core/kernel";
import { type EntryUnit, plainBoard, plainSection, type SectionEntry } from "@/core/stockroom";
import { newId } from "../common/fresh-id";
import { type AnyEntry, type EntryKind, readSection } from "./entry-columns";
import type { EntryFault } from "./entry-fault";

const unitIn = (name: string): EntryUnit =>
  /\d\s*(?:in|inch|inches)\b|\d\s*["”″]/i.test(name) ? "in" : "mm";

/** A new section by its name, which must say its kind and size. */
export function newSection(name: string): Result<SectionEntry, EntryFault> {
  const unit = unitIn(name);
  const shape = readSection(name, unit, "name");
  if (!shape.ok) return shape;
  return ok(plainSection({ id: newId("section"), name, unit, shape: shape.value, source: "typed in" }));
}

/** A new entry by its name; a section's name must say its kind and size. Inches in the name make it an inch entry. */
export function newEntry(kind: EntryKind, name: string): Result<AnyEntry, EntryFault> {
  const id = newId(kind);
  const unit = unitIn(name);
  switch (kind) {
    case "section":
      return newSection(name);
    case "board":
      return ok(
        plainBoard({ id, name, unit, thickness: unit === "in" ? 19.05 : 18, grain: "length", stages: 3 }),
      );
    case "edging":
      return ok({
        id,
        name,
        unit,
        material: null,
        thickness: 1,
        deducted: true,
        overhang: 30,
        pricePerM: null,
      });
    case "bought":
      return ok({ id, name, measure: "each", price: null, packOf: null });
    case "saw":
      return ok({ id, name, unit, depth: 100, angle: 45, length: 3000 });
    default:
      return kind satisfies never;
  }
}
