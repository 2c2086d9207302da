/** A bar on its line, before its ends are cut. */
import type { Frame, Vec3 } from "../geometry";
import type { Home, Member } from "../job";
import type { SectionEntry, SectionShape } from "../stockroom";

export type EndSide = "start" | "end";

/** A member before its ends are cut: its axes and its section. `length` is that of its line. */
export type Bar = { readonly frame: Frame; readonly length: number; readonly shape: SectionShape };

/** A member whose axes are known; its ends may not be. */
export type PlacedMember = {
  readonly member: Member;
  readonly home: Home;
  readonly from: Vec3;
  readonly to: Vec3;
  readonly entry: SectionEntry;
  readonly material: string | null;
  readonly bar: Bar;
};
