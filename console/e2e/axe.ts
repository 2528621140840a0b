import AxeBuilder from "@axe-core/playwright";
import { expect, type Page } from "@playwright/test";

/** Says that the page as it stands violates no rule of accessibility. */
export async function expectNoViolation(page: Page, what = "") {
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map((one) => `${what} ${one.id}: ${one.nodes[0]?.html}`.trim())).toEqual([]);
}
