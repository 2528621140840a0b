import { expect, type Page } from "@playwright/test";

/** The editor of the template's text, which draws only the lines that are seen. */
export const editorOf = (page: Page) => page.getByRole("textbox", { name: "The template as text" });

/** The whole text, as a person would copy it. */
export async function textOf(page: Page): Promise<string> {
  await page.context().grantPermissions(["clipboard-read", "clipboard-write"]);
  await editorOf(page).focus();
  await page.keyboard.press("Control+A");
  await page.keyboard.press("Control+C");
  return page.evaluate(() => navigator.clipboard.readText());
}

/** Types a whole text in the place of what stands there. */
export async function typeText(page: Page, text: string, editor = editorOf(page)) {
  await editor.focus();
  await page.keyboard.press("Control+A");
  await page.keyboard.insertText(text);
}

export async function expectText(page: Page, text: string) {
  await expect.poll(() => textOf(page)).toBe(text);
}
