/** Names on solids: what a drawing takes hold of is there after every edit of a size, where the saw and the drill leave it. */
import { describe, expect, it } from "vitest";
import { noticeBoard } from "../../../demo/notice-board";
import { pottingBench } from "../../../demo/potting-bench";
import { seedPacketCabinet } from "../../../demo/seed-packet-cabinet";
import { shelfBrackets } from "../../../demo/shelf-brackets";
import { demoStockroom } from "../../../demo/stockroom";
import type { Solid, Vec3 } from "../geometry";
import { type Job, newJob, type PanelParts, resolveSizes } from "../job";
import { edited } from "../job/edit.fixture";
import { at } from "../kernel";
import { stockroomOf } from "../stockroom";
import { type Shape, shapeJob } from ".";
import { placesOfMember, solidOfMember } from "./member-solid";
import { placesOfPanel, solidOfPanel } from "./panel-solid";

const stockroom = stockroomOf(demoStockroom);
const shapeOf = (job: Job) => shapeJob(job, resolveSizes(job, null), stockroom);
const FINE = { step: 0.2, creases: true };

const DEMOS = [
  ["the potting bench", pottingBench()],
  ["the cabinet", seedPacketCabinet()],
  ["the notice board", noticeBoard()],
  ["the brackets", shelfBrackets()],
] as const;

type Named = { readonly solid: Solid; readonly places: ReadonlyMap<string, Vec3> };

/** All solids of a shape by their records. */
const namedIn = ({ members, panels }: Shape): ReadonlyMap<string, Named> =>
  new Map<string, Named>([
    ...members.map((one): [string, Named] => [
      one.member.id,
      { solid: solidOfMember(one, FINE), places: placesOfMember(one) },
    ]),
    ...panels.map((one): [string, Named] => [
      one.panel.id,
      { solid: solidOfPanel(one, FINE), places: placesOfPanel(one) },
    ]),
  ]);

const namesOf = ({ solid, places }: Named) => ({
  faces: [...new Set(solid.faces.map(({ name }) => name))].sort(),
  lines: [...new Set(solid.lines.map(({ name }) => name))].sort(),
  places: [...places.keys()].sort(),
});

describe("names on solids", () => {
  it.each(DEMOS.slice(0, 3))("of %s survive a change of every key size", (_, job) => {
    const before = namedIn(shapeOf(job));
    let held = 0;
    for (const size of Object.values(job.keySizes)) {
      const value = Number(size.formula);
      if (size.locked || size.measure !== "length" || !(value > 0)) continue;
      const changed = edited(
        { kind: "setKeySize", id: size.id, formula: String(value * 1.03), variant: null },
        job,
      );
      for (const [id, named] of namedIn(shapeOf(changed))) {
        const old = before.get(id);
        if (!old) continue;
        held++;
        expect(namesOf(named)).toEqual(namesOf(old));
      }
    }
    expect(held).toBeGreaterThan(before.size);
  });

  it.each(DEMOS)("stand on the solids of %s", (_, job) => {
    for (const { solid, places } of namedIn(shapeOf(job)).values()) {
      const [low, high] = boundsOf(solid.points);
      for (const place of places.values())
        for (const k of [0, 1, 2] as const) {
          expect(place[k]).toBeGreaterThan(low[k] - 0.05);
          expect(place[k]).toBeLessThan(high[k] + 0.05);
        }
      // A name belongs to one kind of thing only, and every line to two faces that are there.
      const faces = new Set(solid.faces.map(({ name }) => name));
      for (const { name, kind } of solid.lines)
        if (kind !== "crease") for (const face of name.split(" / ")) expect(faces).toContain(face);
    }
  });
});

function boundsOf(points: readonly Vec3[]): readonly [Vec3, Vec3] {
  const all = ([0, 1, 2] as const).map((k) => points.map((p) => at(p, k)));
  return [
    all.map((values) => Math.min(...values)) as unknown as Vec3,
    all.map((values) => Math.max(...values)) as unknown as Vec3,
  ];
}

describe("places of a member", () => {
  it("from long point to long point is the cut length, from short to short the shortest edge of a frame's rail", () => {
    let mitred = 0;
    for (const solid of [...shapeOf(pottingBench()).members, ...shapeOf(noticeBoard()).members]) {
      const places = placesOfMember(solid);
      const [start, end] = [places.get("start, long point"), places.get("end, long point")];
      if (!start || !end || solid.start.form.kind !== "plane" || solid.end.form.kind !== "plane") continue;
      mitred++;
      expect(end[2] - start[2]).toBeWithinMm(solid.lengths.cut, 1e-6);
      const [inner, other] = [places.get("start, short point"), places.get("end, short point")];
      expect((other?.[2] ?? 0) - (inner?.[2] ?? 0)).toBeWithinMm(solid.lengths.shortestEdge, 1e-6);
    }
    expect(mitred).toBeGreaterThan(3);
  });

  it("a square end has no long point, a mitre one in the middle of its longer edge, a round end one on its outline", () => {
    const job = newJob({
      info: { code: "T", title: "T" },
      points: { A: ["0", "0", "0"], B: ["500", "0", "0"] },
      members: {
        square: {
          name: "Square",
          from: "A",
          to: "B",
          section: "sht-40-3",
          end: { kind: "angled", acrossWidth: "45", acrossHeight: "0", offset: "0" },
        },
        round: {
          name: "Round",
          from: "A",
          to: "B",
          section: "cht-48-3",
          end: { kind: "angled", acrossWidth: "45", acrossHeight: "0", offset: "0" },
        },
      },
    });
    const members = shapeOf(job).members;
    for (const solid of members) {
      const places = placesOfMember(solid);
      expect(places.has("start, long point")).toBe(false);
      const [long, short] = [places.get("end, long point"), places.get("end, short point")];
      const across = Math.hypot((long?.[0] ?? 0) - (short?.[0] ?? 0), (long?.[1] ?? 0) - (short?.[1] ?? 0));
      // At 45° as far along as across.
      expect((long?.[2] ?? 0) - (short?.[2] ?? 0)).toBeWithinMm(across, 1e-6);
      expect(solid.lengths.cut).toBeWithinMm(long?.[2] ?? 0, 1e-6);
    }
    expect(members).toHaveLength(2);
  });
});

describe("places of a panel", () => {
  const panel: PanelParts = {
    name: "Side",
    board: "birch-ply-18",
    origin: ["0", "0", "0"],
    lengthAxis: ["1", "0", "0"],
    faceAxis: ["0", "0", "1"],
    length: "600",
    width: "400",
    work: [
      {
        id: "g",
        kind: "groove",
        face: "other",
        from: "back",
        distance: "30",
        width: "6",
        depth: "9",
        stopAtStart: "20",
        stopAtEnd: "0",
      },
      {
        id: "h",
        kind: "hole",
        face: "good",
        x: "50",
        y: "60",
        diameter: "8",
        depth: "11",
        count: "3",
        step: "32",
        along: "length",
      },
      { id: "n", kind: "notch", from: "right", distance: "0", width: "70", depth: "50" },
    ],
  } as PanelParts;
  const solid = at(shapeOf(newJob({ info: { code: "T", title: "T" }, panels: { side: panel } })).panels, 0);
  const places = placesOfPanel(solid);

  it("are where the work is, measured from the edges that it is set from", () => {
    expect(places.get("good face, back right")).toEqual([600, 400, 18]);
    // 30 from the back edge, 6 wide towards the front; it starts 20 from the left and runs out at the right.
    expect(places.get("groove g, back left")).toEqual([20, 370, 0]);
    expect(places.get("groove g, front right")).toEqual([600, 364, 0]);
    expect(places.get("hole h no 3, middle on the good face")).toEqual([114, 60, 18]);
    expect(places.has("hole h no 3, middle on the other face")).toBe(false);
    // From the right edge 50 in, from the front end 70 along it.
    expect(places.get("notch n, back left on the other face")).toEqual([550, 70, 0]);
  });

  it("have faces and lines by the same names", () => {
    const { faces, lines } = namesOf({ solid: solidOfPanel(solid, FINE), places });
    expect(faces).toEqual([
      "back edge",
      "front edge",
      "good face",
      "groove g back",
      "groove g floor",
      "groove g front",
      "groove g left",
      "hole h no 1 floor",
      "hole h no 1 wall",
      "hole h no 2 floor",
      "hole h no 2 wall",
      "hole h no 3 floor",
      "hole h no 3 wall",
      "left edge",
      "notch n back",
      "notch n left",
      "other face",
      "right edge",
    ]);
    for (const name of [
      "front edge / good face",
      "groove g floor / groove g left",
      "good face / hole h no 2 wall",
    ])
      expect(lines).toContain(name);
  });
});
