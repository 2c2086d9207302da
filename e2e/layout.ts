/** What the tests of the Layout stage share. */
import type { Locator, Page } from "@playwright/test";
import { expect } from "./fixtures";

/** A stock size in the ledger on the left. */
export const stockOf = (page: Page, name: RegExp) =>
  page.getByRole("region", { name: "List" }).getByRole("button", { name });

/**
 * Drags a piece to a place on a target, told as shares of it, until `done` is seen: while the pane still settles after a
 * search, what is under the pointer may have moved on by the time it is let go.
 */
export async function dragTo(
  page: Page,
  piece: RegExp,
  target: string,
  [across, down]: readonly [number, number],
  done: Locator,
): Promise<void> {
  await expect(async () => {
    if (!(await done.isVisible())) {
      const from = await page.getByRole("button", { name: piece }).first().boundingBox();
      const to = await page.locator(target).boundingBox();
      if (!from || !to) throw new Error("nothing to drag");
      await page.mouse.move(from.x + 12, from.y + 12);
      await page.mouse.down();
      await page.mouse.move(to.x + to.width * across, to.y + to.height * down, { steps: 10 });
      await page.mouse.up();
    }
    await expect(done).toBeVisible({ timeout: 2_000 });
  }).toPass({ timeout: 30_000 });
}
