/** Colours as light mixes them and as screens take them (IEC 61966-2-1), and how far two of them look apart (CIE 1976). */

/** Red, green and blue from 0 to 1, in proportion to light. */
export type LinearColour = readonly [number, number, number];

const each = ([r, g, b]: LinearColour, of: (value: number) => number): LinearColour => [of(r), of(g), of(b)];

/** As screens take it, from 0 to 1. */
export const screenColour = (colour: LinearColour): LinearColour =>
  each(colour, (value) => (value <= 0.0031308 ? 12.92 * value : 1.055 * value ** (1 / 2.4) - 0.055));

/** A colour of a screen that is written as #rrggbb. */
export function linearColour(hex: string): LinearColour {
  const part = (k: number) => Number.parseInt(hex.slice(1 + 2 * k, 3 + 2 * k), 16) / 255;
  return each([part(0), part(1), part(2)], (value) =>
    value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4,
  );
}

/** How far apart two colours look: about 2 is just seen, black and white are 100 apart. */
export function colourDistance(a: LinearColour, b: LinearColour): number {
  const [p, q] = [labOf(a), labOf(b)];
  return Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);
}

/** L*, a* and b* under daylight (D65). */
function labOf([r, g, b]: LinearColour): readonly [number, number, number] {
  const x = (0.4124 * r + 0.3576 * g + 0.1805 * b) / 0.9505;
  const y = 0.2126 * r + 0.7152 * g + 0.0722 * b;
  const z = (0.0193 * r + 0.1192 * g + 0.9505 * b) / 1.089;
  const f = (t: number) => (t > (6 / 29) ** 3 ? Math.cbrt(t) : t / (3 * (6 / 29) ** 2) + 4 / 29);
  return [116 * f(y) - 16, 500 * (f(x) - f(y)), 200 * (f(y) - f(z))];
}
