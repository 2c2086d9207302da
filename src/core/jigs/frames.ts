/** Jigs for frames: box frame, rectangle, rail set, splayed stand, ladder, slatted top. */
import { choice, count, type Jig, length } from "./jig";
import { buttEnd, type JigMaker, minus, type Place, plus, sum, type Term, textOf, times } from "./maker";

const half = (term: Term): Term => times(term, 0.5);
const width = length("width", "Overall width", "1000", "40");
const depth = length("depth", "Overall depth", "500", "20");
const height = length("height", "Overall height", "850", "34");
const section = { kind: "section", name: "section", label: "Section" } as const;

/** Corners of a level rectangle of centre lines, `inset` within the outside, front left first, counter-clockwise from above. */
function corners(across: Term, deep: Term, inset: Term, z: Term): readonly [Place, Place, Place, Place] {
  const [right, back] = [minus(across, inset), minus(deep, inset)];
  return [
    [inset, inset, z],
    [right, inset, z],
    [right, back, z],
    [inset, back, z],
  ];
}

const RING = ["Top rail", "Top end rail", "Top rail", "Top end rail"];

function lowRing(maker: JigMaker, legs: readonly string[], places: readonly Place[], bar: string): void {
  places.forEach((from, i) => {
    const next = (i + 1) % places.length;
    maker.member(maker.memberId(), i % 2 ? "Low end rail" : "Low rail", bar, from, places[next] ?? from, {
      start: buttEnd(legs[i] ?? ""),
      end: buttEnd(legs[next] ?? ""),
    });
  });
}

const boxFrame: Jig = {
  id: "box-frame",
  name: "Box frame",
  note: "Four legs under a mitred top ring, with lower rings butted between them",
  fields: [
    width,
    depth,
    height,
    section,
    count("rings", "Lower rings", 1, 0, 6),
    length("low", "Middle of the lowest ring above the floor", "180", "7"),
  ],
  make: (maker, values) => {
    const [w, d, h, bar] = [
      maker.term(values.text("width")),
      maker.term(values.text("depth")),
      maker.term(values.text("height")),
      values.text("section"),
    ];
    const inset = half(maker.section(bar)[0]);
    const top = minus(h, inset);
    const ring = corners(w, d, inset, top);
    const rails = maker.mitredRing(RING, bar, ring);
    const legs = ring.map(() => maker.memberId());
    ring.forEach(([x, y], i) => {
      maker.member(legs[i] ?? "", "Leg", bar, [x, y, 0], [x, y, top], { end: buttEnd(rails[i] ?? "") });
    });
    const rings = values.count("rings");
    const low = maker.term(values.text("low"));
    for (let i = 0; i < rings; i++) {
      // The rings stand evenly from the lowest up to below the top ring.
      const z = i === 0 ? low : plus(low, times(minus(top, low), i / rings));
      lowRing(maker, legs, corners(w, d, inset, z), bar);
    }
    return maker.done("Insert a box frame");
  },
};

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
    const places = corners(w, h, inset, 0).map(([x, y, z]): Place => (upright ? [x, z, y] : [x, y, z]));
    const [a, b, c, d] = places;
    if (!a || !b || !c || !d) return maker.done("Insert a rectangle frame");
    const names = ["Rail", "Side", "Rail", "Side"];
    // Flat sections lie in the plane of the frame: their width is turned into it.
    const rolls = upright ? ["90", "0", "90", "0"] : [];
    if (values.text("corners") !== "butted") maker.mitredRing(names, bar, places, rolls);
    else {
      const [right, left] = [maker.memberId(), maker.memberId()];
      const [low, high] = [maker.memberId(), maker.memberId()];
      const past = (rail: string) =>
        ({ kind: "square", offset: "0", past: rail }) as ReturnType<typeof buttEnd>;
      const roll = (i: number) => (rolls[i] ? { roll: rolls[i] } : {});
      maker.member(right, "Side", bar, b, c, { start: past(low), end: past(high), ...roll(1) });
      maker.member(left, "Side", bar, a, d, { start: past(low), end: past(high), ...roll(3) });
      maker.member(low, "Rail", bar, a, b, { start: buttEnd(left), end: buttEnd(right), ...roll(0) });
      maker.member(high, "Rail", bar, d, c, { start: buttEnd(left), end: buttEnd(right), ...roll(2) });
    }
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
