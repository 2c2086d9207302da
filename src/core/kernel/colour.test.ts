import { describe, expect, it } from "vitest";
import { colourDistance, linearColour, screenColour } from "./colour";

describe("colours", () => {
  it("of screens to light and back", () => {
    // IEC 61966-2-1: half of the code is about a fifth of the light.
    expect(linearColour("#808080")[0]).toBeCloseTo(0.2159, 4);
    for (const hex of ["#000000", "#ffffff", "#c4745c", "#030a80"]) {
      const back = screenColour(linearColour(hex)).map((value) =>
        Math.round(value * 255)
          .toString(16)
          .padStart(2, "0"),
      );
      expect(`#${back.join("")}`).toBe(hex);
    }
  });

  it("lie apart as CIE 1976 has them: white to black 100, red of a screen at L 53.2, a 80.1, b 67.2", () => {
    expect(colourDistance(linearColour("#ffffff"), linearColour("#000000"))).toBeCloseTo(100, 1);
    // From black: the length of (53.24, 80.09, 67.20), a value given in many tables.
    expect(colourDistance(linearColour("#ff0000"), linearColour("#000000"))).toBeCloseTo(
      Math.hypot(53.24, 80.09, 67.2),
      0,
    );
    expect(colourDistance(linearColour("#c4745c"), linearColour("#c4745c"))).toBe(0);
  });
});
