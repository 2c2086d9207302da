/** The inks and tints of display lists on paper. */
import type { Ink, Tint } from "@/core/drawing";

export const INKS: Readonly<Record<Ink, string>> = {
  ink: "#1D2321",
  soft: "#5B645F",
  seam: "#B9B9AD",
  brass: "#B7832F",
  chalk: "#2F6A9A",
  oxide: "#A33F2B",
  moss: "#4B7A36",
};

const TINTS: Readonly<Record<Tint, string>> = {
  ink: INKS.ink,
  paper: "#FFFFFF",
  steel: "#DCE0DF",
  timber: "#F0E2C4",
  board: "#F4EBD8",
  rest: "#FAFAF6",
  brass: "#F3DFB8",
  lock: "#b7832f",
  ground: "#F4F4EF",
};

/** A tint, darker by a share of it. */
export function tintColour(tint: Tint, shade = 0): string {
  const whole = Number.parseInt(TINTS[tint].slice(1), 16);
  const part = (shift: number) =>
    Math.round(((whole >> shift) & 0xff) * (1 - shade))
      .toString(16)
      .padStart(2, "0");
  return shade === 0 ? TINTS[tint] : `#${part(16)}${part(8)}${part(0)}`;
}
