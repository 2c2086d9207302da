/** A bar on its line, before its ends are cut. */
import type { Frame } from "../geometry";
import type { SectionShape } from "../stockroom";

export type EndSide = "start" | "end";

/** A member before its ends are cut: its axes and its section. `length` is that of its line. */
export type Bar = { readonly frame: Frame; readonly length: number; readonly shape: SectionShape };
