import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { formatLength, parseLength, writeLength } from "./length";
import type { FRACTION_DENOMINATORS, LengthStyle, LengthUnit } from "./unit";

const read = (text: string, unit: LengthUnit = "mm") => {
  const result = parseLength(text, unit);
  return result.ok ? result.value : result.problem.kind;
};
const inches = (denominator: (typeof FRACTION_DENOMINATORS)[number]): LengthStyle => ({
  unit: "in",
  format: { kind: "fraction", denominator },
});
const decimals = (unit: LengthUnit, places: number, trailingZeros = false): LengthStyle => ({
  unit,
  format: { kind: "decimal", places, trailingZeros },
});

describe("parseLength", () => {
  // 1 in = 25.4 mm exactly: NIST SP 811 (2008), appendix B.8, "inch (in)".
  it.each([
    ["23 1/4 in", "mm", 590.55],
    ["23-1/4", "in", 590.55],
    ['23 1/4"', "mm", 590.55],
    ["7/8", "in", 22.225],
    ["23¼", "in", 590.55],
    ["1/64", "in", 0.396875],
    ["2'-3 1/2\"", "mm", 698.5],
    ["2' 3 1/2", "in", 698.5],
    ["2ft 3in", "mm", 685.8],
    ["5'", "in", 1524],
    ["590,5", "mm", 590.5],
    ["0,400", "m", 400],
    ["1,4 m", "mm", 1400],
    ["1,400.5", "mm", 1400.5],
    ["1.400,5", "mm", 1400.5],
    ["14,00", "mm", 14],
    ["60", "cm", 600],
    ["1.2m", "mm", 1200],
    ["-20", "mm", -20],
    ["  1400 MM ", "in", 1400],
  ] as const)("reads %s in a job in %s", (text, unit, mm) => {
    expect(read(text, unit)).toBe(mm);
  });

  it.each(["abc", "12 mm mm", "1/0", "12..5", "1e3", "--5", "12 x 4", "1,2,3", "5 lb"])(
    "refuses %s",
    (text) => {
      expect(read(text)).toBe("unreadableLength");
    },
  );

  it("asks which is meant by 1,400", () => {
    expect(read("1,400")).toBe("ambiguousComma");
    expect(read("12,400 mm")).toBe("ambiguousComma");
  });

  it("tells an empty field and an absurd length apart from an unreadable one", () => {
    expect(read("  ")).toBe("emptyText");
    expect(read("999999999")).toBe("absurdLength");
  });
});

describe("writeLength", () => {
  it("carries and reduces fractions", () => {
    expect(writeLength((15 + 31 / 32) * 25.4, inches(16)).text).toBe("16");
    expect(writeLength(590.55, inches(16)).text).toBe("23 1/4");
    expect(writeLength(22.225, inches(64)).text).toBe("7/8");
    expect(writeLength(-590.55, inches(16)).text).toBe("-23 1/4");
  });

  it("rounds ties away from zero on the decimal value", () => {
    expect(writeLength(1.005, decimals("mm", 2)).text).toBe("1.01");
    expect(writeLength(-1.005, decimals("mm", 2)).text).toBe("-1.01");
    expect(writeLength(0.5, decimals("mm", 0)).text).toBe("1");
  });

  it("keeps or drops trailing zeros, without thousands marks", () => {
    expect(writeLength(12345, decimals("mm", 2, true)).text).toBe("12345.00");
    expect(writeLength(12345, decimals("mm", 2)).text).toBe("12345");
  });

  it("marks a rounding beyond the tolerance", () => {
    expect(formatLength(1380.4, decimals("mm", 0), 0.1)).toBe("≈1380");
    expect(formatLength(1380.04, decimals("mm", 0), 0.1)).toBe("1380");
  });

  it("reads back what it wrote, to the place that it wrote", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 64 * 1000 }), (sixtyFourths) => {
        const mm = (sixtyFourths * 25.4) / 64;
        expect(read(writeLength(mm, inches(64)).text, "in")).toBeWithinMm(mm, 1e-6);
      }),
    );
    fc.assert(
      fc.property(
        fc.integer({ min: -9_999_999, max: 9_999_999 }),
        fc.constantFrom<LengthUnit>("mm", "cm", "m"),
        (thousandths, unit) => {
          const mm = thousandths / 1000;
          expect(read(writeLength(mm, decimals(unit, 6)).text, unit)).toBeWithinMm(mm, 1e-6);
        },
      ),
    );
  });
});
