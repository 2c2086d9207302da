/** The guide in docs/guide.md as somebody follows it: its numbered steps are read from the page itself and carried out one by one. */
import { readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { type Download, expect, type Locator, type Page } from "@playwright/test";
import { pick } from "./fixtures";

export const GUIDE = fileURLToPath(new URL("../docs/guide.md", import.meta.url));

type Step =
  | { readonly do: "press" | "open" | "read" | "download"; readonly what: string; readonly words: string }
  | {
      readonly do: "fill" | "set" | "choose";
      readonly what: string;
      readonly value: string;
      readonly words: string;
    }
  | { readonly do: "picture"; readonly file: string; readonly words: string };

const VERBS = { Press: "press", Open: "open", Read: "read", Download: "download" } as const;
const FIELDS = { "Fill in": "fill", Set: "set", Choose: "choose" } as const;

/** The steps of the guide and its pictures, in their order. Throws on a numbered line that says nothing that can be done. */
export function guideSteps(): readonly Step[] {
  return readFileSync(GUIDE, "utf8")
    .split("\n")
    .flatMap((line): readonly Step[] => {
      const picture = /^!\[.*\]\(guide\/(.+\.png)\)$/.exec(line);
      if (picture) return [{ do: "picture", file: picture[1] ?? "", words: line }];
      const numbered = /^\d+\. (.+)$/.exec(line);
      if (!numbered) return [];
      const words = numbered[1] ?? "";
      const plain = /^(Press|Open|Read|Download) \*\*(.+?)\*\*/.exec(words);
      if (plain) return [{ do: VERBS[plain[1] as keyof typeof VERBS], what: plain[2] ?? "", words }];
      const field = /^(Fill in|Set|Choose) \*\*(.+?)\*\*: `(.+?)`\.$/.exec(words);
      if (!field) throw new Error(`The guide says something that nobody can do: ${words}`);
      return [
        { do: FIELDS[field[1] as keyof typeof FIELDS], what: field[2] ?? "", value: field[3] ?? "", words },
      ];
    });
}

const begins = (words: string) => new RegExp(`(^|\\s)${words.replace(/[()]/g, "\\$&")}`);

/** Carries one step out; what was downloaded comes back. */
export async function follow(page: Page, step: Exclude<Step, { do: "picture" }>): Promise<Download | null> {
  const named = (role: "textbox" | "combobox"): Locator =>
    page.getByRole(role, { name: step.what, exact: true }).first();
  switch (step.do) {
    case "press":
      await page
        .getByRole("button", { name: begins(step.what) })
        .first()
        .click();
      return null;
    case "open":
      await page
        .getByRole("navigation", { name: "Stages" })
        .getByRole("button", { name: begins(step.what) })
        .click();
      return null;
    case "read":
      await expect(page.locator("main, section").getByText(step.what).first(), step.words).toBeVisible();
      return null;
    case "download": {
      const [download] = await Promise.all([
        page.waitForEvent("download"),
        page.getByRole("menuitem", { name: begins(step.what) }).click(),
      ]);
      return download;
    }
    case "fill":
      await named("textbox").fill(step.value);
      return null;
    case "set":
      await named("textbox").fill(step.value);
      await named("textbox").press("Enter");
      return null;
    case "choose":
      await pick(named("combobox"), step.value);
      return null;
    default:
      return step satisfies never;
  }
}
