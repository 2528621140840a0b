import type { Page } from "@playwright/test";

/** The acts that a clerk may take for a vendor with ten header fields and five columns: clicks, and keys that are no text. */
export const MOST_ACTS = 25;

/** Counts what is clicked and pressed, but for text that is typed. */
export async function countActs(page: Page): Promise<() => Promise<number>> {
  await page.evaluate(() => {
    const counted = window as unknown as { acts: number };
    counted.acts = 0;
    const count = (event: Event) => {
      const isText = event instanceof KeyboardEvent && event.key.length === 1;
      if (event.isTrusted && !isText) {
        counted.acts++;
      }
    };
    window.addEventListener("pointerdown", count, true);
    window.addEventListener("keydown", count, true);
  });
  return () => page.evaluate(() => (window as unknown as { acts: number }).acts);
}
