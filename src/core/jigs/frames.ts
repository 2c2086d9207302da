/** Jigs for frames: box frame, rectangle, rail set, splayed stand, ladder, slatted top. */
import { type EndCut, pastEnd } from "../job";
import { choice, count, type Jig, length, sectionLike } from "./jig";
import { buttEnd, type JigMaker, minus, type Place, plus, sum, type Term, textOf, times } from "./maker";

const half = (term: Term): Term => times(term, 0.5);
const width = length("width", "Overall width", "1000", "40");
const depth = length("depth", "Overall depth", "500", "20");
const height = length("height", "Overall height", "850", "34");
const section = { kind: "section", name: "section", label: "Section" } as const;

/** Corners of a level rectangle of centre lines, `inset` within the outside, front left first, counter-clockwise from above. */
function corners(
  across: Term,
  deep: Term,
  inset: Term,
  z: Term,
  insetDeep = inset,
): readonly [Place, Place, Place, Place] {
  const [right, back] = [minus(across, inset), minus(deep, insetDeep)];
  return [
    [inset, insetDeep, z],
    [right, insetDeep, z],
    [right, back, z],
    [inset, back, z],
  ];
}

const RING = ["Top rail", "Top end rail", "Top rail", "Top end rail"];

type Ring = {
  readonly names: readonly string[];
  readonly section: string;
  /** Four corners of the centre lines, one after the other. */
  readonly places: readonly Place[];
  readonly rolls?: readonly string[];
  /** Which of them run past the others, the even ones (0) or the odd ones (1); null: all are mitred. */
  readonly through: 0 | 1 | null;
};

/** Four members round a rectangle; their ids in its order. */
function ring(
  maker: JigMaker,
  { names, section: bar, places, rolls = [], through }: Ring,
): readonly string[] {
  if (through === null) return maker.mitredRing(names, bar, places, rolls);
  const ids = places.map(() => maker.memberId());
  const near = (i: number) => ids[(i + ids.length) % ids.length] ?? "";
  places.forEach((from, i) => {
    const cut = (other: string): EndCut => (i % 2 === through ? pastEnd(other) : buttEnd(other));
    maker.member(ids[i] ?? "", names[i] ?? "", bar, from, places[(i + 1) % places.length] ?? from, {
      start: cut(near(i - 1)),
      end: cut(near(i + 1)),
      ...(rolls[i] ? { roll: rolls[i] } : {}),
    });
  });
  return ids;
}

const LOW_RING = ["Low rail", "Low end rail", "Low rail", "Low end rail"];

/** Between which legs braces go, each from low at the first to high at the second: corners are counted from the front left. */
const BRACED: Readonly<Record<string, readonly (readonly [number, number])[]>> = {
  none: [],
  back: [[3, 2]],
  ends: [
    [0, 3],
    [1, 2],
  ],
  all: [
    [3, 2],
    [0, 3],
    [1, 2],
  ],
};

const AS_LEGS = { field: "section", words: "as the legs" };
type Text = (name: string) => string;
const hasRings = { isNeeded: (text: Text) => Number(text("rings")) > 0 };
const isBraced = { isNeeded: (text: Text) => (BRACED[text("braces")] ?? []).length > 0 };

const boxFrame: Jig = {
  id: "box-frame",
  name: "Box frame",
  note: "Four legs, a top ring on them or between them, lower rings between them, and braces",
  fields: [
    width,
    depth,
    height,
    { ...section, label: "Section of the legs" },
    sectionLike("top", "Section of the top ring", AS_LEGS),
    choice("corners", "Top ring", [
      ["mitred", "on the legs, mitred"],
      ["butted", "on the legs, long rails run through"],
      ["between", "between the legs"],
    ]),
    count("rings", "Lower rings", 1, 0, 6),
    sectionLike("low_section", "Section of the lower rings", AS_LEGS, hasRings),
    length("low", "Middle of the lowest ring above the floor", "180", "7", {
      isNeeded: (text) => hasRings.isNeeded(text) || isBraced.isNeeded(text),
    }),
    choice("braces", "Braces", [
      ["none", "none"],
      ["back", "across the back"],
      ["ends", "across both ends"],
      ["all", "across the back and both ends"],
    ]),
    sectionLike("brace", "Section of the braces", AS_LEGS, isBraced),
    length("brace_off", "Braces end this far from the rings", "100", "4", isBraced),
  ],
  make: (maker, values) => {
    const [w, d, h] = [
      maker.term(values.text("width")),
      maker.term(values.text("depth")),
      maker.term(values.text("height")),
    ];
    const [leg, topBar, lowBar] = [values.text("section"), values.text("top"), values.text("low_section")];
    const [legAcross, legDeep] = maker.section(leg);
    const [topWide, topHigh] = maker.section(topBar);
    const [lowWide, lowHigh] = maker.section(lowBar);
    const isBetween = values.text("corners") === "between";
    const topMiddle = minus(h, half(topHigh));
    const feet = corners(w, d, half(legAcross), 0, half(legDeep));
    const legs = feet.map(() => maker.memberId());
    /** A ring between legs ends in their middles, its outer faces flush with theirs. */
    const between = (wide: number, z: Term) => flushRing({ w, d, wide, legAcross, legDeep }, z);
    const top = {
      names: RING,
      section: topBar,
      places: corners(w, d, half(topWide), topMiddle),
      through: values.text("corners") === "butted" ? 0 : null,
    } as const;
    const rails = isBetween ? [] : ring(maker, top);
    feet.forEach(([x, y], i) => {
      const [to, end] = isBetween ? [h, {}] : [topMiddle, { end: buttEnd(rails[i] ?? "") }];
      maker.member(legs[i] ?? "", "Leg", leg, [x, y, 0], [x, y, to], end);
    });
    /** Each side by itself: rings of legs that are not square have no common corners. */
    const put = (names: readonly string[], bar: string, sides: ReturnType<typeof between>) => {
      sides.forEach(([from, to], i) => {
        const next = (i + 1) % sides.length;
        maker.member(maker.memberId(), names[i] ?? "", bar, from, to, {
          start: buttEnd(legs[i] ?? ""),
          end: buttEnd(legs[next] ?? ""),
        });
      });
    };
    if (isBetween) put(RING, topBar, between(topWide, topMiddle));
    const rings = values.count("rings");
    const low = maker.term(values.text("low"));
    for (let i = 0; i < rings; i++) {
      // The rings stand evenly from the lowest up to below the top ring.
      const z = i === 0 ? low : plus(low, times(minus(topMiddle, low), i / rings));
      put(LOW_RING, lowBar, between(lowWide, z));
    }
    const off = maker.term(values.text("brace_off"));
    const from = rings > 0 ? sum(low, half(lowHigh), off) : plus(low, off);
    const to = minus(minus(h, topHigh), off);
    for (const [a, b] of BRACED[values.text("braces")] ?? []) {
      const [[ax, ay], [bx, by]] = [feet[a] ?? [0, 0], feet[b] ?? [0, 0]];
      maker.member(maker.memberId(), "Brace", values.text("brace"), [ax, ay, from], [bx, by, to], {
        start: buttEnd(legs[a] ?? ""),
        end: buttEnd(legs[b] ?? ""),
      });
    }
    return maker.done("Insert a box frame");
  },
};

type Flush = {
  readonly w: Term;
  readonly d: Term;
  readonly wide: number;
  readonly legAcross: number;
  readonly legDeep: number;
};

/** The four sides of a ring between legs, each from the middle of one leg to that of the next, its outer face in the plane of theirs. */
function flushRing({ w, d, wide, legAcross, legDeep }: Flush, z: Term): readonly (readonly [Place, Place])[] {
  const side = half(wide);
  const [x0, x1] = [half(legAcross), minus(w, half(legAcross))];
  const [y0, y1] = [half(legDeep), minus(d, half(legDeep))];
  const [front, back, left, right] = [side, minus(d, side), side, minus(w, side)];
  return [
    [
      [x0, front, z],
      [x1, front, z],
    ],
    [
      [right, y0, z],
      [right, y1, z],
    ],
    [
      [x1, back, z],
      [x0, back, z],
    ],
    [
      [left, y1, z],
      [left, y0, z],
    ],
  ];
}

const rectangle: Jig = {
  id: "rectangle",
  name: "Rectangle frame",
  note: "Four members in one plane, level or upright, mitred or butted",
  fields: [
    width,
    length("height", "Depth or height, over all", "600", "24"),
    section,
    choice("corners", "Corners", [
      ["mitred", "mitred"],
      ["butted", "sides run through"],
    ]),
    choice("plane", "It lies", [
      ["level", "level"],
      ["upright", "upright"],
    ]),
  ],
  make: (maker, values) => {
    const [w, h, bar] = [
      maker.term(values.text("width")),
      maker.term(values.text("height")),
      values.text("section"),
    ];
    const inset = half(maker.section(bar)[0]);
    const upright = values.text("plane") === "upright";
    ring(maker, {
      names: ["Rail", "Side", "Rail", "Side"],
      section: bar,
      places: corners(w, h, inset, 0).map(([x, y, z]): Place => (upright ? [x, z, y] : [x, y, z])),
      // Flat sections lie in the plane of the frame: their width is turned into it.
      rolls: upright ? ["90", "0", "90", "0"] : [],
      through: values.text("corners") === "butted" ? 1 : null,
    });
    return maker.done("Insert a rectangle frame");
  },
};

const railSet: Jig = {
  id: "rail-set",
  name: "Rail set",
  note: "Level rails over one another with equal spacing",
  fields: [
    length("width", "Length of the rails", "1000", "40"),
    section,
    count("rails", "Rails", 4, 1),
    length("low", "Middle of the lowest", "100", "4"),
    length("high", "Middle of the highest", "900", "36"),
  ],
  make: (maker, values) => {
    const [w, low, high, bar] = [
      maker.term(values.text("width")),
      maker.term(values.text("low")),
      maker.term(values.text("high")),
      values.text("section"),
    ];
    const rails = values.count("rails");
    for (let i = 0; i < rails; i++) {
      const z = rails === 1 ? low : plus(low, times(minus(high, low), i / (rails - 1)));
      maker.member(maker.memberId(), "Rail", bar, [0, 0, z], [w, 0, z]);
    }
    return maker.done("Insert a rail set");
  },
};

const splayedStand: Jig = {
  id: "splayed-stand",
  name: "Splayed stand",
  note: "A mitred top ring on legs that lean outwards both ways, with level feet",
  fields: [
    length("width", "Width of the top, over all", "400", "16"),
    length("depth", "Depth of the top, over all", "400", "16"),
    length("height", "Overall height", "700", "28"),
    length("splay", "Feet stand out by, each way", "120", "5"),
    section,
  ],
  make: (maker, values) => {
    const [w, d, h] = [
      maker.term(values.text("width")),
      maker.term(values.text("depth")),
      maker.term(values.text("height")),
    ];
    const [splay, bar] = [maker.term(values.text("splay")), values.text("section")];
    const inset = half(maker.section(bar)[0]);
    const ring = corners(w, d, inset, minus(h, inset));
    maker.mitredRing(RING, bar, ring);
    const out = [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ] as const;
    ring.forEach(([x, y, z], i) => {
      const [sx, sy] = out[i] ?? [0, 0];
      const foot: Place = [plus(x, times(splay, sx)), plus(y, times(splay, sy)), 0];
      maker.member(maker.memberId(), "Splayed leg", bar, foot, [x, y, z], {
        start: { kind: "level", offset: "0" },
        // Under the ring, whose underside lies half a section below its middle.
        end: { kind: "level", offset: textOf(times(inset, -1)) },
      });
    });
    return maker.done("Insert a splayed stand");
  },
};

const ladder: Jig = {
  id: "ladder",
  name: "Ladder",
  note: "Two stiles with rungs butted between them at equal spacing",
  fields: [
    length("width", "Overall width", "450", "18"),
    length("height", "Length of the stiles", "2000", "80"),
    { ...section, label: "Section of the stiles" },
    { kind: "section", name: "rung", label: "Section of the rungs" },
    count("rungs", "Rungs", 6, 1),
  ],
  make: (maker, values) => {
    const [w, h, bar] = [
      maker.term(values.text("width")),
      maker.term(values.text("height")),
      values.text("section"),
    ];
    const inset = half(maker.section(bar)[0]);
    const right = minus(w, inset);
    const [a, b] = [maker.memberId(), maker.memberId()];
    maker.member(a, "Stile", bar, [inset, 0, 0], [inset, 0, h]);
    maker.member(b, "Stile", bar, [right, 0, 0], [right, 0, h]);
    const rungs = values.count("rungs");
    for (let i = 1; i <= rungs; i++) {
      const z = times(h, i / (rungs + 1));
      maker.member(maker.memberId(), "Rung", values.text("rung"), [inset, 0, z], [right, 0, z], {
        start: buttEnd(a),
        end: buttEnd(b),
      });
    }
    return maker.done("Insert a ladder");
  },
};

const slattedTop: Jig = {
  id: "slatted-top",
  name: "Slatted top",
  note: "Slats side by side with equal gaps, flush with both edges",
  fields: [
    length("width", "Length of the laths", "1000", "40"),
    length("depth", "Overall depth", "500", "20"),
    length("height", "Underside above the floor", "850", "34"),
    { kind: "timber", name: "section", label: "Slat" },
    count("slats", "Slats", 5, 2),
  ],
  make: (maker, values) => {
    const [w, d, h, bar] = [
      maker.term(values.text("width")),
      maker.term(values.text("depth")),
      maker.term(values.text("height")),
      values.text("section"),
    ];
    const [face, thick] = maker.section(bar);
    const slats = values.count("slats");
    for (let i = 0; i < slats; i++) {
      const y = sum(face / 2, times(minus(d, face), i / (slats - 1)));
      const z = plus(h, thick / 2);
      maker.member(maker.memberId(), "Slat", bar, [0, y, z], [w, y, z]);
    }
    return maker.done("Insert a slatted top");
  },
};

export const FRAME_JIGS: readonly Jig[] = [boxFrame, rectangle, railSet, splayedStand, ladder, slattedTop];
