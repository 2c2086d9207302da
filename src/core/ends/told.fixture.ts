/** Ends from the words that tell them. */
import type { End } from "./end";

const angle = (text: string | undefined): number =>
  text === undefined ? 0 : Math.tan((Number(text.replace("−", "-").replace("+", "")) * Math.PI) / 180);

/** An end from its words; `length` reads a length. Throws nothing: what is not told is square. */
export function endFromWords(words: string, length: (text: string) => number): End {
  const cope = words.match(
    /coped round (.+?) at ([\d.]+)°(?:, (.+?) beside its axis)?(, for a blade held square)?(?:, (left|right) of the axis)?, turned (−?[\d.-]+)° from width/,
  );
  if (cope) {
    const turn = (Number((cope[6] ?? "").replace("−", "-")) * Math.PI) / 180;
    const aside = cope[3] ? length(cope[3]) * (cope[5] === "left" ? 1 : -1) : 0;
    const theta = (Number(cope[2]) * Math.PI) / 180;
    return {
      kind: "cope",
      u: [Math.cos(turn), Math.sin(turn)],
      offset: [-Math.sin(turn) * aside, Math.cos(turn) * aside],
      cos: Math.cos(theta),
      sin: Math.sin(theta),
      radius: length(cope[1] ?? "") / 2,
      curve: cope[4] ? "fit" : "surface",
    };
  }
  const slope = (part: string): [number, number] => [
    angle(part.match(/width ([+−][\d.]+)°/)?.[1]),
    angle(part.match(/height ([+−][\d.]+)°/)?.[1]),
  ];
  const [first, second] = words.split(" and ");
  if (!second) return { kind: "plane", slope: slope(words) };
  const beyond = second.match(/the second (.+?) farther out/)?.[1];
  return {
    kind: "twoPlanes",
    faces: [
      { slope: slope(first ?? ""), beyond: 0 },
      { slope: slope(second), beyond: beyond ? length(beyond) : 0 },
    ],
  };
}
