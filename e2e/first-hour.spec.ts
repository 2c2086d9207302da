/** What a drafter does who has never seen it: a frame and a cabinet, with the number of actions that each takes. */
import { Actions } from "./actions";
import { expect, saved, test } from "./fixtures";
import { newJob, tallyRows } from "./shape";

test("a frame of thirteen members is drawn in at most 60 actions", async ({ page }) => {
  await newJob(page, "HL-480");
  const does = new Actions(page);
  await does.button("Draw members");
  await does.choose("Draw", "a rectangle");
  await does.type("From", "0; 0; 830");
  await does.type("Opposite corner", "960; 460; 830");
  await does.button("Done");
  const rails = page.getByRole("button", { name: /Rail P\d–P\d/ });
  await does.click(rails.first());
  await does.click(rails.last(), ["Shift"]);
  await does.button("Legs");
  await does.button("Draw legs");
  await does.button("Draw members");
  await does.type("Name", "Low rail");
  await does.type("From", "0; 0; 180");
  await does.type("Opposite corner", "960; 460; 180");
  await does.choose("Draw", "one by one");
  await does.choose("Direction", "to a position");
  await does.type("Name", "Brace");
  await does.type("From", "0; 460; 280");
  await does.type("Position", "960; 460; 730");
  await does.press("Escape");
  await does.press("Escape");
  await expect(page.getByRole("button", { name: "Draw members" })).toBeFocused();
  await saved(page);
  expect(await tallyRows(page)).toEqual([
    // 920 between the legs, risen 450 in 960, and half a section on either end.
    "Brace 1 1034.8",
    "Rail 2 1000",
    "Low rail 2 920",
    "Leg 4 810",
    "Rail 2 500",
    "Low rail 2 420",
  ]);
  console.log(`frame, drawn: ${does.count} actions`);
  expect(does.count).toBeLessThanOrEqual(60);
});

test("the same frame from a jig takes at most 15 actions, and a cabinet at most 35", async ({ page }) => {
  await newJob(page, "HL-481");
  const frame = new Actions(page);
  await frame.button("Jigs");
  await frame.choose("Braces", "across the back");
  await frame.button("Insert");
  await saved(page);
  expect(await tallyRows(page)).toEqual(
    expect.arrayContaining([
      "Top rail 2 1000",
      "Leg 4 810",
      "Low end rail 2 420",
      expect.stringMatching(/^Brace 1 /),
    ]),
  );
  console.log(`frame, from a jig: ${frame.count} actions`);
  expect(frame.count).toBeLessThanOrEqual(15);

  await newJob(page, "HL-482");
  const cabinet = new Actions(page);
  await cabinet.button("Jigs");
  await cabinet.button("Carcass");
  await cabinet.fill("Overall width", "800");
  await cabinet.fill("Overall height", "900");
  await cabinet.button("Insert");
  // The edges of both shelves at once, in front.
  await saved(page);
  const rows = await tallyRows(page);
  console.log(`cabinet: ${cabinet.count} actions`, rows);
  expect(cabinet.count).toBeLessThanOrEqual(35);
});
