/** The work on a member in words: holes of one kind together, each place from the tip of the first end. */
import { addTo, fromNm, type Nm } from "../kernel";
import type { MemberForm, MemberHoleForm } from "../tally";

type Write = (mm: number) => string;

export type WorkWords = { readonly label: string; readonly value: string };

function holeWords(hole: MemberHoleForm, write: Write): string {
  const mm = (nm: Nm) => write(fromNm(nm));
  const size =
    hole.slotNm > hole.diameterNm
      ? `slot ${mm(hole.diameterNm)} × ${mm(hole.slotNm)}`
      : `⌀ ${mm(hole.diameterNm)}`;
  const side = hole.face === "top" || hole.face === "bottom" ? ["right", "left"] : ["up", "down"];
  const aside =
    hole.across === 0
      ? "in the middle"
      : `${mm(Math.abs(hole.across) as Nm)} ${hole.across > 0 ? side[0] : side[1]} of the middle`;
  return `${size}, ${hole.through ? "through all walls" : "through one wall"}, ${hole.face}, ${aside}`;
}

/** "3 holes": "⌀ 9, through all walls, top, in the middle; from tip of end 1: 40, 240, 440". */
export function memberWorkWords({ holes, notches }: MemberForm, write: Write): readonly WorkWords[] {
  const alike = new Map<string, Nm[]>();
  for (const hole of holes) {
    const words = holeWords(hole, write);
    addTo(alike, words, hole.fromTip);
  }
  return [
    ...[...alike].map(([words, places]): WorkWords => {
      const inTurn = [...places].sort((a, b) => a - b).map((place) => write(fromNm(place)));
      return {
        label: places.length === 1 ? "Hole" : `${places.length} holes`,
        value: `${words}; from tip of end 1: ${inTurn.join(", ")}`,
      };
    }),
    ...notches.map(
      ({ end, face, depthNm, lengthNm }): WorkWords => ({
        label: `Notch, end ${end + 1}`,
        value: `${write(fromNm(depthNm))} deep from the ${face}, ${write(fromNm(lengthNm))} long`,
      }),
    ),
  ];
}
