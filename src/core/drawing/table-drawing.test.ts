import { describe, expect, it } from "vitest";
import type { Column, ListTable } from "../lists";
import { tableRows } from "./table-drawing";

const column = (id: string, align: Column["align"], width: number): Column => ({
  id,
  heading: id,
  align,
  width,
  writes: null,
});
const TABLE: ListTable = {
  title: "T",
  columns: [column("name", "left", 40), column("stand", "centre", 20), column("length", "right", 40)],
  groups: [
    {
      id: "g",
      heading: "Tube",
      detail: "S235",
      summary: "1 piece",
      rows: [
        {
          id: "r",
          level: 0,
          pieces: ["p"],
          cells: { name: { text: "Rail" }, stand: { text: "square" }, length: { text: "1200" } },
        },
      ],
    },
  ],
  foot: [{ label: "Total", cells: { length: { text: "1200" } } }],
  notes: ["A note."],
} as unknown as ListTable;

describe("a table as drawn", () => {
  const { heading, rows } = tableRows(TABLE, 200, () => []);
  const textsOf = (items: (typeof heading)["items"]) =>
    items.flatMap((item) => (item.kind === "text" ? [[item.text, item.align, item.at[0]] as const] : []));

  it("sets words at the left of their column, middles in its middle, numbers at its right edge, in heading, rows and sums", () => {
    // Columns of 80, 40 and 80 wide on 200; at the right a gap to the next column stays free.
    const expected = [
      ["left", 0],
      ["centre", 100],
      ["right", 198.4],
    ] as const;
    expect(textsOf(heading.items).map(([, align, x]) => [align, x])).toEqual(expected);
    const row = rows.find(({ items }) => textsOf(items).some(([text]) => text === "Rail"));
    expect(textsOf(row?.items ?? [])).toEqual([
      ["Rail", ...expected[0]],
      ["square", ...expected[1]],
      ["1200", ...expected[2]],
    ]);
    const foot = rows.find(({ items }) => textsOf(items).some(([text]) => text === "Total"));
    expect(textsOf(foot?.items ?? [])).toEqual([
      ["Total", "left", 0],
      ["1200", ...expected[2]],
    ]);
  });

  it("sets a group's heading at the left, what is said of it after it, its sum at the right", () => {
    const [group] = rows;
    const [
      [, , head] = ["", "left", -1],
      [, , detail] = ["", "left", -1],
      [, align, sum] = ["", "left", -1],
    ] = textsOf(group?.items ?? []);
    expect(head).toBe(0);
    expect(detail).toBeGreaterThan(4 * 2.9 * 0.5);
    expect([align, sum]).toEqual(["right", 198.4]);
  });

  it("marks what was typed over by an asterisk and tells it under the table, and nothing of what was not", () => {
    const over = (cells: object) => ({
      ...TABLE,
      groups: TABLE.groups.map((group) => ({
        ...group,
        rows: group.rows.map((row) => ({ ...row, cells: { ...row.cells, ...cells } })),
      })),
    });
    const drawn = (table: object) =>
      tableRows(table as ListTable, 200, () => []).rows.flatMap(({ items }) =>
        textsOf(items).map(([text]) => text),
      );
    expect(drawn(TABLE).filter((text) => text.includes("*"))).toEqual([]);
    const typed = drawn(over({ length: { text: "1250", over: { computed: "1200", changed: false } } }));
    expect(typed).toContain("1250 *");
    expect(typed.filter((text) => text.startsWith("* typed over in Rail: "))).toHaveLength(1);
    expect(typed.find((text) => text.startsWith("* typed over"))).toContain("1200");
  });

  it("lets long notes run on, a line lower each, within the height of their row", () => {
    const words = Array.from({ length: 60 }, (_, i) => `word${i}`).join(" ");
    const { rows: drawn } = tableRows({ ...TABLE, notes: [words] }, 200, () => []);
    const note = drawn.at(-1);
    const lines = note?.items.flatMap((item) => (item.kind === "text" ? [item] : [])) ?? [];
    expect(lines.length).toBeGreaterThan(2);
    expect(lines.map(({ text }) => text).join(" ")).toBe(words);
    for (const [i, line] of lines.entries())
      if (i > 0) expect(line.at[1] - (lines[i - 1]?.at[1] ?? 0)).toBeCloseTo(3.7, 9);
    expect(note?.height).toBeGreaterThan(lines.at(-1)?.at[1] ?? Number.POSITIVE_INFINITY);
  });

  it("keeps a group line with what follows, and every row as high as its lines", () => {
    expect(rows[0]?.keepWithNext).toBeGreaterThan(0);
    for (const { height, items } of rows)
      for (const item of items) if (item.kind === "text") expect(item.at[1]).toBeLessThanOrEqual(height);
  });
});
