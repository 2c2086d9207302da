/** Parts of a file that differ by so little that it is likely a mistake: told before they enter, as the tally tells them after. */
import { at, grouped, NEAR_TWIN_ANGLE_DEG, NEAR_TWIN_LENGTH_MM } from "../kernel";
import { toRadians } from "../measure";
import type { ReadMember, ReadPanel } from "../recognise";
import { sectionText } from "../stockroom";
import { cutLength, type FoundFile, type FoundPart, readingFor, timesOf } from "./found";
import { type Ways, wayOf } from "./stock";

/** mm, and slopes: readings of one piece come nearer to one another. */
const SAME_MM = 0.02;
const SAME_SLOPE = 1e-4;
const NEAR_SLOPE = Math.tan(toRadians(NEAR_TWIN_ANGLE_DEG));

export type NearTwins = {
  readonly parts: readonly [FoundPart, FoundPart];
  readonly names: readonly [string, string];
  /** By how many mm they differ in their sizes at the most; 0: in an angle alone. */
  readonly apart: number;
};

type Sized = {
  readonly part: FoundPart;
  readonly name: string;
  /** What must be the same. */
  readonly kind: string;
  /** The longest first; what is looked for goes by it. */
  readonly sizes: readonly number[];
  readonly read: ReadMember | ReadPanel;
};

/** Pairs of parts that differ a little; of each part the one that is nearest in its longest size. */
export function nearTwinsIn(file: FoundFile, ways: Ways): readonly NearTwins[] {
  const times = timesOf(file);
  const sized = file.products.flatMap(({ id, name, material, parts }) =>
    (times.get(id) ?? 0) === 0
      ? []
      : parts.flatMap((part): readonly Sized[] => {
          const read = readingFor(part, wayOf(ways, part.key));
          if (!read || read.kind === "other") return [];
          return [{ part, name: part.name || name || "Part", read, ...sizesOf(read, material) }];
        }),
  );
  return [...grouped(sized, ({ kind }) => kind).values()].flatMap((group) => {
    const inOrder = group.toSorted((a, b) => at(a.sizes, 0) - at(b.sizes, 0));
    return inOrder.slice(1).flatMap((b, i): readonly NearTwins[] => {
      const a = at(inOrder, i);
      const apart = Math.max(...a.sizes.map((size, k) => Math.abs(size - at(b.sizes, k))));
      if (apart >= NEAR_TWIN_LENGTH_MM) return [];
      const turned = slopesApart(a.read, b.read);
      if (turned > NEAR_SLOPE || (apart <= SAME_MM && turned <= SAME_SLOPE)) return [];
      return [{ parts: [a.part, b.part], names: [a.name, b.name], apart: apart <= SAME_MM ? 0 : apart }];
    });
  });
}

function sizesOf(read: ReadMember | ReadPanel, material: string | null): Pick<Sized, "kind" | "sizes"> {
  if (read.kind === "member") {
    const ends = [read.start.kind, read.end.kind].toSorted().join(" ");
    const { holes, notches, shape } = read;
    return {
      kind: `${sectionText(shape, String, " x ")} ${material} ${ends} ${holes.length} ${notches.length}`,
      sizes: [cutLength(read)],
    };
  }
  const { thickness, holes, grooves, cutOuts, outline } = read;
  return {
    kind: `${thickness} ${material} ${holes.length} ${grooves.length} ${cutOuts.length} ${outline?.length}`,
    sizes: [read.length, read.width].toSorted((a, b) => b - a),
  };
}

/** How far the slopes of two members' ends are apart, whichever way round they lie; of what has none 0. */
function slopesApart(a: ReadMember | ReadPanel, b: ReadMember | ReadPanel): number {
  if (a.kind !== "member" || b.kind !== "member") return 0;
  const leans = ({ start, end }: ReadMember) =>
    [start, end]
      .map((one) => (one.kind === "plane" ? Math.hypot(...one.slope) : 0))
      .toSorted((x, y) => x - y);
  const [first, second] = [leans(a), leans(b)];
  return Math.max(...first.map((lean, i) => Math.abs(lean - at(second, i))));
}
