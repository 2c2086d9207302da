/** How many actions the driven tests needed when they ran last, beside what was aimed at. */
import { existsSync, readFileSync } from "node:fs";
import { ACTION_COUNTS, type ActionCount } from "../e2e/actions";

export function actionTable(): void {
  console.log("Actions of a drafter, as the driven tests counted them last");
  if (!existsSync(ACTION_COUNTS)) {
    console.log("  none yet: npm run e2e -- first-hour guide\n");
    return;
  }
  const last = new Map<string, ActionCount>();
  for (const line of readFileSync(ACTION_COUNTS, "utf8").trim().split("\n")) {
    const one = JSON.parse(line) as ActionCount;
    last.set(one.what, one);
  }
  for (const { what, count, most } of last.values())
    console.log(`  ${what.padEnd(52)}${String(count).padStart(5)}   of at most ${most}`);
  console.log();
}
