/** The small picture of a section against the solid that is drawn: seen from the start of the line, the same places fall together. */
import { describe, expect, it } from "vitest";
import { demoStockroom } from "../../../demo/stockroom";
import { toWorld } from "../geometry";
import { newJob, resolveSizes } from "../job";
import { stockroomOf } from "../stockroom";
import { ghostOf, memberSolid, sectionSeat, shapeJob } from ".";
import { placesOfMember } from "./member-solid";

const stockroom = stockroomOf(demoStockroom);
const SECTIONS = stockroom.sections.filter(
  (entry, i, all) => all.findIndex(({ shape }) => shape.kind === entry.shape.kind) === i,
);

const CASES = SECTIONS.flatMap((entry) =>
  [
    [10, "0"],
    [1, "90"],
    [6, "30"],
    [8, "270"],
  ].map(([cardinal, roll]) => [entry.name, entry, Number(cardinal), String(roll)] as const),
);

describe("a section on its line", () => {
  it.each(CASES)("%s stands as its solid does (point %3$s, turned %4$s°)", (_, entry, cardinal, roll) => {
    // A level line to the right: looked along, up is up and what lies to the back is on the left.
    const job = newJob({
      info: { code: "T", title: "T" },
      points: { A: ["0", "0", "0"], B: ["800", "0", "0"] },
      members: { m: { name: "Rail", from: "A", to: "B", section: entry.id, cardinal, roll } },
    });
    const shape = shapeJob(job, resolveSizes(job, null), stockroom);
    const solid = memberSolid(shape, Object.keys(job.members)[0] ?? "");
    if (!solid) throw new Error("the member is drawn");
    const { outlines, points } = sectionSeat(entry.shape, Number(roll), cardinal);
    const seen = [...placesOfMember(solid)].flatMap(([name, place]) =>
      name.startsWith("start, corner") || name.startsWith("start, quarter")
        ? [toWorld(solid.frame, place)]
        : [],
    );
    const box = (values: readonly number[]) => [Math.min(...values), Math.max(...values)];
    const near = (value: number) => expect.closeTo(value, 0);
    const [across, up] = [box(seen.map(([, y]) => -y)), box(seen.map(([, , z]) => z))];
    const outer = outlines[0] ?? [];
    // Of round and rounded ones a picture shows a little less than the sharp corners.
    if (roll === "0" || roll === "90" || roll === "270") {
      expect(box(outer.map(([x]) => x))).toEqual(across.map(near));
      expect(box(outer.map(([, y]) => y))).toEqual(up.map(near));
    }
    expect(points.find((one) => one.cardinal === cardinal)?.at).toEqual([near(0), near(0)]);
    // The ghost ends where the solid does.
    const corners = ghostOf([0, 0, 0], [800, 0, 0], {
      shape: entry.shape,
      roll: Number(roll),
      cardinal,
    }).flat();
    expect(box(corners.map(([, y]) => y))).toEqual(
      box([
        ...seen.map(([, y]) => y),
        ...(solid.entry.shape.kind.startsWith("round") ? corners.map(([, y]) => y) : []),
      ]).map(near),
    );
    expect(box(corners.map(([x]) => x))).toEqual([0, 800]);
  });
});
