/** Every kind of end cut with what makes an end of it. */
import type { EndCut, EndCutName, EndCutOf } from "../../job";
import { forKind, type Result } from "../../kernel";
import type { EndFault } from "../fault";
import { butt } from "./butt";
import { cope } from "./cope";
import type { CutEnd, Cutter, EndGround } from "./cutter";
import { angled, pointed, twoAngles } from "./free";
import { level } from "./level";
import { doubleMitre, mitre } from "./mitre";
import { notched } from "./notched";
import { square } from "./square";

export type { NotchPart, Others } from "./cutter";

const CUTTERS: { readonly [K in EndCutName]: Cutter<EndCutOf<K>> } = {
  square,
  mitre,
  doubleMitre,
  butt,
  cope,
  notched,
  level,
  angled,
  pointed,
  twoAngles,
};

/** Cuts an end as its record says. */
export function endOf(cut: EndCut, ground: EndGround): Result<CutEnd, EndFault> {
  return forKind<Cutter<EndCut>>(CUTTERS, cut)(cut, ground);
}
