/** Jigs for panels: a carcass with shelves and back in grooves, and a drawer box. */
import { choice, count, type Jig, length } from "./jig";
import { type JigMaker, minus, plus, sum, type Term, times } from "./maker";

const board = (name: string, label: string) => ({ kind: "board", name, label }) as const;
const X = ["1", "0", "0"] as const;
const UP = ["0", "0", "1"] as const;
const DOWN = ["0", "0", "-1"] as const;
const LEFT = ["-1", "0", "0"] as const;
const FRONT = ["0", "-1", "0"] as const;

/**
 * Sides run through from floor to top; top and bottom stand in rebates at their ends, shelves in grooves,
 * the back in a groove all round. Grooves are told on the inside (good) faces.
 */
const carcass: Jig = {
  id: "carcass",
  name: "Carcass",
  note: "Sides, top, bottom, back and shelves, housed in grooves",
  fields: [
    length("width", "Overall width", "600", "24"),
    length("height", "Overall height", "800", "32"),
    length("depth", "Overall depth", "320", "12 1/2"),
    board("board", "Board"),
    board("back", "Board of the back"),
    count("shelves", "Shelves", 2, 0, 40),
    length("groove", "Depth of the grooves", "6", "1/4"),
    length("inset", "Back stands in by", "10", "3/8"),
  ],
  make: (maker, values) => {
    const [w, h, d] = [
      maker.term(values.text("width")),
      maker.term(values.text("height")),
      maker.term(values.text("depth")),
    ];
    const [g, inset] = [maker.term(values.text("groove")), maker.term(values.text("inset"))];
    const [main, rear] = [values.text("board"), values.text("back")];
    const [t, tb] = [maker.board(main), maker.board(rear)];
    const clear = minus(w, 2 * t);
    const shelves = values.count("shelves");
    // Clear heights between bottom, shelves and top are equal: (h − (2 + n)·t) / (n + 1).
    const gaps = minus(h, (2 + shelves) * t);
    const levels = Array.from({ length: shelves }, (_, i) =>
      plus((i + 1) * t, times(gaps, (i + 1) / (shelves + 1))),
    );
    side(maker, "left", { w, h, d, g, inset, t, tb, levels, main });
    side(maker, "right", { w, h, d, g, inset, t, tb, levels, main });
    const between = plus(clear, times(g, 2));
    const x = minus(t, g);
    const backGroove = (face: "good" | "other") => maker.groove(face, "back", inset, tb, g);
    maker.panel("Bottom", main, {
      origin: [x, 0, 0],
      length: between,
      width: d,
      lengthAxis: X,
      faceAxis: UP,
      work: [backGroove("good")],
    });
    maker.panel("Top", main, {
      origin: [x, 0, minus(h, t)],
      length: between,
      width: d,
      lengthAxis: X,
      faceAxis: UP,
      work: [backGroove("other")],
    });
    for (const z of levels)
      maker.panel("Shelf", main, {
        origin: [x, 0, z],
        length: between,
        width: minus(minus(d, inset), tb),
        lengthAxis: X,
        faceAxis: UP,
      });
    const rise = plus(minus(h, 2 * t), times(g, 2));
    maker.panel("Back", rear, {
      origin: [sum(minus(w, t), g), minus(d, inset), minus(t, g)],
      length: rise,
      width: between,
      lengthAxis: UP,
      faceAxis: FRONT,
    });
    return maker.done("Insert a carcass");
  },
};

type SideParts = {
  readonly w: Term;
  readonly h: Term;
  readonly d: Term;
  readonly g: Term;
  readonly inset: Term;
  readonly t: number;
  readonly tb: number;
  readonly levels: readonly Term[];
  readonly main: string;
};

/** Seen on its inside face the left side's left end is its top, the right side's its foot. */
function side(
  maker: JigMaker,
  which: "left" | "right",
  { w, h, d, g, inset, t, tb, levels, main }: SideParts,
): void {
  const foot = which === "left" ? "right" : "left";
  const top = which === "left" ? "left" : "right";
  const work = [
    maker.groove("good", top, 0, t, g),
    maker.groove("good", foot, 0, t, g),
    ...levels.map((z) => maker.groove("good", foot, z, t, g)),
    maker.groove("good", "back", inset, tb, g),
  ];
  maker.panel("Side", main, {
    origin: which === "left" ? [0, 0, h] : [w, 0, 0],
    length: h,
    width: d,
    lengthAxis: which === "left" ? DOWN : UP,
    faceAxis: which === "left" ? X : LEFT,
    work,
  });
}

const drawerBox: Jig = {
  id: "drawer-box",
  name: "Drawer box",
  note: "Sides, front and back with a floor in grooves",
  fields: [
    length("width", "Overall width", "500", "20"),
    length("depth", "Overall depth", "450", "18"),
    length("height", "Height", "120", "5"),
    board("board", "Board"),
    board("floor", "Bottom board"),
    length("groove", "Depth of the grooves", "5", "1/4"),
    length("low", "Bottom inset", "10", "3/8"),
  ],
  make: (maker, values) => {
    const [w, d, h] = [
      maker.term(values.text("width")),
      maker.term(values.text("depth")),
      maker.term(values.text("height")),
    ];
    const [g, low] = [maker.term(values.text("groove")), maker.term(values.text("low"))];
    const [main, under] = [values.text("board"), values.text("floor")];
    const [t, tf] = [maker.board(main), maker.board(under)];
    // Panels stand with their front edge down: the groove for the floor runs near it on the inside face.
    const groove = () => [maker.groove("good", "front", low, tf, g)];
    const back = ["0", "1", "0"] as const;
    maker.panel("Drawer side", main, {
      origin: [0, 0, 0],
      length: d,
      width: h,
      lengthAxis: back,
      faceAxis: X,
      work: groove(),
    });
    maker.panel("Drawer side", main, {
      origin: [w, d, 0],
      length: d,
      width: h,
      lengthAxis: FRONT,
      faceAxis: LEFT,
      work: groove(),
    });
    const clear = minus(w, 2 * t);
    maker.panel("Drawer front", main, {
      origin: [minus(w, t), 0, 0],
      length: clear,
      width: h,
      lengthAxis: LEFT,
      faceAxis: back,
      work: groove(),
    });
    maker.panel("Drawer back", main, {
      origin: [t, d, 0],
      length: clear,
      width: h,
      lengthAxis: X,
      faceAxis: FRONT,
      work: groove(),
    });
    const [across, deep] = [plus(clear, times(g, 2)), plus(minus(d, 2 * t), times(g, 2))];
    maker.panel("Drawer bottom", under, {
      origin: [minus(t, g), minus(t, g), low],
      length: across,
      width: deep,
      lengthAxis: X,
      faceAxis: UP,
    });
    return maker.done("Insert a drawer box");
  },
};

const LIES = {
  level: { lengthAxis: X, faceAxis: UP },
  front: { lengthAxis: X, faceAxis: FRONT },
  side: { lengthAxis: ["0", "1", "0"], faceAxis: X },
} as const;

const panel: Jig = {
  id: "panel",
  name: "Single panel",
  note: "One panel, level or upright, by its lower front left corner",
  fields: [
    length("length", "Length, along the grain", "600", "24"),
    length("width", "Width", "300", "12"),
    board("board", "Board"),
    choice("lies", "Its face looks", [
      ["level", "up"],
      ["front", "to the front"],
      ["side", "to the right"],
    ]),
  ],
  make: (maker, values) => {
    const [long, wide] = [maker.term(values.text("length")), maker.term(values.text("width"))];
    const lies = values.text("lies");
    const how = lies === "front" || lies === "side" ? lies : "level";
    // Upright panels stand on their front edge.
    const thick = maker.board(values.text("board"));
    const origin = how === "front" ? ([0, thick, 0] as const) : ([0, 0, 0] as const);
    maker.panel("Panel", values.text("board"), { origin, length: long, width: wide, ...LIES[how] });
    return maker.done("Insert a panel");
  },
};

export const CARCASS_JIGS: readonly Jig[] = [carcass, drawerBox, panel];
