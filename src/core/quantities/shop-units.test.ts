import { describe, expect, it } from "vitest";
import { type LengthStyle, PLAIN_MM, sayDifference, sayLength, saySizes } from "../measure";
import { boardFeet, quantityWords, shopUnit, stockSizeWords } from ".";

const INCHES: LengthStyle = { unit: "in", format: { kind: "fraction", denominator: 16 } };

describe("quantities in the units of the shop", () => {
  it("are feet and square feet in a job in inches or feet, metres else (1 ft = 0.3048 m, NIST SP 811)", () => {
    expect(quantityWords("m", 3.048, { unit: "in" })).toBe("10.00");
    expect(quantityWords("m", 3.048, { unit: "ft" })).toBe("10.00");
    expect(quantityWords("m", 3.048, { unit: "mm" })).toBe("3.048");
    // 4 ft × 8 ft is 2.97290 m².
    expect(quantityWords("m²", 2.9728972, { unit: "in" })).toBe("32.00");
    expect(shopUnit("m²", "in").name).toBe("ft²");
    expect(shopUnit("m²", "cm")).toEqual({ name: "m²", per: 1 });
    expect(quantityWords("each", 12, { unit: "in" })).toBe("12");
  });

  it("write feet and inches upwards to the whole inch", () => {
    const words = (inches: number) =>
      quantityWords("m", (inches * 25.4) / 1000, { unit: "in", feet: "feetAndInches" });
    expect(words(151)).toBe("12' 7\"");
    expect(words(151.25)).toBe("12' 8\"");
    expect(words(144)).toBe("12' 0\"");
    expect(words(143.5)).toBe("12' 0\"");
    expect(words(0)).toBe("0' 0\"");
  });

  it("count board feet of 144 cubic inches (NIST Handbook 130): 1 × 12 × 12 in is one", () => {
    expect(boardFeet(25.4, 304.8, 0.3048)).toBeCloseTo(1, 12);
    // Worked by hand: 3/4 × 5 1/2 × 96 in is 396 in³.
    expect(boardFeet(0.75 * 25.4, 5.5 * 25.4, 2.4384)).toBeCloseTo(396 / 144, 12);
  });

  it("tell stock sizes in whole feet where they are", () => {
    expect(stockSizeWords([6096], INCHES)).toBe("20 ft");
    expect(stockSizeWords([2438.4, 1219.2], INCHES)).toBe("8 ft × 4 ft");
    expect(stockSizeWords([2438.4, 1244.6], INCHES)).toBe("96 × 49 in");
    expect(stockSizeWords([6096], PLAIN_MM)).toBe("6096 mm");
    expect(stockSizeWords([2500, 1250], PLAIN_MM)).toBe("2500 × 1250 mm");
  });
});

describe("lengths in sentences", () => {
  it("carry their unit, once for several sizes, and say when they are rounded", () => {
    expect(sayLength(36.125 * 25.4, INCHES)).toBe("36 1/8 in");
    expect(sayLength(1000, INCHES)).toBe("≈39 3/8 in");
    expect(saySizes([600, 400.5], PLAIN_MM)).toBe("600 × 400.5 mm");
    expect(saySizes([609.6, 304.8], INCHES)).toBe("24 × 12 in");
  });

  it("tell small differences finer than lengths are written", () => {
    expect(sayDifference(25.4 / 64, INCHES)).toBe("1/64 in");
    expect(sayDifference(0.254, INCHES)).toBe("0.01 in");
    expect(sayDifference(0.254, PLAIN_MM)).toBe("0.25 mm");
    expect(sayDifference(3.175, { unit: "ft", format: INCHES.format })).toBe("1/8 in");
  });
});
