/**
 * A trolley as another program would send it: a STEP file made from a design of our own, in two versions. Members of
 * rectangular tube with mitred and butted ends, braces, two plates, castors as solids.
 */
import { writeFileSync } from "node:fs";
import { modelOf } from "@/core/brep";
import { buttEnd, type Job, mitreEnd, NO_ASSETS, newJob } from "@/core/job";
import { createPipeline } from "@/core/pipeline";
import { stockroomOf } from "@/core/stockroom";
import { writeStep } from "@/formats/step";
import { demoStockroom } from "./stockroom";

const stockroom = stockroomOf(demoStockroom);
const TUBE = "sht-40-3";
const PLATE = "plate-6";

/** mm: how wide, deep and high it is. */
type Sizes = { readonly wide: number; readonly deep: number; readonly high: number };

function trolley({ wide, deep, high }: Sizes): Job {
  const corner = (name: string, x: number, y: number, z: number) =>
    [name, [String(x), String(y), String(z)] as const] as const;
  const ring = (level: string, z: number) => [
    corner(`${level}1`, 0, 0, z),
    corner(`${level}2`, wide, 0, z),
    corner(`${level}3`, wide, deep, z),
    corner(`${level}4`, 0, deep, z),
  ];
  const side = (level: string, i: number) => {
    const next = (i % 4) + 1;
    const before = ((i + 2) % 4) + 1;
    return [
      `${level}-rail-${i}`,
      {
        name: i % 2 === 1 ? "Long rail" : "Short rail",
        from: `${level}${i}`,
        to: `${level}${next}`,
        section: TUBE,
        start: mitreEnd(`${level}-rail-${before}`),
        end: mitreEnd(`${level}-rail-${next}`),
      },
    ] as const;
  };
  const posts = [1, 2, 3, 4].map(
    (i) =>
      [
        `post-${i}`,
        {
          name: "Post",
          from: `a${i}`,
          to: `b${i}`,
          section: TUBE,
          start: buttEnd(`a-rail-${i}`),
          end: buttEnd(`b-rail-${i}`),
        },
      ] as const,
  );
  const plate = (id: string, name: string, z: number) =>
    [
      id,
      {
        name,
        board: PLATE,
        origin: ["-20", "-20", String(z)] as const,
        length: String(wide + 40),
        width: String(deep + 40),
      },
    ] as const;
  return newJob({
    info: { code: "T", title: "Trolley" },
    points: Object.fromEntries([...ring("a", 20), ...ring("b", high)]),
    members: Object.fromEntries([
      ...[1, 2, 3, 4].map((i) => side("a", i)),
      ...[1, 2, 3, 4].map((i) => side("b", i)),
      ...posts,
    ]),
    panels: Object.fromEntries([plate("deck", "Deck", -6), plate("top", "Top", high + 20)]),
    boughtParts: Object.fromEntries(
      [1, 2, 3, 4].map((i) => [
        `castor-${i}`,
        {
          name: "Castor 80 mm with brake",
          entry: null,
          count: "1",
          stand: {
            at: [String(i === 2 || i === 3 ? wide : 0), String(i > 2 ? deep : 0), "-106"],
            turn: ["0", "0", "0"],
            step: ["0", "0", "0"],
            as: { kind: "box", size: ["70", "40", "100"] },
          },
        },
      ]),
    ),
  });
}

/** The text of the file. */
export function trolleyStep(sizes: Sizes = { wide: 900, deep: 520, high: 760 }): string {
  const job = trolley(sizes);
  const { shape } = createPipeline()(job, null, stockroom, []);
  return writeStep(modelOf(job, shape, NO_ASSETS), { name: "Trolley", made: new Date(0), shop: "" });
}

const [, script, out] = process.argv;
if (script?.endsWith("trolley.ts") && out) writeFileSync(out, trolleyStep());
