/** The door of the measures: lengths, angles, rounding, money and formulas. */
export { formatDegrees, toDegrees, toRadians } from "./angle";
export {
  countedNames,
  countName,
  evaluateFormula,
  type Formula,
  type FormulaScope,
  type FormulaValue,
  parseFormula,
  RESERVED_NAMES,
} from "./formula";
export {
  formatLength,
  PLAIN_MM,
  parseLength,
  sayDifference,
  sayLength,
  saySizes,
  type WrittenLength,
  writeLength,
} from "./length";
export { type Cents, costOf, formatCents, type MoneyTotal, totalOf } from "./money";
export { formatDecimal, roundTo, scaledInteger } from "./rounding";
export { startLength } from "./start-length";
export {
  lengthValue,
  parsePlainNumber,
  parseTypedLength,
  parseTypedNumber,
  type TypedValue,
  withinGreatest,
} from "./typed-value";
export {
  FRACTION_DENOMINATORS,
  type FractionDenominator,
  LENGTH_UNITS,
  type LengthFormat,
  type LengthStyle,
  type LengthUnit,
  MM_PER_UNIT,
} from "./unit";
