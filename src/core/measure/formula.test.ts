import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { lawRuns } from "../kernel/law-runs.fixture";
import { evaluateFormula, type FormulaValue, parseFormula } from "./formula";
import { formatDecimal } from "./rounding";
import { lengthValue, parseTypedLength, parseTypedNumber } from "./typed-value";
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

describe("numbers with a unit inside a formula", () => {
  it.each([
    ["width - 1/2 in", "mm", 1387.3],
    ["1/2 in + 3", "mm", 15.7],
    ['3/4" * 2', "mm", 38.1],
    ["1/2 ft + 1 in", "in", 7],
    ["23 1/4 in + 2", "mm", 592.55],
    ["23 1/4 + 2", "in", 25.25],
    ["2' 6\" + 1 in", "in", 31],
    ["2' 6 1/2\" * 2", "in", 61],
    ["12.75 mm + 0", "mm", 12.75],
    ["12½ in + 0", "in", 12.5],
    ["600 - 1/2", "mm", 599.5],
    ["600 -1/2", "mm", 599.5],
    ["width*2 - 1/2 IN", "mm", 2787.3],
    ["cos(35°)", "mm", Math.cos((35 * Math.PI) / 180)],
    ["cos(35 deg) * 2", "mm", 2 * Math.cos((35 * Math.PI) / 180)],
    ["35 deg", "mm", 35],
    ["90° - 35°", "mm", 55],
    ["2^1/2 in", "in", 2 ** 0.5],
  ] as const)("computes %s in %s", (text, unit, expected) => {
    expect(compute(text, unit)).toBeWithinMm(expected, 1e-9);
  });

  it("leaves names in quotation marks as they are", () => {
    const read = parseFormula('count("Slat 40 mm") * 2 in', "mm");
    expect(read.ok && read.value.names).toEqual(['count("Slat 40 mm")']);
  });

  it("refuses what could be one length or a subtraction, and fractions that are none", () => {
    for (const text of ["23-1/4 in + 2", "2'-6\" + 1", "23 9/4 in + 1", "1/0 in"]) {
      expect(compute(text)).toBe("unreadableFormula");
    }
  });

  it("reads a text by its unit, however often and in whatever order it is asked", () => {
    const mm = (text: string, unit: "mm" | "in") => {
      const read = parseTypedLength(text, unit);
      return read.ok && read.value.kind === "length" ? read.value.mm : null;
    };
    const degrees = (text: string) => parseTypedNumber(text, "mm");
    for (let i = 0; i < 3; i++) {
      expect([mm("12", "mm"), mm("12", "in"), mm("12,5", "mm"), mm("12 mm", "in")]).toEqual([
        12, 304.8, 12.5, 12,
      ]);
      expect(degrees("45")).toEqual(degrees(" 45 "));
      // More texts than are remembered: then they are read anew.
      if (i === 1) for (let k = 0; k <= 50_000; k++) mm(`${k}`, "mm");
    }
  });

  it("takes no angle for a length", () => {
    const kind = (text: string) => {
      const read = parseTypedLength(text, "mm");
      return read.ok ? read.value.kind : read.problem.kind;
    };
    expect(kind("35 deg")).toBe("wrongArguments");
    expect(kind("width + 35°")).toBe("wrongArguments");
    expect(kind("width * cos(35°)")).toBe("formula");
  });

  it("names the place where it could not read on, in the text as it was typed", () => {
    const place = (text: string) => {
      const read = parseFormula(text, "mm");
      return read.ok || read.problem.kind !== "unreadableFormula" ? null : read.problem.place;
    };
    expect(place("1/2 in + (width")).toBe(16);
    expect(place("width @ 2")).toBe(7);
    expect(place("23-1/4 in + 2")).toBe(1);
    expect(place("3 1/2 in × @")).toBe(12);
  });

  // A reader of its own: the text is built from parts whose values are known, and the sum is made from the parts.
  it("agrees with the value of its parts, whatever they are and however they are spaced", () => {
    const mm = { mm: 1, cm: 10, m: 1000, in: 25.4, '"': 25.4, inches: 25.4, ft: 304.8, "'": 304.8 } as const;
    const word = fc.constantFrom(...(Object.keys(mm) as (keyof typeof mm)[]));
    const fraction = fc
      .tuple(fc.integer({ min: 1, max: 63 }), fc.constantFrom(2, 4, 8, 16, 32, 64))
      .filter(([over, under]) => over < under);
    const space = fc.constantFrom("", " ", "  ");
    const part = fc.oneof(
      fc
        .record({ n: fc.integer({ min: 0, max: 3000 }), unit: word, space })
        .map(({ n, unit, space }) => ({ text: `${n / 8}${space}${unit}`, mm: (n / 8) * mm[unit] })),
      fc
        .record({ f: fraction, unit: word, space })
        .map(({ f: [o, u], unit, space }) => ({ text: `${o}/${u}${space}${unit}`, mm: (o / u) * mm[unit] })),
      fc
        .record({ n: fc.integer({ min: 1, max: 99 }), f: fraction, unit: word, space })
        .map(({ n, f: [o, u], unit, space }) => ({
          text: `${n} ${o}/${u}${space}${unit}`,
          mm: (n + o / u) * mm[unit],
        })),
      fc
        .record({
          ft: fc.integer({ min: 0, max: 20 }),
          n: fc.integer({ min: 0, max: 11 }),
          f: fraction,
          space,
        })
        .map(({ ft, n, f: [o, u], space }) => ({
          text: `${ft}'${space}${n} ${o}/${u}"`,
          mm: ft * 304.8 + (n + o / u) * 25.4,
        })),
    );
    const sign = fc.constantFrom(" + ", " - ", " −", "+ ");
    fc.assert(
      fc.property(
        part,
        fc.array(fc.tuple(sign, part), { minLength: 1, maxLength: 5 }),
        fc.constantFrom<LengthUnit>("mm", "in", "ft"),
        (first, rest, unit) => {
          const text = rest.reduce((sum, [s, one]) => `${sum}${s}${one.text}`, first.text);
          const total = rest.reduce(
            (sum, [s, one]) => (s.includes("+") ? sum + one.mm : sum - one.mm),
            first.mm,
          );
          const read = parseTypedLength(text, unit);
          expect(read.ok, text).toBe(true);
          if (!read.ok) return;
          const value = lengthValue(read.value, new Map(), unit);
          if (Math.abs(total) > 100_000) expect(value).toMatchObject({ problem: { kind: "absurdLength" } });
          else expect(value.ok && Math.abs(value.value - total) < 1e-6, `${text} in ${unit}`).toBe(true);
        },
      ),
      { numRuns: lawRuns(3000) },
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
    expect(value("600 - 1/2")).toBe(599.5 * 25.4);
    expect(value("600 -1/2")).toBe(599.5 * 25.4);
    expect(value("600-1/2")).toBeWithinMm(600.5 * 25.4, 1e-9);
    expect(value("2' - 6\"")).toBeWithinMm(18 * 25.4, 1e-9);
    expect(value("23-9/4")).toBe("unreadableLength");
    expect(value("2'-6\"")).toBe(762);
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
