/** The door of the stockroom. */

export {
  boardDensity,
  boardInMaterial,
  isOfMaterial,
  type Known,
  sectionInMaterial,
  sectionMass,
} from "./material";
export { plainBoard, plainSection } from "./plain-entry";
export {
  boughtPrice,
  type EnteredPrice,
  leastUnitPrice,
  PER_WORDS,
  type Priced,
  pricedBars,
  pricedSheets,
} from "./pricing";
export {
  EMPTY_RACK,
  nextLabel,
  type Rack,
  type RackHolder,
  type RackPiece,
  RackPieceSchema,
  usableRack,
} from "./rack";
export { parseSectionName, sectionText } from "./section-name";
export { type SectionPart, sectionParts, sectionRooms } from "./section-parts";
export {
  flangeThickness,
  type PlaneTurn,
  type SectionKind,
  type SectionProperties,
  type SectionShape,
  SectionShapeSchema,
  type ShapeFault,
  type Symmetry,
  sectionKindName,
  sectionProperties,
  shapeFault,
  shapeFaultWords,
  tubeRadii,
} from "./section-shape";
export { type SetRecipe, SetRecipeSchema, STEPS_ALONE, USUAL_SET } from "./set-recipe";
export {
  type BoardEntry,
  BoardEntrySchema,
  type BoughtEntry,
  BoughtEntrySchema,
  CUT_WAYS,
  type CutWay,
  type EdgingEntry,
  EdgingEntrySchema,
  EMPTY_STOCKROOM,
  type EntryUnit,
  entryStyle,
  indexStockroom,
  isMetal,
  RACK_USES,
  type RackUse,
  type SawEntry,
  SawEntrySchema,
  type SectionEntry,
  SectionEntrySchema,
  type StockLength,
  type Stockroom,
  type StockroomData,
  type StockroomInput,
  StockroomSchema,
  type StockSheet,
  size as stockSize,
  stockroomOf,
  TURN_STEPS,
  type TurnStep,
} from "./stockroom";
export {
  TITLE_WORDS,
  type TitleBlock,
  TitleBlockSchema,
  type TitleField,
  type TitleWord,
  titleText,
  USUAL_TITLE_BLOCK,
} from "./title-block";
export { asUsual } from "./usual-entry";
