/** Blanks: what a panel is cut to before its edges are banded and its allowances taken off. */
import { fromNm, toNm } from "../kernel";
import type { EdgingEntry } from "../stockroom";
import type { PanelForm } from "../tally";

/** The blank of a panel: its finished size less the edging that is deducted, plus the allowance, in mm. */
export function blankOf(
  form: PanelForm,
  edgingById: ReadonlyMap<string, EdgingEntry>,
  allowance = 0,
): { readonly length: number; readonly width: number } {
  const off = (id: string | null) => {
    const entry = id === null ? undefined : edgingById.get(id);
    return entry?.deducted ? toNm(entry.thickness) : 0;
  };
  const { edging } = form;
  const more = toNm(allowance);
  return {
    length: fromNm(form.lengthNm - off(edging.left) - off(edging.right) + more),
    width: fromNm(form.widthNm - off(edging.front) - off(edging.back) + more),
  };
}
