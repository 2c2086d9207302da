/** The door of the stockroom. */
export { parseSectionName } from "./section-name";
export {
  type PlaneTurn,
  type SectionKind,
  type SectionProperties,
  type SectionShape,
  SectionShapeSchema,
  STEEL_KG_M3,
  type Symmetry,
  sectionKindName,
  sectionProperties,
  shapeFault,
  tubeRadii,
} from "./section-shape";
export {
  type BoardEntry,
  BoardEntrySchema,
  type BoughtEntry,
  BoughtEntrySchema,
  type EdgingEntry,
  EdgingEntrySchema,
  EMPTY_STOCKROOM,
  indexStockroom,
  leastUnitPrice,
  massPerMetre,
  type SectionEntry,
  SectionEntrySchema,
  type Stockroom,
  type StockroomData,
  StockroomSchema,
  steelMassPerMetre,
} from "./stockroom";
