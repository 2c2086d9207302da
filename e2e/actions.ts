/** Counts what somebody does: a click, a filled field and an Enter are one each; so is a key that is pressed. */
import type { Locator, Page } from "@playwright/test";

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
    await this.click(this.page.getByRole("combobox", { name: label, exact: true }));
    await this.click(this.page.getByRole("option", { name: option, exact: true }));
  }

  async press(key: string): Promise<void> {
    this.count++;
    await this.page.keyboard.press(key);
  }
}
