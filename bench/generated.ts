/** A generated job of any size: bays of a shelving with mitred rings, legs, shelves and laths, all by formula. */
import { buttEnd, type Job, type JobParts, mitreEnd, newJob } from "@/core/job";

/** Pieces in one bay: four rails, four legs, two shelves, ten laths. */
const PER_BAY = 20;

type Parts = {
  points: Record<string, readonly [string, string, string]>;
  members: Record<string, NonNullable<JobParts["members"]>[string]>;
  panels: Record<string, NonNullable<JobParts["panels"]>[string]>;
};

/** Bays of a row, and how far they stand off one another, in mm. */
type Stand = { readonly inRow: number; readonly beside: number; readonly behind: number };

const APART: Stand = { inRow: 50, beside: 320, behind: 300 };

function addBay({ points, members, panels }: Parts, bay: number, levels: number, stand: Stand): void {
  const name = (part: string) => `${part}-${bay}`;
  const x = `${bay % stand.inRow} * (width + ${stand.beside})`;
  const y = `${Math.floor(bay / stand.inRow)} * (depth + ${stand.behind})`;
  // Every seventh bay is a little wider, so that rows differ as they do in a real job.
  const wide = `width + ${(bay % levels) * 7}`;
  const corner = (i: number): readonly [string, string] => [
    i === 1 || i === 2 ? `${x} + ${wide} - 20` : `${x} + 20`,
    i > 1 ? `${y} + depth - 20` : `${y} + 20`,
  ];
  for (let i = 0; i < 4; i++) {
    points[name(`T${i}`)] = [...corner(i), "height - 20"];
    points[name(`G${i}`)] = [...corner(i), "0"];
  }
  for (let i = 0; i < 4; i++) {
    const [next, before] = [(i + 1) % 4, (i + 3) % 4];
    members[name(`rail${i}`)] = {
      name: i % 2 ? "End rail" : "Rail",
      from: name(`T${i}`),
      to: name(`T${next}`),
      section: "sht-40-3",
      start: mitreEnd(name(`rail${before}`)),
      end: mitreEnd(name(`rail${next}`)),
    };
    members[name(`leg${i}`)] = {
      name: "Leg",
      from: name(`G${i}`),
      to: name(`T${i}`),
      section: "sht-40-3",
      end: buttEnd(name(`rail${i}`)),
    };
  }
  for (let i = 0; i < 2; i++) {
    panels[name(`shelf${i}`)] = {
      name: "Shelf",
      board: "birch-ply-12",
      origin: [`${x} + 40`, `${y} + 40`, `${200 + 200 * i}`],
      lengthAxis: ["1", "0", "0"],
      faceAxis: ["0", "0", "1"],
      length: `${wide} - 80`,
      width: "depth - 80",
      edging: { front: "iron-on" },
    };
  }
  for (let i = 0; i < 10; i++) {
    points[name(`A${i}`)] = [`${x} + 10`, `${y} + ${50 + 95 * i}`, "height + 9"];
    points[name(`B${i}`)] = [`${x} + ${wide} - 10`, `${y} + ${50 + 95 * i}`, "height + 9"];
    members[name(`lath${i}`)] = {
      name: "Lath",
      from: name(`A${i}`),
      to: name(`B${i}`),
      section: "larch-88-18",
    };
  }
}

/** Bays that all touch one another, side by side and back to back: one block. */
export function joinedJob(pieces: number): Job {
  const inRow = Math.ceil(Math.sqrt(pieces / PER_BAY));
  return generatedJob(pieces, 1, { inRow, beside: 0, behind: 0 });
}

export function generatedJob(pieces: number, levels = 40, stand: Stand = APART): Job {
  const parts: Parts = { points: {}, members: {}, panels: {} };
  for (let bay = 0; bay < pieces / PER_BAY; bay++) addBay(parts, bay, levels, stand);
  return newJob({
    info: { code: "GEN", title: `Generated, ${pieces} pieces` },
    keySizes: { width: { formula: "900" }, depth: { formula: "1000" }, height: { formula: "850" } },
    ...parts,
  });
}
