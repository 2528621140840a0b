import AxeBuilder from "@axe-core/playwright";
import { expect, type Page } from "@playwright/test";

/**
 * Says that the page as it stands violates no rule of accessibility. In the dark only its colours are others, so that
 * only they are looked at there.
 *
 * @param within What has changed since the page was looked at before; left out for all of it.
 */
export async function expectNoViolation(page: Page, what = "", within?: string) {
  let axe = new AxeBuilder({ page });
  if (within !== undefined) {
    axe = axe.include(within);
  }
  if (await page.evaluate(() => matchMedia("(prefers-color-scheme: dark)").matches)) {
    axe = axe.withRules(["color-contrast", "link-in-text-block"]);
  }
  const { violations, passes } = await axe.analyze();
  expect(violations.map((one) => `${what} ${one.id}: ${one.nodes[0]?.html}`.trim())).toEqual([]);
  expect(passes.map((one) => one.id)).toContain("color-contrast");
}
