/** Counts what somebody does: a click, a filled field and an Enter are one each; so is a key that is pressed. */
import { appendFileSync, mkdirSync } from "node:fs";
import path from "node:path";
import { fileURLToPath } from "node:url";
import { expect, type Locator, type Page } from "@playwright/test";
import { pick } from "./fixtures";

/** What was counted, one line each time; the bench shows the last ones. */
export const ACTION_COUNTS = fileURLToPath(new URL("../test-results/actions.jsonl", import.meta.url));

export type ActionCount = { readonly what: string; readonly count: number; readonly most: number };

/** Holds a count against what is aimed at, and keeps it for the bench. */
export function expectAtMost(what: string, count: number, most: number): void {
  mkdirSync(path.dirname(ACTION_COUNTS), { recursive: true });
  appendFileSync(ACTION_COUNTS, `${JSON.stringify({ what, count, most } satisfies ActionCount)}\n`);
  console.log(`${what}: ${count} of at most ${most}`);
  expect(count, what).toBeLessThanOrEqual(most);
}

export class Actions {
  count = 0;
  private readonly page: Page;

  constructor(page: Page) {
    this.page = page;
  }

  async click(on: Locator, modifiers: ("Shift" | "Control")[] = []): Promise<void> {
    this.count++;
    await on.click({ modifiers });
  }

  button(name: string | RegExp): Promise<void> {
    return this.click(this.page.getByRole("button", { name, exact: true }));
  }

  /** A field is filled and carried out with Enter. */
  async type(label: string, value: string): Promise<void> {
    this.count += 2;
    const field = this.page.getByRole("textbox", { name: label, exact: true });
    await field.fill(value);
    await field.press("Enter");
  }

  /** A field of a form that is sent as a whole. */
  async fill(label: string, value: string): Promise<void> {
    this.count++;
    await this.page.getByRole("textbox", { name: label, exact: true }).fill(value);
  }

  async choose(label: string, option: string): Promise<void> {
    this.count += 2;
    await pick(this.page.getByRole("combobox", { name: label, exact: true }), option);
  }

  async press(key: string): Promise<void> {
    this.count++;
    await this.page.keyboard.press(key);
  }
}

/** The same by keyboard alone: every key that goes down is one, letters of what is typed as well. */
export class Keys {
  count = 0;
  private readonly page: Page;

  constructor(page: Page) {
    this.page = page;
  }

  async press(key: string): Promise<void> {
    this.count++;
    await this.page.keyboard.press(key);
  }

  /** Goes on with Tab, or back with Shift+Tab, to what is called so. Throws when it is not reached. */
  async reach(name: string | RegExp, key: "Tab" | "Shift+Tab" = "Tab"): Promise<void> {
    const fits = (own: string) => (typeof name === "string" ? own === name : name.test(own));
    for (let i = 0; i < 120; i++) {
      if (fits(await this.focused())) return;
      await this.press(key);
    }
    throw new Error(`the keyboard does not come to ${name}`);
  }

  /** The name of what has the focus. */
  private focused(): Promise<string> {
    return this.page.evaluate(() => {
      const one = document.activeElement;
      const label =
        one?.getAttribute("aria-label") ?? (one as HTMLInputElement | null)?.labels?.[0]?.textContent;
      return (label ?? one?.textContent ?? "").trim().replace(/\s+/g, " ");
    });
  }

  /** Fills the field that has the focus. */
  async type(text: string): Promise<void> {
    await this.press("Control+a");
    this.count += text.length;
    await this.page.keyboard.type(text);
  }

  /** Chooses in the list that has the focus. */
  async choose(option: string): Promise<void> {
    await this.press("Enter");
    const wanted = this.page.getByRole("option", { name: option, exact: true });
    await wanted.waitFor();
    for (let i = 0; i < 40 && !(await wanted.evaluate((one) => one === document.activeElement)); i++)
      await this.press("ArrowDown");
    await this.press("Enter");
    await wanted.waitFor({ state: "detached" });
  }
}
