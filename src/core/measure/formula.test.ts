import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { evaluateFormula, type FormulaValue, parseFormula } from "./formula";
import { formatDecimal } from "./rounding";
import { lengthValue, parseTypedLength } from "./typed-value";
import type { LengthUnit } from "./unit";

const scope = new Map<string, FormulaValue>([
  ["width", 1400],
  ["depth", 600],
  ["n", 3],
  ["finish", "oiled"],
  ["wheels", true],
]);
function compute(text: string, unit: LengthUnit = "mm") {
  const formula = parseFormula(text, unit);
  if (!formula.ok) return formula.problem.kind;
  const value = evaluateFormula(formula.value, scope);
  return value.ok ? value.value : value.problem.kind;
}

describe("formulas", () => {
  it.each([
    ["width/2 - 20", 680],
    ["(width - 2*40) / (n - 1)", 660],
    ["2^3^2", 512],
    ["width × 2 ÷ 4", 700],
    ["sin(30) + cos(60) + tan(45)", 2],
    ["atan(1)", 45],
    ["min(width, depth, 700)", 600],
    ["round(7.5) + floor(2.9) + ceil(2.1)", 13],
    ["round(width, 300)", 1500],
    ["if(width > 1000 and wheels, 1, 2)", 1],
    ["width = 1400 ? 5 : 6", 5],
    ["not wheels", false],
    ["finish == 'oiled'", true],
    ["1 in + 0", 25.4],
    ['2"*2', 101.6],
    ["1.5m - width", 100],
  ])("computes %s", (text, expected) => {
    const value = compute(text);
    if (typeof expected === "number") expect(value).toBeWithinMm(expected, 1e-9);
    else expect(value).toBe(expected);
  });

  it("reads numbers with a unit into the job's unit", () => {
    expect(compute("50.8 mm", "in")).toBeWithinMm(2, 1e-12);
  });

  it.each([
    ["constructor", "unknownName"],
    ["height + 1", "unknownName"],
    ["width.length", "notAllowedInFormula"],
    ["[1,2]", "notAllowedInFormula"],
    ["alert(1)", "notAllowedInFormula"],
    ["this", "notAllowedInFormula"],
    ["width % 3", "notAllowedInFormula"],
    ["0 - -2^2", "notAllowedInFormula"],
    ["width depth", "unreadableFormula"],
    ["(width", "unreadableFormula"],
    ["width / (n - 3)", "divisionByZero"],
    ["sqrt(0 - 1)", "notANumber"],
    ["wheels + 1", "wrongArguments"],
    ["if(1, 2, 3)", "wrongArguments"],
    ["min()", "wrongArguments"],
    ["1+".repeat(400), "formulaTooLong"],
    ["", "emptyText"],
  ])("refuses %s as %s", (text, kind) => {
    expect(compute(text)).toBe(kind);
  });

  it("never throws, whatever is typed", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), (text) => {
        expect(() => compute(text)).not.toThrow();
      }),
    );
  });
});

describe("length fields", () => {
  it("tries the length before the formula", () => {
    const value = (text: string) => {
      const read = parseTypedLength(text, "in");
      if (!read.ok) return read.problem.kind;
      const mm = lengthValue(read.value, new Map([["width", 48]]), "in");
      return mm.ok ? mm.value : mm.problem.kind;
    };
    expect(value("23-1/4")).toBe(590.55);
    expect(value("width-1/4")).toBeWithinMm(47.75 * 25.4, 1e-9);
    expect(value("1,400")).toBe("ambiguousComma");
    expect(value("widht-1")).toBe("unknownName");
    expect(value("12 abc")).toBe("unreadableFormula");
  });
});

describe("formatDecimal", () => {
  it("decides ties on the decimal value, away from zero", () => {
    expect(formatDecimal(1.005, 2)).toBe("1.01");
    expect(formatDecimal(-2.5, 0)).toBe("-3");
    expect(formatDecimal(1e-7, 3)).toBe("0.000");
    expect(formatDecimal(1e21, 1)).toBe("1000000000000000000000.0");
  });
});
